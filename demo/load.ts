import { v5 } from 'uuid';
import type { Result } from '../core/foundation/result';
import type { ProblemDetails } from '../formats/problem';
import { addDepot } from '../server/fleet/depots';
import { addEngineFamily, addUnit, chooseDepot } from '../server/fleet/fleet';
import type { Db } from '../server/db/connection';
import { isTaken } from '../server/db/refusal';
import { describeCode, recordCodes } from '../server/evidence/codes';
import { noteIntake, recordEvidence } from '../server/evidence/evidence';
import { findingsOf, writeFinding } from '../server/evidence/findings';
import { viewJob } from '../server/jobs/view-job';
import type { Actor } from '../server/policy/actor';
import { addPerson } from '../server/people/people';
import { addPhoto } from '../server/evidence/photos';
import { addInstrument, measureTestLeads } from '../server/instruments/instruments';
import { recordCircumstance, recordReading } from '../server/readings/record-reading';
import { recordSpecification } from '../server/specifications/specifications';
import { keepTest } from '../server/catalogue/tests';
import { BOARD, DEMO_PIN, DEPOTS, FAMILIES, PERSONS, TIME_ZONE, UNITS } from './fleet';
import { INSTRUMENTS, TEST_LEADS } from './instruments';
import { CODES, type DemoJob, JOBS } from './jobs';
import { loadRepairs } from './load-repairs';
import { loadCaptures } from './captures';
import { loadRecordings } from './recordings';
import { drawPicture } from './pictures';
import { type DemoStory, STORIES } from './stories';
import { OWN_TESTS, SCHOOLS, SHELF } from './shelf';
import { openJob, startRun } from '../server/jobs/open-job';

const NAMESPACE = '5d1f0c7e-6c1e-5b6d-9a64-3f0a7c2b9e11';

/** The same name is always the same id, so that loading the demo again changes nothing. */
export const demoId = (...name: (string | number)[]): string => v5(name.join('/'), NAMESPACE);

/** A person of the demo, as whoever acts. */
export function demoActor(name: string): Actor {
  const found = PERSONS.find((p) => p.name === name);
  if (!found) throw new Error(`the demo has no person ${name}`);
  const depotId = found.depot === null ? null : demoId('depot', found.depot);
  return { id: demoId('person', name), name, role: found.role, depotId };
}

/** What an older version of the demo has written under the same id stays as it is. */
async function must(what: string, command: Promise<Result<unknown, ProblemDetails>>): Promise<void> {
  const result = await command;
  if (!result.ok && !isTaken(result.error)) throw new Error(`demo: ${what}: ${result.error.detail}`);
}

const TEST = 'glow-plug-resistance';

/** Loads the demo fleet through the same commands as a user's data. */
export async function loadDemo(db: Db): Promise<void> {
  for (const name of DEPOTS) await must(name, addDepot(db, { id: demoId('depot', name), name, timeZone: TIME_ZONE }));
  for (const p of PERSONS)
    await must(
      p.name,
      addPerson(db, {
        id: demoId('person', p.name),
        depotId: p.depot === null ? null : demoId('depot', p.depot),
        name: p.name,
        role: p.role,
        pin: DEMO_PIN,
      }),
    );
  for (const [code, engine] of Object.entries(FAMILIES))
    await must(code, addEngineFamily(db, { id: demoId('family', code), code, engine }));
  for (const { fleetNumber, kind, family, depot } of UNITS) {
    await must(
      fleetNumber,
      addUnit(db, {
        id: demoId('unit', fleetNumber),
        depotId: demoId('depot', depot),
        engineFamilyId: demoId('family', family),
        fleetNumber,
        kind,
      }),
    );
  }
  for (const depot of DEPOTS) await loadInstruments(db, depot);
  for (const test of OWN_TESTS)
    await must(test.id, keepTest(db, { id: demoId('test', test.id), testId: test.id, by: LEAD, test }));
  for (const { key, ...entry } of SHELF)
    await must(
      entry.source,
      recordSpecification(db, { id: demoId('specification', ...key, 1), by: LEAD, entry }, demoActor(LEAD)),
    );
  for (const [depot, test, name] of SCHOOLS)
    await must(depot, chooseDepot(db, demoId('depot', depot), { by: LEAD, school: { test, name } }));
  for (const depot of DEPOTS)
    await must(
      depot,
      chooseDepot(db, demoId('depot', depot), {
        by: LEAD,
        letterhead: `${BOARD}\nWorkshop at ${depot}`,
      }),
    );
  for (const job of JOBS) await loadJob(db, job);
  for (const [i, { unit, visit, ...read }] of CODES.entries()) {
    await must(
      unit,
      recordCodes(db, demoId('job', unit, ...(visit ? [visit] : [])), {
        id: demoId('codes', i),
        by: PERSONS[0].name,
        ...read,
        codes: [...read.codes],
      }),
    );
  }
  await must(
    'P1604',
    describeCode(db, demoId('depot', 'North Sluice'), {
      id: demoId('description', 'P1604'),
      by: LEAD,
      code: 'P1604',
      text: 'Glow control unit: feedback of one plug missing',
    }),
  );
  for (const story of STORIES) await loadStory(db, story);
  await loadRecordings(db, demoId, must);
  await loadCaptures(db, demoId, must);
  await loadRepairs(db, LEAD, demoId, demoActor);
}

const LEAD = PERSONS.find((p) => p.role === 'lead')?.name ?? '';

async function loadInstruments(db: Db, depot: string): Promise<void> {
  const depotId = demoId('depot', depot);
  for (const { name, calibrationDue, ...instrument } of INSTRUMENTS) {
    await must(
      name,
      addInstrument(db, { id: demoId('instrument', depot, name), depotId, name, by: LEAD, instrument, calibrationDue }),
    );
  }
  for (const [name, zero] of TEST_LEADS)
    await must(name, measureTestLeads(db, { id: demoId('lead', depot, name), depotId, name, zero, by: LEAD }));
}

async function loadJob(db: Db, j: DemoJob): Promise<void> {
  const depot = UNITS.find((u) => u.fleetNumber === j.unit)?.depot ?? '';
  const visit = [j.unit, ...(j.visit ? [j.visit] : [])];
  const key = j.further ? [...visit, j.test ?? TEST] : visit;
  const [jobId, runId] = [demoId('job', ...visit), demoId('run', ...key)];
  if (!j.further)
    await must(
      j.unit,
      openJob(db, { id: jobId, unitId: demoId('unit', j.unit), complaint: j.complaint, hours: j.hours, by: j.by }),
    );
  await must(j.unit, startRun(db, { id: runId, jobId, test: j.test ?? TEST, by: j.by }));
  const start = Date.now();
  const at = (step: number): string => new Date(start - 3_600_000 + step * 9000).toISOString();
  await must(
    j.unit,
    recordCircumstance(db, runId, {
      id: demoId('circumstance', ...key),
      by: j.by,
      recordedAt: at(0),
      instrumentId: j.meter && demoId('instrument', depot, j.meter),
      leadZero: j.leadZero,
      states: [...j.states],
      condition: { partTemperature_degC: j.partTemperature_degC },
    }),
  );
  const latest = new Map<number | string, string>();
  for (const [i, [position, entry, why]] of j.readings.entries()) {
    const id = demoId('reading', ...key, i);
    await must(
      `${j.unit} ${position}`,
      recordReading(db, runId, {
        id,
        position,
        entry,
        by: j.by,
        takenAt: at(i + 1),
        supersedes: latest.get(position) ?? null,
        why: why ?? null,
      }),
    );
    latest.set(position, id);
  }
}

/**
 * What was asked, seen and found in a job, beside its readings. A finding rests on what the evidence then
 * proposes.
 */
async function loadStory(db: Db, s: DemoStory): Promise<void> {
  const key = [s.unit, ...(s.visit ? [s.visit] : [])];
  const jobId = demoId('job', ...key);
  if (s.intake)
    await must(
      s.unit,
      noteIntake(db, jobId, { id: demoId('intake', ...key), by: s.by, intake: { photos: [], ...s.intake } }),
    );
  const photos: string[] = [];
  if (s.picture) {
    const [id, bytes] = [demoId('photo', ...key), await drawPicture(s.picture)];
    await must(s.unit, addPhoto(db, jobId, { id, name: `${s.picture}.jpg`, by: s.by, bytes }));
    photos.push(id);
  }
  for (const [i, seen] of s.evidence.entries()) {
    const evidence = seen.kind === 'visual' && photos.length ? { ...seen, photos } : seen;
    await must(s.unit, recordEvidence(db, jobId, { id: demoId('evidence', ...key, i), by: s.by, evidence }));
  }
  if (!s.finding || (await findingsOf(db, [jobId])).size) return;
  const view = await viewJob(db, jobId);
  if (!view) throw new Error(`demo: there is no job of ${s.unit}`);
  const { kind, text, more } = s.finding;
  const proposal = view.proposals[0];
  const plain = { text, ruledOut: view.ruledOut };
  const finding =
    kind === 'not-found' || !proposal
      ? { kind: 'not-found' as const, ...plain, ifReturns: more }
      : {
          kind: 'found' as const,
          ...plain,
          what: proposal.target.kind,
          name: proposal.target.name,
          positions: proposal.positions,
          confidence: proposal.confidence,
          supports: proposal.supports,
          against: proposal.against,
          advice: more,
        };
  await must(s.unit, writeFinding(db, jobId, { id: demoId('finding', ...key), by: s.by, finding }));
}
