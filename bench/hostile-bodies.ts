import { v7 } from 'uuid';
import { CATALOGUE } from '../core/catalogue/catalogue';
import { CIRCUITS } from '../core/circuits/library';
import { EVIDENCE_KINDS } from '../core/evidence/kinds/kinds';

const NOW = (): string => new Date().toISOString();

/** Bodies that are good but for what is done to them: the deeper they reach, the deeper the damage. */
export const BODY_EXAMPLES: {
  readonly json: Readonly<Record<string, readonly (() => object)[]>>;
  readonly files: readonly string[];
} = {
  json: {
    catalogue: CATALOGUE.slice(0, 8).map((test) => () => ({ testId: test.id, test })),
    circuits: CIRCUITS.slice(0, 4).map((circuit) => () => ({ circuitId: circuit.id, circuit })),
    'jobs/[id]/evidence': Object.values(EVIDENCE_KINDS).map((k) => () => ({ evidence: k.example })),
    'runs/[id]/readings': ['0.6', '4k5', '0.4~0.9', '>20M', 'OL', '1.0@100 kPa'].map((entry) => () => ({
      position: 1,
      entry,
      takenAt: NOW(),
    })),
    'jobs/[id]/codes': [
      () => ({
        phase: 'as-found',
        status: 'active',
        codes: ['P0672', { code: 'SPN 653 FMI 5', status: 'stored', count: 3 }],
        freezeFrame: [{ name: 'engine speed', value: '812 rpm' }],
      }),
    ],
    specifications: [
      () => ({
        entry: {
          test: 'glow-plug-resistance',
          scope: 'general',
          limits: { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1.5, neighbours: { maxRatio: 2 } },
          source: `hostile ${v7()}`,
          when: { systemVoltage_V: 12 },
        },
      }),
      () => ({
        entry: {
          test: 'sensor-transfer',
          scope: 'general',
          limits: {
            quantity: 'voltage',
            unit: 'V',
            transfer: {
              kind: 'table',
              stimulus: { quantity: 'pressure', unit: 'kPa' },
              points: [
                [0, 0.5],
                [100, 2],
              ],
            },
            tolerance: { absolute: 0.1 },
          },
          source: `hostile ${v7()}`,
        },
      }),
    ],
    'jobs/[id]/records': [
      () => ({ record: { kind: 'step', step: 'x', value: '17', unit: 'Nm' } }),
      () => ({
        record: {
          kind: 'quotation',
          finding: v7(),
          currency: 'EUR',
          note: '',
          lines: [{ text: 'Plug', quantity: 1, price: 100, partNumber: '' }],
        },
      }),
      () => ({ record: { kind: 'release', said: 'x', waived: [] } }),
      () => ({ record: { kind: 'coding', finding: v7(), position: 1, code: 'ABC', how: 'typed' } }),
    ],
    instruments: [
      () => ({
        depotId: v7(),
        name: `Hostile ${v7()}`,
        instrument: {
          kind: 'multimeter',
          accuracy: [{ quantity: 'resistance', upTo: 600, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
        },
      }),
    ],
    'service-data': [
      () => ({
        family: null,
        kind: 'fitting',
        key: 'glow-plugs/torque',
        body: { value: '17 Nm' },
        source: 'hostile',
      }),
    ],
    units: [
      () => ({
        depotId: v7(),
        engineFamilyId: v7(),
        fleetNumber: `H-${v7().slice(-8)}`,
        kind: 'Tipper',
        newFamily: {
          code: `H ${v7().slice(-8)}`,
          engine: { layout: 'vee', cylinders: 8, firingOrder: [1, 2, 7, 8, 4, 5, 6, 3], systemVoltage_V: 24 },
        },
      }),
    ],
    judge: [
      () => ({
        format: 'mudflat/test-set',
        version: 1,
        test: 'glow-plug-resistance',
        engine: { layout: 'inline', cylinders: 4 },
        condition: {},
        limits: { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1.5 },
        instrument: { kind: 'multimeter' },
        readings: [{ position: 1, entry: '0.6' }],
      }),
    ],
  },
  files: [
    'test,scope,quantity,unit,upper,source\nglow-plug-resistance,general,resistance,ohm,1.5,s\n',
    'fleet_number;kind;depot;family\nH-1;Tipper;Quay Yard;L4-20\n',
    'position,entry\n1,0.6\n2,OL\n',
    JSON.stringify({ format: 'mudflat/shelf', version: 1, limits: [] }),
    JSON.stringify({ format: 'mudflat/catalogue', version: 1, tests: [CATALOGUE[0]] }),
    '\ufeff"unclosed',
    ',,,,\n'.repeat(500),
  ],
};
