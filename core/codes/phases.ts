import { groupBy } from '../foundation/collections';

/** When a code was read. */
export const PHASES = ['as-found', 'caused-by-testing', 'after-clearing', 'after-road-test'] as const;
export type Phase = (typeof PHASES)[number];
export const PHASE_WORDS: Readonly<Record<Phase, string>> = {
  'as-found': 'as found',
  'caused-by-testing': 'caused by testing',
  'after-clearing': 'after clearing',
  'after-road-test': 'after the road test',
};

export interface Observed {
  readonly code: string;
  readonly phase: Phase;
}

/** What became of a code over the phases in which somebody looked. */
export type Fate = 'as found' | 'came back' | 'gone' | 'new' | 'caused by testing';

export interface Compared {
  readonly code: string;
  readonly fate: Fate;
  readonly phases: readonly Phase[];
}

/** Looks after something was cleared. */
export const LATER_LOOKS: readonly Phase[] = ['after-clearing', 'after-road-test'];

/**
 * What came back, what did not, what is new. `looked` names the phases in which codes were read, also those
 * in which none was there: without a later look nobody knows whether a code is gone. `inNewest`: those that
 * the newest later look showed.
 */
export function compareCodes(
  observed: readonly Observed[],
  looked: ReadonlySet<Phase>,
  inNewest: ReadonlySet<string> | null = null,
): Compared[] {
  const lookedLater = LATER_LOOKS.some((p) => looked.has(p));
  return [...groupBy(observed, (o) => o.code)].map(([code, seen]) => {
    const phases = PHASES.filter((p) => seen.some((o) => o.phase === p));
    const fate = fateOf(phases, lookedLater);
    // It came back once, and in the newest look it was not there.
    const isGone = (fate === 'came back' || fate === 'new') && inNewest !== null && !inNewest.has(code);
    return { code, phases, fate: isGone ? 'gone' : fate };
  });
}

/** Codes of the newest look after something was cleared; `null` where nobody has looked again. */
export function codesOfNewestLook(
  codes: readonly { readonly code: string | null; readonly phase: Phase; readonly at: string }[],
): ReadonlySet<string> | null {
  const later = codes.filter((c) => LATER_LOOKS.includes(c.phase));
  if (later.length === 0) return null;
  const newest = later.reduce((t, c) => (c.at > t ? c.at : t), '');
  return new Set(later.flatMap((c) => (c.at === newest && c.code !== null ? [c.code] : [])));
}

function fateOf(phases: readonly Phase[], lookedLater: boolean): Fate {
  const later = phases.some((p) => LATER_LOOKS.includes(p));
  if (phases.includes('as-found')) return later ? 'came back' : lookedLater ? 'gone' : 'as found';
  return later ? 'new' : 'caused by testing';
}

/** Areas of the catalogue to which a system points, most telling first. Common practice, no source. */
const POINTS: Readonly<Record<string, readonly string[]>> = {
  'glow plugs': ['Glow plugs'],
  'intake heater': ['Glow plugs'],
  'injection pump': ['Controller', 'Air and fuel'],
  starter: ['Energy first'],
  injectors: ['Injectors', 'Injector module', 'Harness'],
  'injector module': ['Injector module'],
  misfire: ['Injectors', 'Harness', 'Air and fuel'],
  'position sensors': ['Position sensors'],
  'pressure sensors': ['Sensors'],
  airflow: ['Air and fuel', 'Sensors'],
  boost: ['Actuators', 'Sensors', 'Air and fuel'],
  actuators: ['Actuators'],
  supply: ['Controller'],
  controller: ['Controller'],
  'fuel pressure': ['Air and fuel'],
  'fuel supply': ['Air and fuel'],
  'fuel shut-off': ['Controller'],
  'exhaust gas recirculation': ['Actuators', 'Sensors'],
};

/** Which areas the codes of a job point at; those that the testing itself set point nowhere. */
export function areasFor(codes: readonly { readonly system: string; readonly fate: Fate }[]): string[] {
  return [
    ...new Set(
      codes.filter((c) => c.fate !== 'caused by testing' && c.fate !== 'gone').flatMap((c) => POINTS[c.system] ?? []),
    ),
  ];
}
