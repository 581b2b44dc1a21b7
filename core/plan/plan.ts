import { tr } from '../locale/translate';
import { recordingWords } from '../numerics/rare-events';
import { RECORDING_AREA } from '../catalogue/recordings';
import type { TestDefinition } from '../catalogue/types';
import type { Statement } from '../evidence/types';
import { targetKey } from '../evidence/known';
import { partName } from '../evidence/rules';
import type { Position } from '../judge/types';
import { joinAnd } from '../quantity/print';
import { hardwareAsked, isFitted } from './hardware';
import type { Plan, PlanChange, PlanInputs, PlanStep } from './types';

/**
 * The order of the work (common practice, no source): energy first; what needs a cold engine before the
 * engine is started; what the codes, the complaint and the evidence point at; cheap before dear; what shares
 * an opened cover or a second person together. What is proven is not measured again.
 */
export function makePlan(inputs: PlanInputs): Plan {
  const byId = new Map(inputs.tests.map((t) => [t.id, t]));
  const reasons = reasonsFor(inputs);
  const ordered = order(
    [...reasons.keys()].flatMap((id) => byId.get(id) ?? []),
    reasons,
    inputs,
  );
  const moved = applyMoves(
    ordered.map((t) => t.id),
    inputs.changes,
  );
  const doubted = new Map(inputs.known.doubts.flatMap((d) => (d.kind === 'limit' ? [] : [[d.test, d] as const])));
  const doneTests = new Set(inputs.done.filter((d) => d.pattern !== 'incomplete').map((d) => d.test));
  const skipped = skippedBy(inputs.changes);
  // What is doubted goes before whatever was moved: until it is settled, nothing else counts.
  const inOrder = [...moved.filter((id) => doubted.has(id)), ...moved.filter((id) => !doubted.has(id))];
  let previous: TestDefinition | null = null;
  const steps = inOrder.flatMap((id): PlanStep[] => {
    const t = byId.get(id);
    if (!t) return [];
    const doubt = doubted.get(id);
    const state = skipped.has(id) ? 'skipped' : doneTests.has(id) && !doubt ? 'done' : 'to do';
    const shares = state === 'to do' && previous ? sharedWith(previous, t) : null;
    if (state === 'to do') previous = t;
    return [
      {
        test: id,
        name: t.name,
        area: t.area,
        minutes: t.minutes,
        people: t.people,
        why: reasons.get(id)?.why ?? '',
        with: shares,
        state,
        because: skipped.get(id) ?? null,
        ...(doubt && state === 'to do' ? { doubt: doubt.say } : {}),
        ...goesOn(id, state, doubt?.run, inputs),
      },
    ];
  });
  const todo = atMost(steps, inputs);
  return {
    steps: steps.filter((s) => s.state !== 'to do' || todo.includes(s)),
    minutes: todo.reduce((sum, s) => sum + s.minutes, 0),
    next: todo[0]?.test ?? null,
    asks: hardwareAsked(new Set(pointedAreas(inputs).map((p) => p.area)), inputs),
  };
}

/** The run that is gone on with, instead of a new one. */
function goesOn(
  test: string,
  state: PlanStep['state'],
  doubted: string | undefined,
  { done }: PlanInputs,
): { readonly run?: string } {
  const begun = state === 'to do' ? done.findLast((d) => d.test === test && d.pattern === 'incomplete') : undefined;
  const run = doubted ?? begun?.run;
  return run === undefined ? {} : { run };
}

/** More tests than this are no plan: what comes first may make the rest needless. */
const AT_MOST = 5;

/** Those to do; what a person added or moved, and what was begun, stays. */
function atMost(steps: readonly PlanStep[], { changes, done, most = AT_MOST }: PlanInputs): PlanStep[] {
  const kept = new Set([
    ...changes.flatMap((c) => (c.kind === 'add' || c.kind === 'move' ? [c.test] : [])),
    ...done.map((d) => d.test),
  ]);
  const todo = steps.filter((s) => s.state === 'to do');
  const left = most - todo.filter((s) => kept.has(s.test)).length;
  const free = todo.filter((s) => !kept.has(s.test));
  // A recording takes its hours by itself: it has its place although others are quicker.
  const log = free.find((s) => s.area === RECORDING_AREA);
  const others = free.filter((s) => s !== log).slice(0, Math.max(0, log ? left - 1 : left));
  const first = new Set(log && left > 0 ? [...others, log] : others);
  return todo.filter((s) => kept.has(s.test) || first.has(s));
}

interface Reason {
  /** Lower goes first. */
  readonly rank: number;
  readonly why: string;
}

const ENERGY = 'Energy first';
const FIRST_OF_ENERGY = 'battery-at-rest';

function reasonsFor(inputs: PlanInputs): Map<string, Reason> {
  const reasons = new Map<string, Reason>();
  const give = (t: TestDefinition, rank: number, why: string): void => {
    if (!reasons.has(t.id)) reasons.set(t.id, { rank, why });
  };
  const convicted = inputs.known.statements.some((s) => s.stand === 'bad');
  for (const t of inputs.tests) {
    const doubt = inputs.known.doubts.find((d) => d.test === t.id && d.kind !== 'limit');
    if (doubt) give(t, -3, doubt.say);
    else if (inputs.done.some((d) => d.test === t.id))
      give(
        t,
        -2,
        inputs.done.every((d) => d.test !== t.id || d.pattern === 'incomplete')
          ? 'It is begun and not complete.'
          : 'Measured.',
      );
    else if (inputs.changes.some((c) => c.kind === 'add' && c.test === t.id)) give(t, 0, 'Added by hand.');
    else if (t.id === FIRST_OF_ENERGY) give(t, -1, 'A weak battery makes every other reading doubtful.');
    else if (t.area === ENERGY && wantsEnergy(t, inputs)) give(t, -1, 'The complaint is about starting.');
  }
  for (const [i, n] of (inputs.next ?? []).entries())
    for (const t of inputs.tests) if (t.id === n.test) give(t, i / 100, n.why);
  const open = inputs.tests.filter((t) => !isProven(t, inputs));
  for (const [i, s] of leavingOpen(inputs.known.statements))
    for (const t of open) {
      const why = followUp(s, t, inputs);
      if (why) give(t, i === 0 ? 0 : 1, why);
    }
  const pointed = pointedAreas(inputs);
  for (const t of inputs.tests) {
    const at = pointed.findIndex((p) => p.area === t.area);
    const found = pointed[at];
    if (!found || !open.includes(t) || !(isFitted(t, inputs) ?? isFirstLine(t))) continue;
    // Once something is convicted, only what separates the rest is worth the time.
    if (convicted && !inputs.before.includes(t.id)) continue;
    give(t, 2 + at, found.why);
  }
  for (const t of inputs.tests)
    if (inputs.before.includes(t.id) && open.includes(t)) give(t, 2, 'It found a fault on this unit before.');
  return reasons;
}

const wantsEnergy = (t: TestDefinition, { complaint, conditions }: PlanInputs): boolean =>
  t.id === 'battery-cranking' && (/\b(start|crank|fire)/i.test(complaint) || conditions.includes('after a stop'));

/**
 * What tells most for its time in an area; the others are offered when the evidence asks for them. A workshop
 * says it of its own tests itself.
 */
const isFirstLine = (t: TestDefinition): boolean => t.firstLine ?? FIRST_LINE.has(t.id);
const FIRST_LINE: ReadonlySet<string> = new Set([
  'glow-plug-resistance',
  'glow-plug-through-harness',
  'glow-plug-current',
  'injector-self-test',
  'injector-resistance',
  'cut-out-fault-present',
  'module-buzz',
  'module-input',
  'injector-module-supply',
  'harness-visual',
  'harness-wiggle',
  'sensor-reference',
  'sensor-ground',
  'sensor-signal-rest',
  'sensor-signal-moves',
  'sensor-meter-scan',
  'position-sensor-tip',
  'position-sensor-primary',
  'position-signal-noise',
  'vane-actuator-coil',
  'actuator-position',
  'fuel-shut-off-click',
  'controller-pins',
  'supply-pressure',
  'airflow-peak',
  'rail-full-demand',
  'pins-log',
]);

/** What a complaint says in plain words. Common practice, no source. */
const WORDS: readonly (readonly [RegExp, readonly string[]])[] = [
  [
    /\b(white smoke|cold start|glow|starts? on (two|three|four|five)|when cold|below freezing|slow to (start|fire)|hard (cold )?start|long crank)/i,
    ['Glow plugs'],
  ],
  [/\b(misfir|rough|runs? on|knock|miss(es|ing)?|uneven|hunt)/i, ['Injectors', 'Injector module', 'Harness']],
  [
    /\b(no power|low power|limp|no boost|low boost|boost (pressure|leak)|black smoke|surge|derat)/i,
    ['Sensors', 'Actuators', 'Air and fuel'],
  ],
  [
    /\b(no start|does not start|will not start|stalls?|cuts? out|dies|stops? (at|when|while))/i,
    ['Position sensors', 'Controller', 'Air and fuel'],
  ],
  [/\b(sensor|gauge)s?\b/i, ['Sensors']],
  [/\b(fuel (pressure|pump|filter|supply)|air in|leak)/i, ['Air and fuel']],
];

function pointedAreas({
  areas,
  complaint,
  conditions,
  shown,
  codedInjectors = [],
}: PlanInputs): { area: string; why: string }[] {
  const out = areas.map((area) => ({ area, why: 'The codes point here.' }));
  if (new Set(codedInjectors).size > 1) {
    // Common practice, no source: injectors hardly fail together, what they share does.
    const harness = { area: 'Harness', why: 'Several injectors have codes at once: the loom that they share first.' };
    out.splice(0, out.length, harness, ...out.filter((o) => o.area !== 'Harness'));
  }
  const say = (area: string, why: string): void => {
    if (!out.some((o) => o.area === area)) out.push({ area, why });
  };
  for (const [pattern, targets] of WORDS)
    if (pattern.test(complaint)) for (const area of targets) say(area, 'The complaint points here.');
  if (conditions.includes('cold')) say('Glow plugs', 'It shows itself cold.');
  if (conditions.includes('hot')) say('Position sensors', 'It shows itself hot.');
  if (conditions.includes('wet') || conditions.includes('intermittent'))
    say(
      'Harness',
      tr`It is ${joinAnd(conditions.filter((c) => c === 'wet' || c === 'intermittent'))}: look at the loom.`,
    );
  if (conditions.includes('intermittent'))
    say(
      RECORDING_AREA,
      tr`It comes and goes: let a logger wait for it. ${shown ? recordingWords(shown) : 'Say in the intake how often it shows itself: then it is said for how long.'}`,
    );
  if (conditions.includes('load') || conditions.includes('towing')) say('Air and fuel', 'It shows itself under load.');
  return out;
}

/**
 * Statements that may ask for a test, with their places: one of a kind of each target. That something is
 * suspect asks for nothing once it is convicted.
 */
function leavingOpen(statements: readonly Statement[]): [number, Statement][] {
  const convicted = new Set(statements.filter((s) => s.stand === 'bad').map((s) => targetKey(s.target)));
  const seen = new Set<string>();
  return [...statements.entries()].filter(([, s]) => {
    if (s.stand === 'suspect' && convicted.has(targetKey(s.target))) return false;
    // What several runs say alike asks for the same test; only of shared things the runs differ.
    const key = s.target.kind === 'shared' ? '' : `${s.rule}|${s.stand}|${targetKey(s.target)}`;
    return key === '' || (!seen.has(key) && seen.add(key));
  });
}

/** The test that separates what a statement leaves open; `null` where this test does not. */
function followUp(s: Statement, t: TestDefinition, inputs: PlanInputs): string | null {
  const { kind, name, position } = s.target;
  const has = (id: string): boolean => inputs.done.some((d) => d.test === id);
  if (kind === 'part' && s.stand === 'bad' && s.rule === 'bare-part') {
    // The part is convicted: what is left is whether its wire is good too, before a new one is fitted to a
    // bad wire.
    return partName(t) === name && t.connection === 'through-harness'
      ? tr`The ${name} is bad by itself: is its wire good?`
      : null;
  }
  if (
    kind === 'path' &&
    s.stand === 'suspect' &&
    partName(t) === name &&
    t.connection === 'at-part' &&
    t.quantity === 'resistance'
  )
    return tr`Separates the ${name} from its wire.`;
  if (
    kind === 'path' &&
    (s.stand === 'bad' || s.stand === 'suspect') &&
    t.area === 'Harness' &&
    ['harness-wiggle', 'harness-visual', 'harness-ring-out'].includes(t.id) &&
    position !== null &&
    !placeIsSeen(inputs, position)
  )
    return 'The wire is under suspicion: find the place.';
  if (
    kind === 'part' &&
    s.stand === 'suspect' &&
    partName(t) === name &&
    (t.connection === 'at-part' || t.connection === 'through-harness') &&
    t.quantity === 'resistance' &&
    FIRST_LINE.has(t.id)
  )
    return tr`Separates the ${name} from its wire.`;
  if (kind === 'part' && name === 'module' && s.stand !== 'cleared' && t.id === 'module-input')
    return 'Its input side first, or the module is blamed for the battery.';
  if (
    kind === 'part' &&
    name === 'sensor' &&
    s.stand !== 'cleared' &&
    ['sensor-meter-scan', 'sensor-bypass', 'sensor-reference', 'sensor-ground'].includes(t.id)
  )
    return 'Is it the sensor, its wires, or the input?';
  if (kind === 'shared' && s.stand === 'suspect' && SHARED_TESTS.has(t.id) && sameSystem(s, t))
    return 'All of them fail: look at what they share.';
  if (
    kind === 'part' &&
    name === 'injector' &&
    s.rule === 'cut-out' &&
    s.stand === 'suspect' &&
    t.id === 'injector-resistance' &&
    !has(t.id)
  )
    return 'The cylinder does no work: is the injector good?';
  return null;
}
/** Somebody has seen where the wire is broken. */
const placeIsSeen = ({ known }: PlanInputs, position: Position): boolean =>
  known.statements.some(
    (s) => s.stand === 'bad' && (s.rule === 'visual' || s.rule === 'wiggle') && s.target.position === position,
  );
const SHARED_TESTS: ReadonlySet<string> = new Set(['glow-supply', 'glow-feed-voltage', 'module-input', 'voltage-drop']);
const sameSystem = (s: Statement, t: TestDefinition): boolean =>
  t.id === 'voltage-drop' ||
  s.from.some((r) => r.kind === 'run' && /glow|plug/i.test(r.label) === (t.area === 'Glow plugs'));

/** Measuring it again could only say what is known. */
function isProven(t: TestDefinition, { known }: PlanInputs): boolean {
  const supply = t.id === 'glow-supply' || t.id === 'glow-feed-voltage';
  return known.statements.some(
    (s) =>
      s.stand === 'cleared' &&
      ((supply && s.target.kind === 'shared' && /feed|relay|fuse/.test(s.target.name)) ||
        (s.target.kind === 'input' && (t.id === 'sensor-unplugged' || t.id === 'sensor-bypass'))),
  );
}

/** Needs an engine that has not run since it was cold, or at least stands. */
export const isCold = (t: TestDefinition): boolean =>
  t.states.some((s) => s.id === 'engine-cold') || (t.part.startsWith('plug') && t.quantity === 'resistance');

/** What is open while the test is done: a cover, a breakout harness. Nothing where it is plugged in. */
export const openedFor = (t: TestDefinition): string | null =>
  t.connection === 'plugged-in'
    ? null
    : `${t.area}|${t.connection === 'end-to-end' || t.connection === 'through-harness' ? 'at-part' : t.connection}`;

function order(
  tests: readonly TestDefinition[],
  reasons: ReadonlyMap<string, Reason>,
  { done }: PlanInputs,
): TestDefinition[] {
  const measuredAt = new Map(done.map((d, i) => [d.test, i]));
  const rankOf = (t: TestDefinition): number => reasons.get(t.id)?.rank ?? 99;
  const key = (t: TestDefinition): readonly number[] => [
    Math.min(0, rankOf(t)),
    measuredAt.get(t.id) ?? 0,
    // Running the engine warms it: what needs it cold goes before. What the evidence asks for goes before
    // what an area offers.
    t.condition.engine === 'running' ? 1 : 0,
    rankOf(t) < 2 ? 0 : 1,
    isCold(t) ? 0 : 1,
    t.people > 1 ? 1 : 0,
    Math.max(0, rankOf(t)),
    cheapestOf(openedFor(t), t, tests),
    dearness(t),
  ];
  const keys = new Map(tests.map((t) => [t, key(t)]));
  return [...tests].sort(
    (a, b) => compareKeys(keys.get(a) ?? [], keys.get(b) ?? []) || tests.indexOf(a) - tests.indexOf(b),
  );
}

/** Those behind the same cover stand together, where the cheapest of them would stand. */
const cheapestOf = (group: string | null, t: TestDefinition, tests: readonly TestDefinition[]): number =>
  group === null ? dearness(t) : Math.min(...tests.filter((o) => openedFor(o) === group).map(dearness));

/** Minutes, and what is used up in minutes. */
const dearness = (t: TestDefinition): number => (t.uses ?? []).reduce((sum, u) => sum + u.worth_min, t.minutes);

function compareKeys(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return (a[i] ?? 0) - (b[i] ?? 0);
  return 0;
}

function sharedWith(before: TestDefinition, t: TestDefinition): string | null {
  const [a, b] = [openedFor(before), openedFor(t)];
  if (a !== null && a === b) return 'cover already open';
  return before.people > 1 && t.people > 1 ? 'second person already there' : null;
}

function skippedBy(changes: readonly PlanChange[]): Map<string, string> {
  const skipped = new Map<string, string>();
  for (const c of changes) {
    if (c.kind === 'skip') skipped.set(c.test, c.because);
    if (c.kind === 'unskip') skipped.delete(c.test);
  }
  return skipped;
}

/**
 * In the order in which they were made: the last word counts. A move of, or before, what is not there does
 * nothing.
 */
function applyMoves(ids: readonly string[], changes: readonly PlanChange[]): string[] {
  let out = [...ids];
  for (const c of changes) {
    if (
      c.kind !== 'move' ||
      !out.includes(c.test) ||
      (c.before !== null && !out.includes(c.before)) ||
      c.before === c.test
    )
      continue;
    out = out.filter((id) => id !== c.test);
    out.splice(c.before === null ? out.length : out.indexOf(c.before), 0, c.test);
  }
  return out;
}
