import { v5 } from 'uuid';
import type { Result } from '../core/result';
import type { ProblemDetails } from '../formats/problem';
import { addDepot, addEngineFamily, addInstrument, addPerson, addSpecification, addUnit, openJob, startRun } from '../server/commands';
import type { Db } from '../server/db';
import { recordCircumstance, recordReading } from '../server/recording';
import { DEPOTS, type DemoJob, FAMILIES, INSTRUMENTS, JOBS, PERSONS, SPECIFICATIONS, TIME_ZONE, UNITS } from './fleet';
import { BY_SYSTEM, GENERAL } from './rules-of-thumb';

const NAMESPACE = '5d1f0c7e-6c1e-5b6d-9a64-3f0a7c2b9e11';

/** The same name is always the same id, so that loading the demo again changes nothing. */
export const demoId = (...name: (string | number)[]): string => v5(name.join('/'), NAMESPACE);

async function must<T>(what: string, command: Promise<Result<T, ProblemDetails>>): Promise<T> {
  const result = await command;
  if (!result.ok) throw new Error(`demo: ${what}: ${result.error.detail}`);
  return result.value;
}

const TEST = 'glow-plug-resistance';

/** Loads the demo fleet through the same commands as a user's data. */
export async function loadDemo(db: Db): Promise<void> {
  for (const name of DEPOTS) await must(name, addDepot(db, { id: demoId('depot', name), name, timeZone: TIME_ZONE }));
  for (const p of PERSONS) await must(p.name, addPerson(db, { id: demoId('person', p.name), depotId: demoId('depot', p.depot), name: p.name, role: p.role }));
  for (const [code, engine] of Object.entries(FAMILIES)) await must(code, addEngineFamily(db, { id: demoId('family', code), code, engine }));
  for (const { fleetNumber, kind, family, depot } of UNITS) {
    await must(fleetNumber, addUnit(db, { id: demoId('unit', fleetNumber), depotId: demoId('depot', depot), engineFamilyId: demoId('family', family), fleetNumber, kind }));
  }
  for (const depot of DEPOTS) {
    for (const { name, kind, accuracy, calibrationDue } of INSTRUMENTS) {
      await must(name, addInstrument(db, { id: demoId('instrument', depot, name), depotId: demoId('depot', depot), name, instrument: { kind, accuracy }, calibrationDue }));
    }
  }
  await loadShelf(db);
  for (const job of JOBS) await loadJob(db, job);
}

async function loadShelf(db: Db): Promise<void> {
  const thumb = 'Rule of thumb, common practice';
  const rules = Object.entries(GENERAL).map(([test, limits]) => ({ test, family: null, limits, source: thumb, status: 'rule-of-thumb' as const }));
  const bySystem = Object.entries(FAMILIES).flatMap(([family, engine]) =>
    Object.entries(BY_SYSTEM[engine.systemVoltage_V === 24 ? 24 : 12]).map(([test, limits]) => ({ test, family, limits, source: `${thumb}, ${engine.systemVoltage_V} V`, status: 'rule-of-thumb' as const })));
  for (const s of [...SPECIFICATIONS, ...rules, ...bySystem]) {
    const family = s.family ?? 'general';
    const series = s.test === TEST ? [family] : [family, s.test];
    await must(s.source, addSpecification(db, {
      id: demoId('specification', ...series, 1), seriesId: demoId('specification', ...series), revision: 1, test: s.test,
      engineFamilyId: s.family && demoId('family', s.family), limits: s.limits, source: s.source, status: s.status,
    }));
  }
}

async function loadJob(db: Db, j: DemoJob): Promise<void> {
  const depot = UNITS.find((u) => u.fleetNumber === j.unit)?.depot ?? '';
  const key = j.further ? [j.unit, j.test ?? TEST] : [j.unit];
  const [jobId, runId] = [demoId('job', j.unit), demoId('run', ...key)];
  await must(j.unit, openJob(db, { id: jobId, unitId: demoId('unit', j.unit), complaint: j.complaint, hours: j.hours, by: j.by }));
  await must(j.unit, startRun(db, { id: runId, jobId, test: j.test ?? TEST, by: j.by }));
  const start = Date.now();
  const at = (step: number): string => new Date(start - 3_600_000 + step * 9000).toISOString();
  await must(j.unit, recordCircumstance(db, runId, {
    id: demoId('circumstance', ...key), by: j.by, recordedAt: at(0), instrumentId: j.meter && demoId('instrument', depot, j.meter),
    leadZero: j.leadZero, states: [...j.states], condition: { partTemperature_degC: j.partTemperature_degC },
  }));
  const latest = new Map<number | string, string>();
  for (const [i, [position, entry, why]] of j.readings.entries()) {
    const id = demoId('reading', ...key, i);
    await must(`${j.unit} ${position}`, recordReading(db, runId, {
      id, position, entry, by: j.by, takenAt: at(i + 1), supersedes: latest.get(position) ?? null, why: why ?? null,
    }));
    latest.set(position, id);
  }
}
