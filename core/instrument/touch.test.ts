import fc from 'fast-check';
import { seededRandom } from '../numerics/random';
import { type Display, startTouch, type TouchEvent, type TouchRules, touchStep, touchTick } from './touch';

const STEP = 0.01;
const OHMS: TouchRules = {
  band: () => 2 * STEP,
  hold_s: 0.35,
  count: 3,
  isCoarse: (_, step) => step > 1.5 * STEP,
  isOff: (v) => v === null,
  shortBelow: 0.25,
};
const OPEN: Display = { value: null, step: 0 };

/** Feeds displays at ten a second, and gives what happened with its moment. */
function play(parts: readonly (readonly [seconds: number, show: number | null | ((t: number) => number | null)])[]) {
  let state = startTouch(0);
  const events: (TouchEvent & { t: number })[] = [];
  let t = 0;
  for (const [seconds, show] of parts)
    for (const end = t + seconds; t < end - 1e-9;) {
      t += 0.1;
      const value = typeof show === 'function' ? show(t - (end - seconds)) : show;
      const step = touchStep(
        state,
        t,
        value === null ? OPEN : { value: Math.round(value * 100) / 100, step: STEP },
        OHMS,
      );
      state = step.state;
      events.push(...step.events.map((e) => ({ ...e, t })));
    }
  return { events, kinds: events.map((e) => e.kind), state };
}

describe('from one touch to the next', () => {
  it('a value that stands is taken once, and the probe is lifted', () => {
    const { events, kinds } = play([
      [0.5, null],
      [2, 0.62],
      [1, null],
    ]);
    expect(kinds).toEqual(['touched', 'settled', 'lifted']);
    expect(events[1]).toMatchObject({ value: 0.62 });
    expect(events[1]?.t).toBeLessThan(1.2);
  });

  it('a contact that bounces is one touch', () => {
    const bouncing = (t: number): number | null => (t > 0.05 && t < 0.35 && Math.round(10 * t) % 2 === 0 ? null : 0.62);
    expect(play([[0.3, null], [2, bouncing], [1, null]]).kinds).toEqual(['touched', 'settled', 'lifted']); // prettier-ignore
  });

  it('what nears its end by ever smaller steps is not taken on the way', () => {
    const nearing = (t: number): number => 3 + 5 * Math.exp(-t / 0.6);
    const [, settled] = play([
      [0.3, null],
      [6, nearing],
    ]).events;
    expect(settled).toMatchObject({ kind: 'settled' });
    expect(Math.abs((settled as { value: number }).value - 3)).toBeLessThanOrEqual(0.03);
  });

  it('a coarse range is waited out', () => {
    let state = startTouch(0);
    const taken: number[] = [];
    for (let k = 1; k < 40; k++) {
      const display = k < 12 ? { value: 0.9, step: 0.1 } : { value: 0.62, step: STEP };
      const result = touchStep(state, k / 10, display, OHMS);
      state = result.state;
      for (const e of result.events) if (e.kind === 'settled') taken.push(e.value);
    }
    expect(taken).toEqual([0.62]);
  });

  it('off for a moment and the same again is asked, not guessed: nothing is taken until it is lifted', () => {
    const brief = [
      [0.5, null],
      [1.5, 0.62],
      [0.4, null],
    ] as const;
    expect(play([...brief, [1, 0.62], [1, null]]).kinds).toEqual([
      'touched',
      'settled',
      'lifted',
      'touched',
      'asks-again',
      'lifted',
    ]);
    expect(play([...brief, [5, 0.62]]).kinds.at(-1)).toBe('asks-again');
    expect(play([...brief, [1, 0.62], [1, null], [1.5, 0.62]]).kinds.at(-1)).toBe('settled'); // prettier-ignore
    // Another value, or more time between: the next position.
    expect(play([...brief, [1.5, 0.8]]).kinds.at(-1)).toBe('settled');
    expect(play([[0.5, null], [1.5, 0.62], [1, null], [1.5, 0.62]]).kinds.at(-1)).toBe('settled'); // prettier-ignore
  });

  it('a value that moves on after it was taken is told', () => {
    const { events } = play([
      [0.3, null],
      [1.5, 3.2],
      [2, 0.62],
    ]);
    expect(events.map((e) => e.kind)).toEqual(['touched', 'settled', 'moved']);
    expect(events[2]).toMatchObject({ from: 3.2, to: 0.62 });
  });
});

describe('what does not come to rest', () => {
  it('wanders, with its lowest and highest', () => {
    const random = seededRandom(3);
    const { events } = play([
      [0.3, null],
      [6, () => 0.5 + 0.6 * random()],
    ]);
    expect(events.map((e) => e.kind)).toEqual(['touched', 'wanders']);
    const { low, high } = events[1] as { low: number; high: number };
    expect(low).toBeGreaterThanOrEqual(0.5);
    expect(high).toBeGreaterThan(low + 0.2);
    expect(high).toBeLessThanOrEqual(1.1);
  });
  it('breaks now and then: wanders up to open', () => {
    let k = 0;
    const { events } = play([
      [0.3, null],
      [6, () => (++k % 4 === 0 ? null : 0.6 + 0.1 * (k % 3))],
    ]);
    expect(events[1]).toMatchObject({ kind: 'wanders', high: null });
  });
  it('a creep that is nearly there is waited for', () => {
    const { kinds } = play([
      [0.3, null],
      [9, (t) => 3 + 5 * Math.exp(-t / 0.9)],
    ]);
    expect(kinds).toEqual(['touched', 'settled']);
  });
});

describe('probes that touch each other', () => {
  const tap = [
    [0.3, 0.2],
    [0.3, null],
  ] as const;
  it('a moment is a tap, three are another word, and none is a reading', () => {
    expect(play([[1, null], ...tap]).kinds).toEqual(['touched', 'tapped']);
    expect(play([[1, null], ...tap, ...tap, ...tap]).kinds.filter((k) => k !== 'touched')).toEqual([
      'tapped',
      'tapped',
      'tapped-thrice',
    ]);
  });
  it('held long it is asked: a part may be shorted, or somebody proves the leads', () => {
    expect(play([[1, null], [4, 0.2]]).kinds).toEqual(['touched', 'asks-short']); // prettier-ignore
  });
});

it('asks once whether the position is open, and again only after a touch', () => {
  expect(play([[12, null]]).kinds).toEqual(['asks-open']);
  expect(play([[5, null], [1.5, 0.6], [5, null]]).kinds).toEqual(['asks-open', 'touched', 'settled', 'lifted', 'asks-open']); // prettier-ignore
});

it('says once that nothing comes any more, and forgets the touch', () => {
  const { state } = play([
    [0.5, null],
    [0.2, 0.62],
  ]);
  expect(touchTick(state, state.last_s + 2).events).toEqual([]);
  const silent = touchTick(state, state.last_s + 4);
  expect(silent.events).toEqual([{ kind: 'silent' }]);
  expect(touchTick(silent.state, state.last_s + 9).events).toEqual([]);
  expect(touchStep(silent.state, 20, OPEN, OHMS).state.phase).toBe('off');
});

it('takes at most one value of a touch without saying that it moved, whatever a meter sends', () => {
  const shown = fc.oneof(
    fc.constant(null),
    fc.double({ min: -1e6, max: 1e6, noNaN: true }),
    fc.constantFrom(0.62, 0.63, 3.1),
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(shown, fc.integer({ min: 1, max: 40 })), { maxLength: 60 }), (runs) => {
      let [state, t, taken] = [startTouch(0), 0, 0];
      for (const [value, times] of runs)
        for (let k = 0; k < times; k++) {
          t += 0.05;
          const result = touchStep(state, t, value === null ? OPEN : { value, step: STEP }, OHMS);
          state = result.state;
          for (const e of result.events) {
            if (e.kind === 'touched') taken = 0;
            if (e.kind === 'settled' || e.kind === 'wanders') expect(++taken).toBe(1);
          }
          expect(state.recent.length).toBeLessThanOrEqual(400);
        }
    }),
    { numRuns: 200 },
  );
});
