import { asc, eq } from 'drizzle-orm';
import fc from 'fast-check';
import { v5, v7 } from 'uuid';
import { currentReadings } from '../../application/judging/corrections';
import type { Result } from '../../core/foundation/result';
import { workshopId } from '../testing/workshop';
import type { ProblemDetails } from '../../formats/problem';
import { verifyJob } from '../audit/audit-trail';
import { evidence, jobEvent, reading } from '../db/schema';
import { recordEvidence, takeBackEvidence } from '../evidence/evidence';
import { openJob, startRun } from '../jobs/open-job';
import { changePlan } from '../jobs/plan';
import { recordReading } from '../readings/record-reading';
import { viewRun } from '../readings/run-view';
import { makeTestDatabase, type TestDatabase } from '../testing/database';

/**
 * Three people write into two jobs at once: answers get lost and what was sent is sent again, late and in
 * another order; ids that belong elsewhere come too. Whatever happens, the database ends in the state of a
 * plain model that knows neither SQL nor time: nothing that was accepted is lost, nothing is doubled, and the
 * trail is intact.
 */
let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const PEOPLE = ['Ines Varga', 'Jory Thane', 'Tobin Marsh'] as const;
const ENTRIES = ['0.6', '0.7', '201', 'OL', '0.4~0.9'] as const;
const POSITIONS = [1, 2, 3] as const;

/** What somebody does. Numbers choose among what is there, so that shrinking keeps meaning. */
type Step =
  | {
      readonly do: 'read';
      readonly by: number;
      readonly job: number;
      readonly position: number;
      readonly entry: number;
    }
  | { readonly do: 'correct'; readonly by: number; readonly job: number; readonly of: number; readonly entry: number }
  | { readonly do: 'see'; readonly by: number; readonly job: number; readonly broke: boolean }
  | { readonly do: 'take back'; readonly by: number; readonly job: number; readonly of: number }
  | { readonly do: 'plan'; readonly by: number; readonly job: number }
  /** The answer to an earlier step was lost: it is sent again. */
  | { readonly do: 'again'; readonly of: number }
  /** The id of an earlier step comes with something else, or in the other job. */
  | { readonly do: 'foreign id'; readonly of: number; readonly elsewhere: boolean };

const small = fc.nat(11);
const person = fc.nat(2);
const job = fc.nat(1);
const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({ do: fc.constant('read' as const), by: person, job, position: fc.nat(2), entry: fc.nat(4) }),
  },
  {
    weight: 3,
    arbitrary: fc.record({ do: fc.constant('correct' as const), by: person, job, of: small, entry: fc.nat(4) }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('see' as const), by: person, job, broke: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('take back' as const), by: person, job, of: small }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('plan' as const), by: person, job }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('again' as const), of: small }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('foreign id' as const), of: small, elsewhere: fc.boolean() }) },
);

interface Write {
  readonly kind: 'reading' | 'evidence' | 'take back' | 'plan';
  readonly id: string;
  readonly job: number;
  readonly by: string;
  readonly position: number;
  readonly content: string;
  /** Of a correction: the reading that it corrects; of a slip taken back: the evidence. */
  readonly of: string | null;
}
type Verdict = 'stored' | 'duplicate' | 'refused';

/** What the server should hold, in a few lines. */
class Model {
  readonly writes = new Map<string, Write>();

  expect(w: Write): Verdict {
    const same = this.writes.get(w.id);
    if (same) return sameWrite(same, w) ? 'duplicate' : 'refused';
    if (w.kind === 'reading' && (this.current(w.job, w.position)?.id ?? null) !== w.of) return 'refused';
    if (w.kind === 'take back') {
      const slip = this.writes.get(w.of ?? '');
      if (slip?.kind !== 'evidence' || slip.job !== w.job) return 'refused';
      // Somebody took it back before: that is done already.
      if ([...this.writes.values()].some((x) => x.kind === 'take back' && x.of === w.of)) return 'duplicate';
    }
    this.writes.set(w.id, w);
    return 'stored';
  }
  current(job: number, position: number): Write | undefined {
    const all = [...this.writes.values()].filter(
      (w) => w.kind === 'reading' && w.job === job && w.position === position,
    );
    const gone = new Set(all.map((w) => w.of));
    return all.find((w) => !gone.has(w.id));
  }
  of(job: number, kind: Write['kind']): Write[] {
    return [...this.writes.values()].filter((w) => w.job === job && w.kind === kind);
  }
}
const sameWrite = (a: Write, b: Write): boolean =>
  a.kind === b.kind && a.job === b.job && a.position === b.position && a.content === b.content && a.by === b.by;

interface Place {
  readonly job: string;
  readonly run: string;
}
async function newPlace(): Promise<Place> {
  const place = { job: v7(), run: v7() };
  await openJob(test_.db, { id: place.job, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: PEOPLE[0] });
  await startRun(test_.db, { id: place.run, jobId: place.job, test: 'glow-plug-resistance', by: PEOPLE[0] });
  return place;
}

const AT = '2026-11-20T10:00:00.000Z';
function send(place: Place, w: Write): Promise<Result<{ readonly duplicate: boolean }, ProblemDetails>> {
  const { id, by } = w;
  switch (w.kind) {
    case 'reading':
      return recordReading(test_.db, place.run, {
        id,
        by,
        takenAt: AT,
        position: w.position,
        entry: w.content,
        supersedes: w.of,
        why: w.of ? 'misread' : null,
      });
    case 'evidence':
      return recordEvidence(test_.db, place.job, {
        id,
        by,
        evidence: { kind: 'wiggle', where: 'x', outcome: w.content === 'broke' ? 'broke' : 'held' },
      });
    case 'take back':
      return takeBackEvidence(test_.db, place.job, { id, by, evidence: w.of ?? v7() });
    case 'plan':
      return changePlan(test_.db, place.job, { id, by, change: { kind: 'add', test: w.content } });
  }
}

/**
 * The steps as writes, with what the model knows at that moment: whoever writes has seen what stands there.
 */
function writeOf(s: Step, i: number, sent: readonly Write[], model: Model, run: string): Write | null {
  const id = v5(String(i), run);
  const plain = { id, position: 0, of: null };
  const earlier = 'of' in s ? sent[s.of % Math.max(1, sent.length)] : undefined;
  switch (s.do) {
    case 'read':
      return {
        ...plain,
        kind: 'reading',
        job: s.job,
        by: PEOPLE[s.by] ?? '',
        position: POSITIONS[s.position] ?? 1,
        content: ENTRIES[s.entry] ?? '0.6',
      };
    case 'correct': {
      const before = model.of(s.job, 'reading')[s.of % Math.max(1, model.of(s.job, 'reading').length)];
      return before
        ? {
            ...plain,
            kind: 'reading',
            job: s.job,
            by: PEOPLE[s.by] ?? '',
            position: before.position,
            content: ENTRIES[s.entry] ?? '0.6',
            of: before.id,
          }
        : null;
    }
    case 'see':
      return { ...plain, kind: 'evidence', job: s.job, by: PEOPLE[s.by] ?? '', content: s.broke ? 'broke' : 'held' };
    case 'take back': {
      const slip = model.of(s.job, 'evidence')[s.of % Math.max(1, model.of(s.job, 'evidence').length)];
      return slip
        ? { ...plain, kind: 'take back', job: s.job, by: PEOPLE[s.by] ?? '', content: 'take back', of: slip.id }
        : null;
    }
    case 'plan':
      return { ...plain, kind: 'plan', job: s.job, by: PEOPLE[s.by] ?? '', content: 'pin-drag' };
    case 'again':
      return earlier ?? null;
    case 'foreign id':
      if (!earlier || earlier.kind === 'take back') return null;
      return s.elsewhere
        ? { ...earlier, job: 1 - earlier.job, of: null }
        : {
            ...earlier,
            content: {
              reading: '0.99',
              evidence: earlier.content === 'broke' ? 'held' : 'broke',
              plan: 'battery-at-rest',
            }[earlier.kind],
          };
  }
}

const told = (r: Result<{ readonly duplicate: boolean }, ProblemDetails>): Verdict =>
  r.ok ? (r.value.duplicate ? 'duplicate' : 'stored') : 'refused';

async function runSteps(steps: readonly Step[]): Promise<void> {
  const places = [await newPlace(), await newPlace()] as const;
  const model = new Model();
  const sent: Write[] = [];
  const seed = v7();
  for (const [i, s] of steps.entries()) {
    const w = writeOf(s, i, sent, model, seed);
    if (!w) continue;
    const wanted = model.expect(w);
    sent.push(w);
    const answer = await send(places[w.job === 0 ? 0 : 1], w);
    expect([s.do, told(answer)]).toEqual([s.do, wanted]);
    if (!answer.ok) expect([404, 409, 422]).toContain(answer.error.status);
  }
  for (const [n, place] of places.entries()) await holdsWhat(model, n, place);
}

/**
 * The database holds what the model holds: every accepted row once, the same readings counting, an unbroken
 * trail.
 */
async function holdsWhat(model: Model, n: number, place: Place): Promise<void> {
  const rows = await test_.db.select().from(reading).where(eq(reading.runId, place.run)).orderBy(asc(reading.sequence));
  expect(rows.map((r) => [r.id, r.entry])).toEqual(model.of(n, 'reading').map((w) => [w.id, w.content]));
  const counting = currentReadings(rows).map((r) => [Number(r.position), r.entry]);
  const modelled = POSITIONS.flatMap((p) => {
    const w = model.current(n, p);
    return w ? [[p, w.content]] : [];
  });
  expect(counting.sort()).toEqual(modelled.sort());
  const shown =
    (await viewRun(test_.db, place.run))?.judgement.readings.filter((r) => r.verdict !== 'not-measured') ?? [];
  expect(shown.map((r) => [r.position, r.entry]).sort()).toEqual(modelled);
  const seen = await test_.db
    .select()
    .from(evidence)
    .where(eq(evidence.jobId, place.job))
    .orderBy(asc(evidence.sequence));
  expect(seen.map((r) => r.id)).toEqual(
    [...model.writes.values()]
      .filter((w) => w.job === n && (w.kind === 'evidence' || w.kind === 'take back'))
      .map((w) => w.id),
  );
  const events = await test_.db.select().from(jobEvent).where(eq(jobEvent.jobId, place.job));
  const written = [...model.writes.values()].filter((w) => w.job === n).length;
  // The job and its run are events too.
  expect(events).toHaveLength(written + 2);
  expect(await verifyJob(test_.db, place.job)).toMatchObject({ intact: true });
}

test('random histories of three people end in the state of the model', async () => {
  await fc.assert(fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 14 }), runSteps), { numRuns: 60 });
});

test('the same writes, sent twice each and at the same time: each is stored once', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ position: fc.nat(2), entry: fc.nat(4), by: person }), { minLength: 1, maxLength: 6 }),
      async (reads) => {
        const place = await newPlace();
        const writes = reads.map((r): Write => ({
          kind: 'reading',
          id: v7(),
          job: 0,
          by: PEOPLE[r.by] ?? '',
          position: POSITIONS[r.position] ?? 1,
          content: ENTRIES[r.entry] ?? '0.6',
          of: null,
        }));
        const answers = await Promise.all([...writes, ...writes].map((w) => send(place, w)));
        const rows = await test_.db.select().from(reading).where(eq(reading.runId, place.run));
        // Two people at one position: one is first, the other is told.
        const positions = new Set(writes.map((w) => w.position));
        expect(rows).toHaveLength(positions.size);
        expect(answers.filter((a) => told(a) === 'stored')).toHaveLength(positions.size);
        expect(answers.filter((a) => told(a) === 'duplicate')).toHaveLength(positions.size);
        expect(await verifyJob(test_.db, place.job)).toMatchObject({ intact: true });
      },
    ),
    { numRuns: 25 },
  );
});

describe('histories that failed once', () => {
  const named: readonly (readonly [string, readonly Step[]])[] = [
    [
      'evidence under an id of the other job was called a duplicate, and nothing was kept',
      [
        { do: 'see', by: 0, job: 0, broke: true },
        { do: 'foreign id', of: 0, elsewhere: true },
      ],
    ],
    [
      'a change of the plan under an id that is taken was called a duplicate',
      [
        { do: 'plan', by: 0, job: 0 },
        { do: 'foreign id', of: 0, elsewhere: false },
      ],
    ],
  ];
  test.each(named)('%s', async (_, steps) => runSteps(steps));
});
