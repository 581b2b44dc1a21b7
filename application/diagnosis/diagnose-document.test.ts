import { measuredOf } from './measured';
import type { JudgedReading } from '../../core/judge/types';
import { judgedReading as judged } from '../../core/judge/testing';
import { unitValue } from '../../core/quantity/values';
import { diagnoseDocument } from './diagnose-document';

const read = (id: string, unit: string, readings: readonly JudgedReading[]) =>
  measuredOf({ id, quantity: 'resistance' }, { limits: { unit }, readings });

describe('readings of a run as evidence', () => {
  test('in ohms, as they were corrected, whatever the unit of the limits', () => {
    expect(read('injector-resistance-piezo', 'kohm', [judged({ corrected: 180, standardUncertainty: 2 })])).toEqual([
      { test: 'injector-resistance-piezo', position: 1, kind: 'value', value: 180e3, u: 2000 },
    ]);
  });
  test('overload, wander and nothing keep their kind', () => {
    const kinds = read('glow-plug-resistance', 'ohm', [
      judged({ position: 1, verdict: 'open', value: null, corrected: null }),
      judged({ position: 2, verdict: 'unsteady', wander: { low: 0.4, high: 0.9 } }),
      judged({ position: 3, verdict: 'not-measured', value: null, corrected: null }),
    ]).map((m) => [m.position, m.kind]);
    expect(kinds).toEqual([
      [1, 'overload'],
      [2, 'unsteady'],
    ]);
  });
  test('leads that nobody has zeroed are taken off by their middle, and the reading is known less well', () => {
    const unzeroed = [{ rule: 'leads-not-zeroed' as const, mostLeads_ohm: 0.5 }];
    const [plain, doubtful, small] = read('glow-plug-resistance', 'ohm', [
      judged({ corrected: 1.7 }),
      judged({ corrected: 1.7, reasons: unzeroed }),
      judged({ corrected: 0.2, reasons: unzeroed }),
    ]);
    expect([plain?.value, plain?.u]).toEqual([1.7, 0.05]);
    expect(doubtful?.value).toBeCloseTo(1.35, 12);
    expect(doubtful?.u).toBeCloseTo(Math.hypot(0.05, 0.3 / Math.sqrt(12)), 12);
    expect(small?.value).toBe(0);
  });
  test('read again with the same result it counts again; the ends of a wander travel with it', () => {
    expect(read('glow-plug-resistance', 'ohm', [judged({ corrected: 1.7, agreed: 1 })])).toHaveLength(2);
    const wander = { low: unitValue(0.4), high: null };
    expect(read('glow-plug-resistance', 'mohm', [judged({ verdict: 'unsteady', wander })])[0]?.ends).toEqual({
      low: 0.0004,
      high: null,
    });
  });
  test('a unit that is none gives no evidence', () => expect(read('x', 'florp', [judged({})])).toEqual([]));
});

describe('an evidence file', () => {
  const file = (measurements: { test: string; position: number; entry: string; leadZero?: string }[], more = {}) =>
    diagnoseDocument({
      format: 'mudflat/evidence',
      version: 1,
      circuit: 'glow-relay',
      engine: { layout: 'inline', cylinders: 4, systemVoltage_V: 12 },
      measurements,
      ...more,
    });
  const top = (r: ReturnType<typeof file>) => (r.ok ? r.value.suspects[0]?.element : r.error);
  test('leads are subtracted before it is weighed', () => {
    const plug = (entry: string, leadZero?: string) =>
      file(
        [1, 2, 3, 4].map((position) => ({
          test: 'glow-plug-resistance',
          position,
          entry: position === 3 ? entry : '0.7',
          ...(leadZero ? { leadZero } : {}),
        })),
      );
    const unexplained = (leadZero?: string) => {
      const d = file(
        [1, 2, 3, 4].map((position) => ({
          test: 'glow-plug-resistance',
          position,
          entry: '2.4',
          ...(leadZero ? { leadZero } : {}),
        })),
      );
      return d.ok ? d.value.unexplained : NaN;
    };
    expect(unexplained('1.7')).toBeGreaterThan(2 * unexplained());
    expect(top(plug('4k5'))).toBe('plug 3');
    expect(top(plug('>20M'))).toBe('plug 3');
    expect(top(plug('0.5~1.4'))).toBe('plug 3');
  });
  test('a code that names a cylinder and a swap that follows weigh together', () => {
    expect(
      top(
        file([], {
          codes: ['P0672'],
          observations: [{ kind: 'swap', part: 'plug', from: 2, to: 1, outcome: 'followed' }],
        }),
      ),
    ).toBe('plug 2');
  });
  test('a wide plug is not punished where its limits or its value come with it', () => {
    const wide = [1, 2, 3, 4].map((position) => ({ test: 'glow-plug-resistance', position, entry: '2.0' }));
    const unexplained = (more: object) => {
      const d = file(wide, more);
      return d.ok ? d.value.unexplained : NaN;
    };
    const plain = unexplained({});
    const limits = [
      { test: 'glow-plug-resistance', limits: { quantity: 'resistance', unit: 'ohm', lower: 1.5, upper: 2.6 } },
    ];
    expect(unexplained({ limits })).toBeGreaterThan(2 * plain);
    expect(unexplained({ healthy: { plug: { value: 2 } } })).toBeGreaterThan(2 * plain);
  });
  test('limits and values that nothing takes are refused at their field', () => {
    const refused = file([], {
      healthy: { plum: { value: 1 } },
      limits: [{ test: 'no-such', limits: { quantity: 'resistance', unit: 'ohm', lower: 3, upper: 1 } }],
    });
    expect(refused.ok ? [] : refused.error.map((e) => e.path)).toEqual(
      expect.arrayContaining(['/healthy/plum', '/limits/0/test', expect.stringMatching(/^\/limits\/0\/limits/)]),
    );
  });
  test('a slip that was written down is weighed, not refused', () => {
    const plugs = (entry: string) =>
      file(
        [1, 2, 3, 4].map((position) => ({
          test: 'glow-plug-resistance',
          position,
          entry: position === 3 ? entry : '0.7',
        })),
      );
    const d = plugs('-0.7 k');
    expect(d.ok && d.value.notes.join()).toMatch(/does not fit the rest: read it again/);
    expect(d.ok && d.value.next[0]).toMatchObject({ test: 'glow-plug-resistance', position: 3 });
  });
  test('nothing typed says nothing', () => {
    const [empty, none] = [file([{ test: 'glow-plug-resistance', position: 1, entry: '-' }]), file([])];
    expect(empty).toEqual(none);
  });
});
