import { findTest } from '../catalogue/catalogue';
import { checkEngine, cylinderPositions, sharedGroups } from '../engine/layout';
import { toReferenceFactor } from '../metrology/temperature';
import { parseEntry } from '../quantity/entry';
import { requireUnit } from '../quantity/units';
import { fail, ok, type Problem, type Result } from '../result';
import { CORE_VERSION } from '../version';
import { checkLimits } from './limits';
import type { Context } from './measure';
import { compareNeighbours } from './neighbours';
import { findPattern } from './pattern';
import { judgeReading } from './reading';
import { advise, summarise } from './summary';
import type { JudgedReading, Judgement, ReadingIn, TestSet } from './types';

/**
 * Judges a whole set: each reading against its limits, then against its good neighbours, then the pattern. Pure: the
 * same set gives the same judgement on the keystroke, on the server and from the command line.
 *
 * Where the positions are cylinders, those without a reading are added at the end as not measured.
 */
export function judgeSet(set: TestSet): Result<Judgement> {
  const problems = checkSet(set);
  if (problems.length) return fail(problems);
  const asked = requireUnit(set.limits.unit, set.limits.quantity);
  if (!asked.ok) throw new Error('checkSet let an unknown unit pass');
  const context: Context = { limits: set.limits, condition: set.condition, instrument: set.instrument, asked: asked.value };
  const alone = withMissing(set).map((reading) => judgeChecked(reading, context));
  const readings = compareNeighbours(alone, set.limits);
  const found = findPattern(readings, set.engine ? sharedGroups(set.engine) : new Map());
  return ok({
    format: 'mudflat/judgement', version: 1, core: CORE_VERSION, test: set.test, limits: set.limits, readings, ...found,
    summary: summarise(readings, found, set.limits),
    advice: advise(readings, found, set.condition.connection, findTest(set.test)?.advice ?? []),
  });
}

function judgeChecked(reading: ReadingIn, context: Context): JudgedReading {
  const judged = judgeReading(reading, context);
  if (!judged.ok) throw new Error(`checkSet let the entry "${reading.entry}" pass: ${judged.error}`);
  return judged.value;
}

function withMissing({ engine, readings, positions }: TestSet): readonly ReadingIn[] {
  const ofCylinders = engine && readings.every((r) => typeof r.position === 'number');
  const expected = positions ?? (ofCylinders ? cylinderPositions(engine) : []);
  const read = new Set(readings.map((r) => r.position));
  const missing = expected.filter((c) => !read.has(c));
  return [...readings, ...missing.map((position) => ({ position, entry: '' }))];
}

/** All that is wrong with a set, each with its path. An empty list means that it can be judged. */
export function checkSet(set: TestSet): Problem[] {
  return [
    ...(set.engine ? checkEngine(set.engine, '/engine') : []),
    ...checkLimits(set.limits, '/limits'),
    ...checkInstrument(set),
    ...checkTemperature(set),
    ...checkReadings(set),
  ];
}

function checkInstrument({ instrument }: TestSet): Problem[] {
  if (!instrument) return [];
  const problems: Problem[] = [];
  const zero = instrument.leadZero_ohm;
  if (zero !== null && !(Number.isFinite(zero) && zero >= 0)) {
    problems.push({ path: '/instrument/leadZero', message: 'The lead zero is a resistance of nothing or more.' });
  }
  for (const [i, range] of instrument.accuracy.entries()) {
    for (const field of ['upTo', 'percentOfReading', 'counts', 'resolution'] as const) {
      if (!(Number.isFinite(range[field]) && range[field] >= 0)) {
        problems.push({ path: `/instrument/accuracy/${i}/${field}`, message: `${field} must be a finite number of 0 or more.` });
      }
    }
  }
  return problems;
}

function checkTemperature({ limits, condition }: TestSet): Problem[] {
  const part = condition.partTemperature_degC;
  const coefficient = limits.temperatureCoefficient_perK ?? 0;
  if (part === undefined) return [];
  if (!Number.isFinite(part) || part < -273.15) {
    return [{ path: '/condition/partTemperature_degC', message: `${part} °C is no temperature.` }];
  }
  if (toReferenceFactor(part, limits.referenceTemperature_degC ?? 20, coefficient) !== null) return [];
  return [{ path: '/condition/partTemperature_degC', message: `At ${part} °C a coefficient of ${coefficient} per K leaves no resistance.` }];
}

function checkReadings({ engine, limits, readings, positions }: TestSet): Problem[] {
  const problems: Problem[] = [];
  const seen = new Set<unknown>();
  for (const [i, { position, entry }] of readings.entries()) {
    const at = `/readings/${i}/position`;
    if (typeof position === 'number' && engine && !(position >= 1 && position <= engine.cylinders && Number.isInteger(position))) {
      problems.push({ path: at, message: `The engine has no cylinder ${position}; it has ${engine.cylinders}.` });
    }
    if (positions && !positions.includes(position)) problems.push({ path: at, message: `This test has no position ${position}; it has ${positions.join(', ')}.` });
    if (seen.has(position)) problems.push({ path: at, message: `Position ${position} is read twice; keep the reading that counts.` });
    seen.add(position);
    const parsed = parseEntry(entry, limits.quantity);
    if (!parsed.ok) problems.push({ path: `/readings/${i}/entry`, message: parsed.error });
  }
  return problems;
}
