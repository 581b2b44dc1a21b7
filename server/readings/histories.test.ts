import { v7 } from 'uuid';
import { currentReadings } from '../../application/judging/corrections';
import { workshopId } from '../testing/workshop';
import { randomFrom } from '../../trial/random';
import { verifyJob } from '../audit/audit-trail';
import { openJob, startRun } from '../jobs/open-job';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { isLinearizable, type Operation } from './linearizable';
import { recordReading } from './record-reading';
import { viewRun } from './run-view';

/** In CI so many; 500 were asked for and take some minutes: MUDFLAT_WRITERS_HISTORIES=500. */
const RUNS = Number(process.env.MUDFLAT_WRITERS_HISTORIES ?? 25);
const POSITIONS = [1, 2] as const;
const ENTRIES = ['0.6', '0.7', '0.8', 'OL'];

const op = (called: number, answered: number, rest: object): Operation => ({ called, answered, ...rest }) as Operation;
const write = (called: number, answered: number, id: string, supersedes: string | null, outcome: string) =>
  op(called, answered, { kind: 'write', id, supersedes, outcome });
const read = (called: number, answered: number, saw: string | null) => op(called, answered, { kind: 'read', saw });

describe('the checker', () => {
  test('takes what one register could have said', () => {
    expect(isLinearizable([])).toBe(true);
    expect(isLinearizable([write(0, 1, 'a', null, 'stored'), read(2, 3, 'a')])).toBe(true);
    // Both at once: one of them is first, and the other is refused.
    expect(
      isLinearizable([write(0, 9, 'a', null, 'stored'), write(0, 9, 'b', null, 'refused'), read(10, 11, 'a')]),
    ).toBe(true);
    // An answer that was lost: it may have happened, later than it was called, or not at all.
    expect(isLinearizable([write(0, Infinity, 'a', null, 'unknown'), read(1, 2, null), read(3, 4, 'a')])).toBe(true);
    expect(isLinearizable([write(0, Infinity, 'a', null, 'unknown'), write(2, 3, 'b', null, 'stored')])).toBe(true);
    expect(
      isLinearizable([write(0, Infinity, 'a', null, 'unknown'), write(2, 3, 'a', null, 'duplicate'), read(4, 5, 'a')]),
    ).toBe(true);
  });

  test('finds a lost update, a stale look, a thing done twice, and a refusal without a cause', () => {
    // Both say that they took the free place.
    expect(isLinearizable([write(0, 9, 'a', null, 'stored'), write(0, 9, 'b', null, 'stored')])).toBe(false);
    // Overwritten without having been named.
    expect(isLinearizable([write(0, 1, 'a', null, 'stored'), write(2, 3, 'b', null, 'stored'), read(4, 5, 'b')])).toBe(
      false,
    );
    expect(isLinearizable([write(0, 1, 'a', null, 'stored'), read(2, 3, null)])).toBe(false);
    expect(isLinearizable([write(0, 1, 'a', null, 'stored'), write(2, 3, 'a', null, 'stored')])).toBe(false);
    expect(isLinearizable([write(0, 1, 'a', null, 'refused'), read(2, 3, null)])).toBe(false);
    expect(isLinearizable([write(0, 1, 'a', null, 'duplicate')])).toBe(false);
    // It was seen, and later it was not.
    expect(isLinearizable([write(0, Infinity, 'a', null, 'unknown'), read(1, 2, 'a'), read(3, 4, null)])).toBe(false);
  });
});

describe('two to four writers into one run', () => {
  let there: TestDatabase;
  beforeAll(async () => {
    there = await makeTestDatabase();
  });
  afterAll(() => there.drop());

  /**
   * One history: each writer with a view of its own, over a network that delays, drops, repeats and is away.
   */
  async function history(seed: number) {
    const { db } = there;
    const r = randomFrom(seed);
    const [jobId, runId] = [v7(), v7()];
    await openJob(db, {
      id: jobId,
      unitId: workshopId('unit', 'PL-14'),
      complaint: `history ${seed}`,
      by: 'Ines Varga',
    });
    await startRun(db, { id: runId, jobId, test: 'glow-plug-resistance', by: 'Ines Varga' });
    const clock = performance.now.bind(performance);
    const seen = new Map<number, Operation[]>(POSITIONS.map((p) => [p, []]));
    const note = (position: number, o: Operation) => seen.get(position)?.push(o);
    const sleep = (ms: number) => new Promise<void>((done) => void setTimeout(done, ms));

    const look = async (position: number): Promise<string | null> => {
      const called = clock();
      const view = await viewRun(db, runId);
      const saw = currentReadings(view?.readings ?? []).find((x) => x.position === position)?.id ?? null;
      note(position, read(called, clock(), saw));
      return saw;
    };
    const send = async (
      by: string,
      position: number,
      id: string,
      supersedes: string | null,
      entry: string,
    ): Promise<'told' | 'lost'> => {
      const called = clock();
      const fate = r.even();
      await sleep(r.between(0, 4));
      // Never arrives.
      if (fate < 0.1) {
        note(position, write(called, Infinity, id, supersedes, 'unknown'));
        return 'lost';
      }
      const done = await recordReading(db, runId, {
        id,
        position,
        entry,
        by,
        takenAt: new Date().toISOString(),
        ...(supersedes === null ? {} : { supersedes, why: 'read again' }),
      });
      // The answer is lost: the writer does not know.
      if (fate < 0.25) {
        note(position, write(called, Infinity, id, supersedes, 'unknown'));
        return 'lost';
      }
      const outcome = done.ok ? (done.value.duplicate ? 'duplicate' : 'stored') : 'refused';
      if (!done.ok && done.error.status !== 409) throw new Error(done.error.detail);
      note(position, write(called, clock(), id, supersedes, outcome));
      return 'told';
    };
    const writer = async (by: string): Promise<void> => {
      for (let n = 0; n < 3; n++) {
        const position = r.pick(POSITIONS);
        let counts = await look(position);
        // Away: what was read is old by the time that it is sent, and several are sent one after the other.
        const isAway = r.chance(0.3);
        if (isAway) await sleep(r.between(5, 25));
        for (let k = 0; k < (isAway ? 2 : 1); k++) {
          const id = v7();
          const entry = r.pick(ENTRIES);
          // Sent again until somebody answers; then once more at times, as a proxy does.
          for (let tries = 0; tries < 6; tries++) if ((await send(by, position, id, counts, entry)) === 'told') break;
          if (r.chance(0.2)) await send(by, position, id, counts, entry);
          counts = id;
        }
      }
    };
    const writers = ['Ines Varga', 'Tobin Marsh', 'Jory Thane', 'Odile Brandt'].slice(
      0,
      2 + Math.floor(r.between(0, 3)),
    );
    await Promise.all(writers.map(writer));
    for (const p of POSITIONS) await look(p);
    return { seen, jobId };
  }

  test(`${RUNS} histories: each position linearizable, every trail intact`, async () => {
    for (let seed = 1; seed <= RUNS; seed++) {
      const { seen, jobId } = await history(seed);
      for (const [position, operations] of seen)
        expect({ seed, position, linearizable: isLinearizable(operations) }).toEqual({
          seed,
          position,
          linearizable: true,
        });
      expect((await verifyJob(there.db, jobId))?.intact).toBe(true);
    }
  }, 3_600_000);
});
