import { tr } from '../locale/translate';
import type { TestDefinition } from '../catalogue/types';
import { isCold, openedFor } from '../plan/plan';

/** Of a test's minutes, what getting there costs; the rest is each position's. */
const SETUP = 0.6;
/** What it takes to get an engine cold again. Common practice, no source. */
const SOAK_min = 90;
/** Cautions that make one think twice before a test is chosen. */
const DANGERS: ReadonlySet<string> = new Set([
  'high-pressure-fuel',
  'injector-voltage',
  'running',
  'road-test',
  'hot-exhaust',
  'bench-heat',
]);
/** A test that nobody has written down: as long as most take. */
const UNKNOWN_min = 5;

/**
 * What has been set up already: tests begun, covers opened, people called; and whether the engine has run.
 */
export interface Setting {
  readonly tests: ReadonlySet<string>;
  readonly covers: ReadonlySet<string>;
  readonly people: number;
  readonly warm: boolean;
}

/**
 * What these tests have left set up, whenever they were done; whether the engine is warm now is known
 * otherwise.
 */
export const settingAfter = (tests: readonly TestDefinition[], warm: boolean): Setting => ({
  ...tests.reduce(after, { tests: new Set<string>(), covers: new Set<string>(), people: 1, warm }),
  warm,
});

/** The setting once a test is begun: reading a cold test on a warm engine means that it was waited for. */
export function after(s: Setting, t: TestDefinition): Setting {
  if (s.tests.has(t.id) && !warms(t)) return s;
  const cover = openedFor(t);
  return {
    tests: new Set([...s.tests, t.id]),
    covers: cover === null ? s.covers : new Set([...s.covers, cover]),
    people: Math.max(s.people, t.people),
    warm: warms(t) || (s.warm && !isCold(t)),
  };
}

export const warms = (t: TestDefinition): boolean =>
  t.condition.engine === 'running' || t.condition.engine === 'each state in turn';

export interface Cost {
  /** Of work, and of waiting for a cold engine. */
  readonly minutes: number;
  /** Minutes weighed by people, danger and a running engine, and what is used up. */
  readonly cost: number;
  /** Of the cost, what the first reading pays for those after it at other positions. */
  readonly setUp: number;
  /** What it depends on, in words. */
  readonly said: readonly string[];
}

/** What one more reading of a test costs in a setting. `positions`: how many the test has. */
export function costOf(test: TestDefinition | undefined, positions: number, s: Setting): Cost {
  const whole = test?.minutes ?? UNKNOWN_min;
  const isBegun = test !== undefined && s.tests.has(test.id);
  const cover = test ? openedFor(test) : null;
  const isOpen = !isBegun && cover !== null && s.covers.has(cover);
  // One that begins cold and then runs the engine itself goes on as it is.
  const soak = test !== undefined && s.warm && isCold(test) && !(isBegun && warms(test)) ? SOAK_min : 0;
  const gettingThere = isBegun ? 0 : whole * SETUP * (isOpen ? 0.6 : 1);
  const minutes = gettingThere + (whole * (1 - SETUP)) / positions + soak;
  const people = (test?.people ?? 1) > 1 ? (s.people > 1 ? 1.2 : 1.6) : 1;
  const danger = 1 + 0.1 * (test?.cautions.filter((c) => DANGERS.has(c.id)).length ?? 0);
  const weight = people * danger * (test?.condition.engine === 'running' ? 1.3 : 1);
  const used = isBegun ? [] : (test?.uses ?? []);
  const said = [
    ...(isBegun ? ['set up already'] : []),
    ...(isOpen ? ['cover already off'] : []),
    ...(soak ? ['once the engine is cold again'] : []),
    ...(people > 1 ? ['with a second person'] : []),
    ...used.map((u) => tr`uses ${u.what}`),
  ];
  return {
    minutes,
    cost: (minutes + 0.3) * weight + used.reduce((sum, u) => sum + u.worth_min, 0),
    setUp: gettingThere * weight,
    said,
  };
}

/** What it would cost to have the cold engine back that a test takes away; 0 where it takes none away. */
export const lostBy = (test: TestDefinition | undefined, s: Setting): number =>
  test !== undefined && !s.warm && !s.tests.has(test.id) && warms(test) && !isCold(test) ? SOAK_min : 0;
