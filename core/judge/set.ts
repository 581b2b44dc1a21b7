import { tr } from '../locale/translate';
import type { TestDefinition } from '../catalogue/types';
import { checkEngine, cylinderPositions, sharedGroups } from '../engine/layout';
import { checkLimits } from '../limits/check';
import type { Instrument } from '../metrology/instrument';
import { toReferenceFactor } from '../metrology/temperature';
import { requireUnit } from '../quantity/units';
import { fail, ok, type Problem, type Result } from '../foundation/result';
import { CORE_VERSION } from '../foundation/version';
import { compareRepeats, flagTemperatures, followSequence } from './follow';
import { coefficientOf } from './measure';
import { compareNeighbours } from './neighbours';
import { type ParsedReading, type ParsedSet, parseReadings } from './parse';
import { findPattern } from './pattern';
import { provenBy } from './proven';
import { judgeReading, type SetContext } from './reading';
import { fitOf, fitWords } from './fit';
import { doubtsOf } from './doubts';
import { doubtRuleOfThumb } from './rule-of-thumb';
import { advise, holdingAdvice, summarise } from './summary';
import type { JudgedReading, Judgement, Limits, Position, TestSet } from './types';

/**
 * Judges a whole set: each reading against its limits, then against its good neighbours, then the pattern.
 * Pure: the same set gives the same judgement on the keystroke, on the server and from the command line.
 *
 * Where the positions are cylinders, those without a reading are added at the end as not measured. What is
 * known of the test comes with the set; of one that names a shipped test only: `judgeShipped`.
 */
export function judgeSet(set: TestSet): Result<Judgement> {
  const { readings, problems } = checkAndParse(set);
  if (problems.length) return fail(problems);
  const asked = requireUnit(set.limits.unit, set.limits.quantity);
  if (!asked.ok) throw new Error('checkSet let an unknown unit pass');
  const test = set.definition;
  const context: SetContext = {
    limits: set.limits,
    condition: set.condition,
    limitUnit: asked.value,
    decision: set.decision ?? 'three-way',
    part: test?.part ?? '',
  };
  const parsed: ParsedSet = { ...set, readings: withMissing(set, readings) };
  const alone = parsed.readings.map((reading) =>
    withStimulus(compareRepeats(judgeReading(reading, context), reading, set.limits, asked.value), reading, set.limits),
  );
  const together = flagTemperatures(
    followSequence(
      compareNeighbours(doubtRuleOfThumb(alone, set.limits), set.limits),
      set.positions ?? set.readings.map((r) => r.position),
      set.limits,
    ),
    parsed,
  );
  const found = findPattern(together, groupsOf(set, test));
  const fit = fitOf(together);
  const advice = holdingAdvice(together, found, set.condition.connection, test?.advice ?? []);
  const doubts = doubtsOf(together, set.limits, advice.own, set.isMeterProven ?? false);
  return ok({
    format: 'mudflat/judgement',
    version: 1,
    core: CORE_VERSION,
    test: set.test,
    limits: set.limits,
    readings: together,
    ...found,
    summary: summaryOf(together, found, set.limits, fit),
    ...(fit ? { fit } : {}),
    advice: advise(together, found, advice, doubts),
    doubts,
    proven: provenBy(together, found, test),
  });
}

/** What the readings say together, and what the line through them says. */
const summaryOf = (
  readings: readonly JudgedReading[],
  found: Pick<Judgement, 'pattern' | 'suspects' | 'group'>,
  limits: Limits,
  fit: Judgement['fit'] | null,
): string => [summarise(readings, found, limits), fit ? fitWords(fit, limits) : ''].filter(Boolean).join(' ');

/**
 * A judgement that is kept, its sentences anew for whoever reads. What was judged stays: only what is said of
 * it is said again. Doubts that this version would not have stay as they were worded.
 */
export function sayAgain(judgement: Judgement, test: TestDefinition | undefined): Judgement {
  const { readings, limits, pattern, suspects, group, fit } = judgement;
  const found = { pattern, suspects, group };
  const advice = holdingAdvice(readings, found, test?.connection, test?.advice ?? []);
  const anew = doubtsOf(readings, limits, advice.own, false);
  const doubts = judgement.doubts?.map((d) => ({ ...d, say: anew.find((a) => a.kind === d.kind)?.say ?? d.say }));
  return {
    ...judgement,
    summary: summaryOf(readings, found, limits, fit),
    advice: advise(readings, found, advice, doubts ?? []),
    ...(doubts ? { doubts } : {}),
    proven: provenBy(readings, found, test),
  };
}

function withStimulus(r: JudgedReading, { at }: ParsedReading, { stimulus }: Limits): JudgedReading {
  if (!stimulus) return r;
  if (at) return { ...r, at: { value: at.value, unit: at.stimulus.unit } };
  // What was commanded is the name of the position: "25 %".
  const commanded = stimulus.unit === '%' ? /^(\d+(?:\.\d+)?) ?%$/.exec(String(r.position))?.[1] : undefined;
  return commanded === undefined ? r : { ...r, at: { value: Number(commanded), unit: '%' } };
}

function groupsOf(set: TestSet, test: TestDefinition | undefined): ReadonlyMap<string, readonly Position[]> {
  const engine = set.engine ? sharedGroups(set.engine) : new Map<string, readonly Position[]>();
  return set.groups || test?.groups
    ? new Map([...engine, ...Object.entries(test?.groups ?? {}), ...Object.entries(set.groups ?? {})])
    : engine;
}

function withMissing(
  { engine, instrument, readings, positions }: TestSet,
  parsed: readonly ParsedReading[],
): readonly ParsedReading[] {
  const ofCylinders = engine && readings.every((r) => typeof r.position === 'number');
  const expected = positions ?? (ofCylinders ? cylinderPositions(engine) : []);
  const read = new Set(parsed.map((r) => r.position));
  const missing = expected.filter((c) => !read.has(c));
  return [
    ...parsed,
    ...missing.map((position) => ({ position, instrument, text: '', entry: NOTHING, at: null, earlier: [] })),
  ];
}

/** Of a position that nobody has read. */
const NOTHING = { kind: 'nothing' } as const;

/** All that is wrong with a set, each with its path. An empty list means that it can be judged. */
export const checkSet = (set: TestSet): Problem[] => checkAndParse(set).problems;

/** The readings parsed, once, and all that is wrong with the set. */
function checkAndParse(set: TestSet): { readonly readings: readonly ParsedReading[]; readonly problems: Problem[] } {
  const wrongLimits = checkLimits(set.limits, '/limits');
  // Entries are read against their limits: against unsound ones they say nothing.
  const parsed = wrongLimits.length ? { readings: [], problems: [] } : parseReadings(set);
  const problems = [
    ...(set.engine ? checkEngine(set.engine, '/engine') : []),
    ...wrongLimits,
    ...checkInstrument(set),
    ...checkTemperature(set, parsed.readings),
    ...checkPositions(set),
    ...parsed.problems,
  ];
  return { readings: parsed.readings, problems };
}

function checkInstrument({ instrument, readings }: TestSet): Problem[] {
  return [
    ...(instrument ? checkMeter(instrument, '/instrument') : []),
    ...readings.flatMap((r, i) => (r.instrument ? checkMeter(r.instrument, `/readings/${i}/instrument`) : [])),
  ];
}

const isFromZero = (n: number): boolean => Number.isFinite(n) && n >= 0;

function checkMeter(instrument: Instrument, base: string): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string): void => void problems.push({ path: `${base}/${field}`, message });
  const { leadZero_ohm, leadZeroResolution_ohm, leadRepeatability_ohm = 0, clamp_mVperA = 1, clampZero_A } = instrument;
  if (!isFromZero(leadZero_ohm ?? 0) || !isFromZero(leadZeroResolution_ohm))
    say('leadZero', 'The lead zero is a resistance of nothing or more.');
  if (!isFromZero(leadRepeatability_ohm)) say('leadRepeatability_ohm', 'The repeatability is 0 or more.');
  if (!(isFromZero(clamp_mVperA) && clamp_mVperA > 0)) say('clamp_mVperA', 'The ratio of the clamp is above 0.');
  if (!Number.isFinite(clampZero_A ?? 0)) say('clampZero', 'The zero of the clamp is a finite current.');
  for (const [i, range] of instrument.accuracy.entries()) {
    for (const field of ['upTo', 'percentOfReading', 'counts', 'resolution'] as const) {
      if (!isFromZero(range[field])) {
        problems.push({
          path: `${base}/accuracy/${i}/${field}`,
          message: tr`${field} must be a finite number of 0 or more.`,
        });
      }
    }
  }
  return problems;
}

function checkTemperature({ limits, condition }: TestSet, readings: readonly ParsedReading[]): Problem[] {
  const part = condition.partTemperature_degC;
  const own = limits.transfer
    ? []
    : readings.flatMap((r, i) => (r.at ? checkWarmth(r.at.value, limits, `/readings/${i}/entry`) : []));
  return part === undefined ? own : [...checkWarmth(part, limits, '/condition/partTemperature_degC'), ...own];
}

function checkWarmth(part: number, limits: Limits, path: string): Problem[] {
  const coefficient = coefficientOf(limits);
  if (!Number.isFinite(part) || part < -273.15) return [{ path, message: tr`${part} °C is no temperature.` }];
  if (toReferenceFactor(part, limits.referenceTemperature_degC ?? 20, coefficient) !== null) return [];
  return [{ path, message: tr`At ${part} °C a coefficient of ${coefficient} per K leaves no resistance.` }];
}

function checkPositions({ engine, readings, positions }: TestSet): Problem[] {
  const known = positions && new Set(positions);
  const problems: Problem[] = [];
  const seen = new Set<Position>();
  for (const [i, { position }] of readings.entries()) {
    const say = (message: string): void => void problems.push({ path: `/readings/${i}/position`, message });
    if (typeof position === 'number' && engine && !isCylinder(position, engine.cylinders))
      say(tr`The engine has no cylinder ${position}; it has ${engine.cylinders}.`);
    if (known && !known.has(position)) say(tr`This test has no position ${position}; it has ${[...known].join(', ')}.`);
    if (seen.has(position)) say(tr`Position ${position} is read twice; keep the reading that counts.`);
    seen.add(position);
  }
  return problems;
}

const isCylinder = (position: number, cylinders: number): boolean =>
  position >= 1 && position <= cylinders && Number.isInteger(position);
