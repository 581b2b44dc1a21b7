import { findTest } from '../catalogue/catalogue';
import type { TestDefinition } from '../catalogue/types';
import { checkEngine, cylinderPositions, sharedGroups } from '../engine/layout';
import { checkLimits } from '../limits/check';
import { type ReadEntry, readEntry } from '../limits/entry';
import type { Instrument } from '../metrology/instrument';
import { toReferenceFactor } from '../metrology/temperature';
import { requireUnit } from '../quantity/units';
import { fail, ok, type Problem, type Result } from '../result';
import { CORE_VERSION } from '../version';
import { compareRepeats, flagTemperatures, followSequence } from './follow';
import { coefficientOf } from './measure';
import { compareNeighbours } from './neighbours';
import { findPattern } from './pattern';
import { provenBy } from './proven';
import { judgeReading, type SetContext } from './reading';
import { advise, summarise } from './summary';
import type { Judgement, Limits, Position, ReadingIn, TestSet } from './types';

/**
 * Judges a whole set: each reading against its limits, then against its good neighbours, then the pattern. Pure: the
 * same set gives the same judgement on the keystroke, on the server and from the command line.
 *
 * Where the positions are cylinders, those without a reading are added at the end as not measured.
 */
export function judgeSet(set: TestSet): Result<Judgement> {
  const read = new Map<ReadingIn, ReadEntry>();
  const problems = checkSet(set, read);
  if (problems.length) return fail(problems);
  const asked = requireUnit(set.limits.unit, set.limits.quantity);
  if (!asked.ok) throw new Error('checkSet let an unknown unit pass');
  const test = set.definition ?? findTest(set.test);
  const context: SetContext = {
    limits: set.limits,
    condition: set.condition,
    instrument: set.instrument,
    asked: asked.value,
    decision: set.decision ?? 'three-way',
    part: test?.part ?? '',
  };
  const alone = withMissing(set).map((reading) =>
    compareRepeats(judgeReading(reading, context, read.get(reading) ?? NOTHING), reading, set.limits),
  );
  const together = flagTemperatures(
    followSequence(
      compareNeighbours(alone, set.limits),
      set.positions ?? set.readings.map((r) => r.position),
      set.limits,
    ),
    set,
  );
  const found = findPattern(together, groupsOf(set, test));
  return ok({
    format: 'mudflat/judgement',
    version: 1,
    core: CORE_VERSION,
    test: set.test,
    limits: set.limits,
    readings: together,
    ...found,
    summary: summarise(together, found, set.limits),
    advice: advise(together, found, set.condition.connection, test?.advice ?? []),
    proven: provenBy(together, found, test),
  });
}

function groupsOf(set: TestSet, test: TestDefinition | undefined): ReadonlyMap<string, readonly Position[]> {
  const engine = set.engine ? sharedGroups(set.engine) : new Map<string, readonly Position[]>();
  return set.groups || test?.groups
    ? new Map([...engine, ...Object.entries(test?.groups ?? {}), ...Object.entries(set.groups ?? {})])
    : engine;
}

/** Of a position that nobody has read. */
const NOTHING: ReadEntry = { entry: { kind: 'nothing' }, at: null };

function withMissing({ engine, readings, positions }: TestSet): readonly ReadingIn[] {
  const ofCylinders = engine && readings.every((r) => typeof r.position === 'number');
  const expected = positions ?? (ofCylinders ? cylinderPositions(engine) : []);
  const read = new Set(readings.map((r) => r.position));
  const missing = expected.filter((c) => !read.has(c));
  return [...readings, ...missing.map((position) => ({ position, entry: '' }))];
}

/** All that is wrong with a set, each with its path. An empty list means that it can be judged. `read` takes the entries as they were read. */
export function checkSet(set: TestSet, read = new Map<ReadingIn, ReadEntry>()): Problem[] {
  return [
    ...(set.engine ? checkEngine(set.engine, '/engine') : []),
    ...checkLimits(set.limits, '/limits'),
    ...checkInstrument(set),
    ...checkTemperature(set),
    ...checkReadings(set, read),
  ];
}

function checkInstrument({ instrument, readings }: TestSet): Problem[] {
  return [
    ...(instrument ? checkMeter(instrument, '/instrument') : []),
    ...readings.flatMap((r, i) => (r.instrument ? checkMeter(r.instrument, `/readings/${i}/instrument`) : [])),
  ];
}

function checkMeter(instrument: Instrument, base: string): Problem[] {
  const problems: Problem[] = [];
  const zero = instrument.leadZero_ohm;
  if (zero !== null && !(Number.isFinite(zero) && zero >= 0)) {
    problems.push({ path: `${base}/leadZero`, message: 'The lead zero is a resistance of nothing or more.' });
  }
  if (!((instrument.leadRepeatability_ohm ?? 0) >= 0))
    problems.push({ path: `${base}/leadRepeatability_ohm`, message: 'The repeatability is 0 or more.' });
  if (!((instrument.clamp_mVperA ?? 1) > 0))
    problems.push({ path: `${base}/clamp_mVperA`, message: 'The ratio of the clamp is above 0.' });
  for (const [i, range] of instrument.accuracy.entries()) {
    for (const field of ['upTo', 'percentOfReading', 'counts', 'resolution'] as const) {
      if (!(Number.isFinite(range[field]) && range[field] >= 0)) {
        problems.push({
          path: `${base}/accuracy/${i}/${field}`,
          message: `${field} must be a finite number of 0 or more.`,
        });
      }
    }
  }
  return problems;
}

function checkTemperature({ limits, condition, readings }: TestSet): Problem[] {
  const part = condition.partTemperature_degC;
  const own = readings.flatMap((r, i) => {
    const read = r.entry.includes('@') && !limits.transfer ? readEntry(r.entry, limits) : null;
    return read?.ok && read.value.at ? checkWarmth(read.value.at.value, limits, `/readings/${i}/entry`) : [];
  });
  return part === undefined ? own : [...checkWarmth(part, limits, '/condition/partTemperature_degC'), ...own];
}

function checkWarmth(part: number, limits: Limits, path: string): Problem[] {
  const coefficient = coefficientOf(limits);
  if (!Number.isFinite(part) || part < -273.15) return [{ path, message: `${part} °C is no temperature.` }];
  if (toReferenceFactor(part, limits.referenceTemperature_degC ?? 20, coefficient) !== null) return [];
  return [{ path, message: `At ${part} °C a coefficient of ${coefficient} per K leaves no resistance.` }];
}

function checkReadings(
  { engine, limits, readings, positions, instrument }: TestSet,
  kept: Map<ReadingIn, ReadEntry>,
): Problem[] {
  const known = positions && new Set(positions);
  const problems: Problem[] = [];
  const seen = new Set<unknown>();
  for (const [i, reading] of readings.entries()) {
    const { position, entry, earlier = [], instrument: own } = reading;
    const at = `/readings/${i}/position`;
    if (
      typeof position === 'number' &&
      engine &&
      !(position >= 1 && position <= engine.cylinders && Number.isInteger(position))
    ) {
      problems.push({ path: at, message: `The engine has no cylinder ${position}; it has ${engine.cylinders}.` });
    }
    if (known && !known.has(position))
      problems.push({ path: at, message: `This test has no position ${position}; it has ${[...known].join(', ')}.` });
    if (seen.has(position))
      problems.push({ path: at, message: `Position ${position} is read twice; keep the reading that counts.` });
    seen.add(position);
    const clamp = (own === undefined ? instrument : own)?.clamp_mVperA ?? null;
    const read = readEntry(entry, limits, clamp);
    if (read.ok) kept.set(reading, read.value);
    else problems.push({ path: `/readings/${i}/entry`, message: read.error });
    for (const [k, text] of earlier.entries()) {
      const before = readEntry(text, limits, clamp);
      if (!before.ok) problems.push({ path: `/readings/${i}/earlier/${k}`, message: before.error });
    }
  }
  return problems;
}
