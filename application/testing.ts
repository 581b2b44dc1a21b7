import { findTest } from '../core/catalogue/catalogue';
import type { Engine } from '../core/engine/layout';
import type { Limits, Position } from '../core/judge/types';
import { judgeRun } from './judging/judge-run';
import { type CircumstanceView, type ReadingView, type RunView } from './views';
import { countingReadings } from './judging/corrections';

/** Views as a server would send them, for tests of the screens. Invented numbers. */

export const LIMITS: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1, source: 'sheet 7' };

const CIRCUMSTANCE: CircumstanceView = {
  instrumentId: null,
  leadZero: '0.2',
  zeros: {},
  states: ['key-off'],
  condition: { partTemperature_degC: 8 },
};

export interface Entered {
  readonly id: string;
  readonly position: Position;
  readonly entry: string;
  readonly supersedes?: string;
  readonly why?: string;
}

export interface RunOf {
  readonly test?: string;
  readonly engine?: Engine;
  readonly limits?: Limits;
  readonly circumstance?: Partial<CircumstanceView>;
  /** In the order in which they were stored. */
  readonly entered?: readonly Entered[];
}

const UNIT = {
  id: 'u',
  fleetNumber: 'PL-1',
  kind: 'Pump',
  depot: 'Quay',
  timeZone: 'Etc/UTC',
  family: 'L2',
  parts: {},
};
const JOB = {
  id: 'j',
  number: 4,
  complaint: 'slow',
  openedAt: '',
  openedBy: 'Ines',
  closed: false,
  odometer_km: null,
  hours: 12,
  runs: [],
};

/** A run with these readings, judged. */
export function runView(of: RunOf = {}): RunView {
  const definition = findTest(of.test ?? 'glow-plug-resistance');
  if (!definition) throw new Error(`there is no test "${of.test}"`);
  const engine = of.engine ?? { layout: 'inline', cylinders: 2, systemVoltage_V: 12 };
  const limits = of.limits ?? LIMITS;
  const circumstance = { ...CIRCUMSTANCE, ...of.circumstance };
  const entered = (of.entered ?? []).map((e) => ({
    ...e,
    supersedes: e.supersedes ?? null,
    why: e.why ?? null,
    instrumentId: null,
  }));
  const judged = judgeRun({
    definition,
    decision: 'three-way',
    engine,
    limits,
    circumstance,
    instruments: [],
    readings: countingReadings(entered),
  });
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  const readings = entered.map((e): ReadingView => {
    const own = judged.value.readings.find((r) => r.position === e.position);
    if (!own) throw new Error(`nothing was judged at ${e.position}`);
    return {
      ...e,
      takenAt: '2026-11-20T10:00:00Z',
      takenBy: 'Ines',
      leadZero: circumstance.leadZero,
      coreVersion: '0',
      judged: own,
    };
  });
  return {
    id: 'run',
    test: definition.id,
    definition,
    decision: 'three-way',
    because: '',
    testLeads: [],
    fitted: null,
    connectors: [],
    displays: [],
    startedAt: '2026-11-20T09:00:00Z',
    startedBy: 'Ines',
    circumstance,
    instruments: [],
    judgement: judged.value,
    unit: { ...UNIT, engine },
    job: JOB,
    specification: {
      id: 's',
      revision: 3,
      source: 'sheet 7',
      status: 'draft',
      limits,
      scope: 'family',
      of: 'L2',
      school: null,
    },
    readings,
  };
}
