import { lineOf, type MeterMode, SimulatedMeter } from '../../core/simulate/meter';
import { CIRCUITS } from '../../core/circuits/library';
import { NO_FLAGS } from '../../core/instrument/types';
import { readUnasked } from '../../core/instrument/unasked';
import { touchRules } from '../../core/instrument/rules';
import { seededRandom } from '../../core/numerics/random';
import type { Position } from '../../core/judge/types';
import {
  hearNothing,
  hearValue,
  type ListenAction,
  type ListenState,
  type ListenTarget,
  sayYes,
  startListening,
} from './listen';

const rules = touchRules({
  quantity: 'resistance',
  accuracy: [{ quantity: 'resistance', upTo: 6, percentOfReading: 0.8, counts: 5, resolution: 0.001 }],
  leadZero_ohm: 0.18,
  lower: null,
  upper: 2,
  isLeadZero: false,
});
const glow = CIRCUITS.find((c) => c.id === 'glow-relay');
if (!glow) throw new Error('the library has no glow plugs');

/** A bench of eight plugs: frames the next position when one is recorded. */
class Bench {
  readonly readings = new Map<Position, string>();
  readonly said: ListenAction[] = [];
  state: ListenState = startListening(0);
  framed: Position | null = 1;
  t = 0;
  readonly meter = new SimulatedMeter({
    circuit: glow as NonNullable<typeof glow>,
    engine: { layout: 'vee', cylinders: 8 },
    faults: [{ element: 'plug 4', kind: 'open' }],
    test: 'glow-plug-resistance',
    wanders: [6],
    random: seededRandom(7),
  });
  mode: MeterMode = 'resistance';

  private get context() {
    const target: ListenTarget = this.framed === null ? null : { kind: 'position', position: this.framed };
    return { target, quantity: 'resistance' as const, rules, stepAt: () => 0 };
  }
  /** Lets time pass at ten values a second. */
  wait(seconds: number): void {
    for (const end = this.t + seconds; this.t < end - 1e-9;) {
      this.t += 0.1;
      const read = readUnasked(lineOf(this.meter.show(this.t), this.mode));
      if (!read.ok) throw new Error(read.why);
      this.take(hearValue(this.state, this.t, read.value, this.context));
    }
  }
  take(listened: ReturnType<typeof hearValue> | null): void {
    if (!listened) return;
    this.state = listened.state;
    for (const a of listened.actions) {
      this.said.push(a);
      if (a.do === 'back') this.framed = a.position;
      if (a.do !== 'record' || a.target.kind !== 'position') continue;
      this.readings.set(a.target.position, a.entry);
      this.framed = ([1, 2, 3, 4, 5, 6, 7, 8] as const).find((p) => !this.readings.has(p)) ?? null;
    }
  }
  touch(position: Position, seconds: number): void {
    this.meter.put(position, this.t);
    this.wait(seconds);
    this.meter.put('off', this.t);
    this.wait(0.9);
  }
  yes(): void {
    this.take(sayYes(this.state, this.context));
  }
  get last(): ListenAction | undefined {
    return this.said.at(-1);
  }
}

it('eight plugs, one open, one that wanders: read with no key pressed, in less than 25 seconds', () => {
  const bench = new Bench();
  bench.wait(0.5);
  for (const p of [1, 2, 3]) bench.touch(p, 1.2);
  // On an open plug nothing is shown: it asks, and a tap of the probes says yes.
  bench.touch(4, 3);
  expect(bench.last).toMatchObject({ do: 'ask', question: 'open', position: 4 });
  bench.touch('together', 0.3);
  bench.touch(5, 1.2);
  bench.touch(6, 4);
  for (const p of [7, 8]) bench.touch(p, 1.2);
  expect([...bench.readings.keys()]).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  expect(bench.readings.get(4)).toBe('OL');
  expect(bench.readings.get(6)).toContain('~');
  expect(bench.readings.get(1)).toMatch(/^0\.\d{3} Ω$|^1\.\d{3} Ω$/);
  expect(bench.t).toBeLessThan(25);
});

it('a lifted probe is never an open plug by itself', () => {
  const bench = new Bench();
  bench.wait(30);
  expect(bench.readings.size).toBe(0);
  bench.yes();
  expect(bench.readings.get(1)).toBe('OL');
});

it('a question about a position that is not framed any more is dropped', () => {
  const bench = new Bench();
  bench.wait(5);
  expect(bench.state.question).not.toBeNull();
  bench.framed = 2;
  bench.yes();
  expect(bench.readings.size).toBe(0);
});

it('the same again after a moment is asked: nothing is taken until it is lifted, or somebody says yes', () => {
  const bench = new Bench();
  bench.touch(1, 1.2);
  bench.meter.put(2, bench.t);
  bench.wait(1.2);
  bench.meter.put('off', bench.t);
  bench.wait(0.4);
  bench.meter.put(2, bench.t);
  bench.wait(3.5);
  expect(bench.said.some((a) => a.do === 'ask' && a.question === 'again' && a.position === 2)).toBe(true);
  expect(bench.readings.has(3)).toBe(false);
  bench.yes();
  expect(bench.last).toMatchObject({ do: 'record', target: { position: 2 }, isRepeat: true });
  expect(bench.readings.has(3)).toBe(false);
  bench.meter.put('off', bench.t);
  bench.wait(0.9);
  bench.touch(3, 1.5);
  expect(bench.readings.has(3)).toBe(true);
});

it('probes held together are no shorted plug by themselves', () => {
  const bench = new Bench();
  bench.meter.put('together', 0);
  bench.wait(4);
  expect(bench.last).toMatchObject({ do: 'ask', question: 'short', position: 1 });
  bench.meter.put('off', bench.t);
  bench.wait(1);
  expect(bench.state.question).toBeNull();
  bench.touch('together', 4);
  expect(bench.readings.size).toBe(0);
  bench.meter.put('together', bench.t);
  bench.wait(4);
  bench.yes();
  expect(bench.readings.get(1)).toBe('0.180 Ω');
});

it('three touches of the probes go back to the last position', () => {
  const bench = new Bench();
  bench.touch(1, 1.2);
  for (let k = 0; k < 3; k++) {
    bench.meter.put('together', bench.t);
    bench.wait(0.3);
    bench.meter.put('off', bench.t);
    bench.wait(0.4);
  }
  expect(bench.last).toEqual({ do: 'back', position: 1 });
  bench.touch(1, 1.2);
  expect(bench.last).toMatchObject({ do: 'record', target: { position: 1 } });
});

it('takes nothing while the meter measures something else, and says why', () => {
  const bench = new Bench();
  bench.mode = 'voltage';
  bench.touch(1, 3);
  expect(bench.readings.size).toBe(0);
  expect(bench.state.misfit).toMatch(/needs resistance/);
  bench.mode = 'resistance';
  bench.touch(1, 1.2);
  expect(bench.readings.has(1)).toBe(true);
});

it('forgets a touch over a silence, so that nothing is taken twice', () => {
  const bench = new Bench();
  bench.touch(1, 1.2);
  bench.meter.put(2, bench.t);
  bench.wait(0.2);
  bench.take(hearNothing(bench.state, bench.t + 4));
  expect(bench.last).toEqual({ do: 'silent' });
  bench.t += 5;
  bench.wait(1.5);
  expect([...bench.readings.keys()]).toEqual([1, 2]);
});

it('takes the step of the digits from the card where the meter does not say it', () => {
  const target = { kind: 'position', position: 1 } as const;
  const context = { target, quantity: 'resistance' as const, rules, stepAt: () => 0.001 };
  let state = startListening(0);
  const entries: string[] = [];
  for (let t = 0.1; t < 3; t += 0.1) {
    const value = { ...NO_FLAGS, value: 0.61234567, step: 0, quantity: 'resistance' as const };
    const heard = hearValue(state, t, value, context);
    state = heard.state;
    for (const a of heard.actions) if (a.do === 'record') entries.push(a.entry);
  }
  expect(entries).toEqual(['0.612 Ω']);
});
