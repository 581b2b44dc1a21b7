import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { v7 } from 'uuid';
import { settleFirst } from '../../core/evidence/known';
import type { NextStep } from '../../core/job/next-step';
import type { RepairRecord } from '../../core/repair/types';
import { sequenceFor } from '../../core/repair/sequences';
import type { JobView } from '../../application/views';
import { demoId } from '../../demo/load';
import { job, jobStanding } from '../db/schema';
import { recordCodes } from '../evidence/codes';
import { recordEvidence } from '../evidence/evidence';
import { writeFinding } from '../evidence/findings';
import { recordReading } from '../readings/record-reading';
import { writeRepairRecord } from '../repair/repair-log';
import { DEMO } from '../../demo/testing';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from './open-job';
import { standOfRun, progressOfJobs } from './standing';
import { viewJob } from './view-job';
import { viewYard } from './yard';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase(DEMO);
});
afterAll(() => test_.drop());

const BY = 'Odile Brandt';
const ACTOR = { id: demoId('person', BY), name: BY, role: 'lead', depotId: null } as const;

/** What must hold of a job's one voice, whatever was written into it. */
async function agrees(jobId: string): Promise<JobView> {
  const { db } = test_;
  const view = await viewJob(db, jobId);
  if (!view) throw new Error('no job');
  const { progress: p, plan, proposals, repair, known } = view;
  // Kept or drawn anew, and wherever it is asked.
  await db.delete(jobStanding).where(eq(jobStanding.jobId, jobId));
  const again = await viewJob(db, jobId);
  expect(JSON.parse(JSON.stringify(again))).toEqual(JSON.parse(JSON.stringify(view)));
  expect((await progressOfJobs(db, [jobId])).get(jobId)).toEqual(JSON.parse(JSON.stringify(p)));
  const run = view.job.runs.at(-1);
  if (run) expect((await standOfRun(db, run.id))?.say).toBe(p.say);
  // One step, or none once it is released; it is not offered a second time in its own place.
  expect(p.now === null).toBe(view.job.closed);
  expect(p.next === null).toBe(view.job.closed);
  if (!p.next) return view;
  const own = JSON.stringify(p.next.act);
  expect(p.instead.map((s) => JSON.stringify(s.act))).not.toContain(own);
  agreesWith(p.next, view);
  const todo = plan.steps.filter((s) => s.state === 'to do');
  if (settleFirst(known).length && todo.some((s) => s.run !== undefined) && p.now === 'tests')
    expect(p.next.act).toMatchObject({ do: 'measure', run: expect.any(String) as string });
  if (p.next.act.do === 'release') expect(repair.checks.every((c) => c.state === 'done')).toBe(true);
  for (const s of [p.next, ...p.instead])
    if (s.act.do === 'sign-finding' && s.act.proposal !== undefined)
      expect(s.say).toContain(proposals[s.act.proposal]?.text ?? 'nothing');
  return view;
}

/** The plan and the circuits ask for the same test. */
function agreesWith(next: NextStep, { plan }: JobView): void {
  if (next.act.do !== 'measure') return;
  const first = plan.steps.find((s) => s.state === 'to do');
  expect([next.act.test, next.act.run]).toEqual([first?.test, first?.run]);
  expect(plan.next).toBe(next.act.test);
}

test('every job of the demo says the same on its page, in the yard, on the bench and in its plan', async () => {
  const jobs = await test_.db.select({ id: job.id }).from(job);
  const says = new Map<string, string>();
  for (const { id } of jobs) says.set(id, (await agrees(id)).progress.say);
  const listed = (await viewYard(test_.db)).units.flatMap((u) => u.jobs);
  expect(listed.length).toBeGreaterThan(5);
  for (const j of listed) expect(j.progress.say).toBe(says.get(j.id));
});

const UNITS = ['PL-14', 'PL-23', 'PL-11', 'PL-30'] as const;
const ENTRIES = ['0.6', '0.9', '1.4', '6.3', '201', 'OL', '0.1', '48k', '0.4~0.9', '12.4', 'pass', 'fail'] as const;
const TESTS = [
  'glow-plug-resistance',
  'glow-plug-through-harness',
  'injector-resistance',
  'injector-self-test',
  'battery-at-rest',
  'position-sensor-secondary',
] as const;
const CODES = ['P0671', 'P0202', 'P0204', 'P0335'] as const;

const event = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.record({
      do: fc.constant('measure' as const),
      test: fc.nat(5),
      entries: fc.array(fc.nat(11), { minLength: 1, maxLength: 4 }),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant('codes' as const), phase: fc.nat(3), codes: fc.subarray([...CODES]) }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('see' as const),
      position: fc.integer({ min: 1, max: 3 }),
      what: fc.nat(3),
    }),
  },
  { weight: 7, arbitrary: fc.record({ do: fc.constant('on' as const) }) },
);
type Event = typeof event extends fc.Arbitrary<infer T> ? T : never;

/** What a good part reads. */
const GOOD: Readonly<Record<string, string>> = {
  'injector-resistance-piezo': '193k',
  'battery-at-rest': '12.6',
  'injector-self-test': 'pass',
  'position-sensor-secondary': '980',
};

/** Reads cylinder after cylinder, in a new run or in one that is begun. */
async function measure(jobId: string, test: string, entries: readonly string[], begun?: string): Promise<void> {
  const run = begun ?? v7();
  if (begun === undefined && !(await startRun(test_.db, { id: run, jobId, test, by: BY })).ok) return;
  for (const [i, entry] of entries.entries())
    await recordReading(test_.db, run, {
      id: v7(),
      position: i + 1,
      entry,
      by: BY,
      takenAt: new Date().toISOString(),
    });
}

/** What a person would write who does what the job asks for. */
async function goOn(view: JobView): Promise<void> {
  const { act } = view.progress.next ?? { act: null };
  const write = (record: RepairRecord) => writeRepairRecord(test_.db, view.job.id, { id: v7(), by: BY, record }, ACTOR);
  const see = (evidence: Parameters<typeof recordEvidence>[2]['evidence']) =>
    recordEvidence(test_.db, view.job.id, { id: v7(), by: BY, evidence });
  switch (act?.do) {
    case 'sign-finding': {
      const p = view.proposals[act.proposal ?? 0];
      if (!p) return;
      const { target, positions, confidence, text, supports, against } = p;
      const body = { kind: 'found', what: target.kind, name: target.name, positions, confidence, text } as const;
      await writeFinding(test_.db, view.job.id, {
        id: v7(),
        by: BY,
        finding: { ...body, supports, against, ruledOut: [], advice: '' },
      });
      return;
    }
    case 'choose':
      await write({ kind: 'decision', finding: act.finding, school: 'one', inputs: null, currency: 'EUR', why: '' });
      return;
    case 'quote':
      await write({
        kind: 'quotation',
        finding: act.finding,
        currency: 'EUR',
        lines: [{ text: 'x', quantity: 1, price: 100 }],
        note: '',
      });
      return;
    case 'answer':
      await write({ kind: 'answer', quotation: act.quotation, answer: 'accepted', said: '' });
      return;
    case 'repair':
      for (const f of view.findings) {
        if (f.body.kind !== 'found') continue;
        const { positions, name, what } = f.body;
        const sequence = sequenceFor(what, name);
        const ticks = sequence.steps.flatMap((s) =>
          s.each && positions.length ? positions.map((position) => ({ step: s.id, position })) : [{ step: s.id }],
        );
        await write({ kind: 'ticks', finding: f.id, sequence: sequence.id, ticks, left: 'does not apply' });
      }
      return;
    case 'measure': {
      const cylinders = view.unit.engine.cylinders;
      const entries = Array.from({ length: cylinders }, () => GOOD[act.test] ?? '0.6');
      await measure(view.job.id, act.test, entries, act.run);
      return;
    }
    case 'prove':
      if (act.check === 'measured-again')
        for (const { test } of view.repair.pairs)
          await measure(
            view.job.id,
            test,
            Array.from({ length: view.unit.engine.cylinders }, () => GOOD[test] ?? '0.6'),
          );
      if (act.check === 'vehicle-scan') await write({ kind: 'scan', outcome: 'clean', said: '' });
      if (act.check === 'road-test') await see({ kind: 'drive', conditions: [], outcome: 'did not show', seen: 'x' });
      if (act.check === 'codes-cleared')
        await recordCodes(test_.db, view.job.id, {
          id: v7(),
          by: BY,
          phase: 'after-clearing',
          status: 'unknown',
          codes: [],
        });
      return;
    case 'release':
      await write({ kind: 'release', said: 'done', waived: [] });
      return;
    case 'read-codes':
      await recordCodes(test_.db, view.job.id, { id: v7(), by: BY, phase: 'as-found', status: 'unknown', codes: [] });
      return;
    default:
      return;
  }
}

async function happens(jobId: string, e: Event): Promise<void> {
  const { db } = test_;
  switch (e.do) {
    case 'measure':
      await measure(
        jobId,
        TESTS[e.test] ?? TESTS[0],
        e.entries.map((n) => ENTRIES[n] ?? '0.6'),
      );
      return;
    case 'codes': {
      const phase = (['as-found', 'caused-by-testing', 'after-clearing', 'after-road-test'] as const)[e.phase];
      await recordCodes(db, jobId, { id: v7(), by: BY, phase: phase ?? 'as-found', status: 'unknown', codes: e.codes });
      return;
    }
    case 'see': {
      const [position, where] = [e.position, 'the bracket'];
      const evidence = [
        { kind: 'visual', where, position, damaged: true, seen: 'rubbed through' },
        { kind: 'wiggle', where, outcome: 'held' },
        { kind: 'swap', part: 'plug', from: position, to: position + 1, outcome: 'followed' },
        { kind: 'drive', conditions: [], outcome: 'showed', seen: 'it shook' },
      ] as const;
      await recordEvidence(db, jobId, { id: v7(), by: BY, evidence: evidence[e.what] ?? evidence[0] });
      return;
    }
    case 'on': {
      const view = await viewJob(db, jobId);
      if (view) await goOn(view);
    }
  }
}

test('who does what is asked, again and again, comes from a bad reading to the release, and every place agrees', async () => {
  const id = v7();
  await openJob(test_.db, { id, unitId: demoId('unit', 'PL-16'), complaint: 'Knocks at idle', by: BY });
  await measure(id, 'injector-resistance-piezo', ['191k', '193k', '7.9', '190k']);
  const asked: string[] = [];
  for (let view = await agrees(id); !view.job.closed && asked.length < 20; view = await agrees(id)) {
    asked.push(view.progress.next?.act.do ?? '');
    await goOn(view);
  }
  expect(asked).toEqual([
    'sign-finding',
    'choose',
    'quote',
    'answer',
    'repair',
    'prove',
    'prove',
    'prove',
    'prove',
    'release',
  ]);
  expect((await agrees(id)).progress.say).toBe('Released.');
});

/** Each is a second of work: a few dozen with every change, as many as one likes by hand. */
const HISTORIES = Number(process.env.MUDFLAT_HISTORIES ?? 24);

test('random histories: every place says the same, whatever was written and in which order', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...UNITS),
      fc.array(event, { minLength: 1, maxLength: 16 }),
      async (unit, events) => {
        const id = v7();
        await openJob(test_.db, { id, unitId: demoId('unit', unit), complaint: 'Rough when cold', by: BY });
        for (const e of events) await happens(id, e);
        await agrees(id);
      },
    ),
    { numRuns: HISTORIES },
  );
}, 3_600_000);
