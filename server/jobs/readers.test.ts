import { eq, isNull } from 'drizzle-orm';
import { asFor, type Locale, PLAIN, readFor, type Reader } from '../../core/locale/locale';
import { demoId } from '../../demo/load';
import { installation, job, jobStanding, person } from '../db/schema';
import { chooseLocale } from '../people/people';
import { localeOf } from '../people/session-cookies';
import { languages, translationOf } from '../locale/translations';
import { DEMO } from '../../demo/testing';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { reportFacts } from '../../application/report/facts';
import { recordReading } from '../readings/record-reading';
import { definitionOf, viewRun } from '../readings/run-view';
import { startRun } from './open-job';
import { sayAgain } from '../../core/judge/set';
import type { Judgement } from '../../core/judge/types';
import { v7 } from 'uuid';
import { viewJob } from './view-job';
import { testRun, trace } from '../db/schema';
import { textsOf } from '../../application/traces/stored-words';
import { viewTrace } from '../traces/traces';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase(DEMO);
});
afterAll(() => test_.drop());
afterEach(() => readFor(undefined));

const COMMA: Locale = { ...PLAIN, decimal: 'comma', dates: 'ymd' };
const PSEUDO: Reader = { locale: { ...PLAIN, language: 'en-x-pseudo' }, words: translationOf('en-x-pseudo') };

/** All sentences of a job's page, as somebody reads them. */
async function pageFor(jobId: string, reader: Reader): Promise<unknown> {
  readFor(() => reader);
  try {
    return (await viewJob(test_.db, jobId))?.progress;
  } finally {
    readFor(undefined);
  }
}

test('what follows from a job is kept for each reader, and is not mixed up', async () => {
  const [open] = await test_.db.select({ id: job.id }).from(job).where(isNull(job.closedAt)).orderBy(job.number);
  const id = open?.id ?? '';
  const plain = await pageFor(id, { locale: PLAIN, words: null });
  const other = await pageFor(id, PSEUDO);
  expect(other).not.toEqual(plain);
  // Asked again in turn: each gets their own.
  expect(await pageFor(id, { locale: PLAIN, words: null })).toEqual(plain);
  expect(await pageFor(id, PSEUDO)).toEqual(other);
  const kept = await test_.db.select({ locale: jobStanding.locale }).from(jobStanding).where(eq(jobStanding.jobId, id));
  expect(kept.map((k) => k.locale).toSorted()).toEqual(['en-x-pseudo/point/given/dmy', 'en/point/given/dmy']);
});

test('a result on paper has the reader’s mark, and the record stays as it was typed', async () => {
  const runs = await test_.db.select({ id: testRun.id }).from(testRun);
  let marked = 0;
  for (const { id } of runs) {
    const view = await viewRun(test_.db, id);
    if (!view) continue;
    const point = reportFacts(view);
    const comma = asFor({ locale: COMMA, words: null }, () => reportFacts(view));
    expect(JSON.stringify(comma.rows).replace(/(?<=\d),(?=\d)/g, '.')).toBe(
      JSON.stringify(point.rows).replace(/(?<=\d),(?=\d)/g, '.'),
    );
    if (JSON.stringify(comma.rows) !== JSON.stringify(point.rows)) marked += 1;
    expect((await viewRun(test_.db, id))?.readings).toEqual(view.readings);
  }
  expect(marked).toBeGreaterThan(3);
});

test('what is said again of a judgement in the same words is the same, and in others only its sentences differ', async () => {
  const runs = await test_.db.select().from(testRun);
  for (const run of runs) {
    if (!run.judgement) continue;
    const definition = definitionOf(run);
    expect(sayAgain(run.judgement, definition)).toEqual(run.judgement);
    const { summary, advice, doubts, proven, ...facts } = asFor({ locale: COMMA, words: null }, () =>
      sayAgain(run.judgement as Judgement, definition),
    );
    expect([summary, advice, doubts, proven]).toBeDefined();
    expect(run.judgement).toMatchObject(facts);
  }
});

test('what is recorded by a reader of commas is worded in nobody’s words', async () => {
  const { db } = test_;
  const [open] = await db.select({ id: job.id }).from(job).where(isNull(job.closedAt));
  const runId = v7();
  const actor = { id: demoId('person', 'Odile Brandt'), name: 'Odile Brandt', role: 'lead', depotId: null } as const;
  readFor(() => ({ locale: { ...COMMA, units: 'metric' }, words: null }));
  await startRun(db, { id: runId, jobId: open?.id ?? '', test: 'supply-pressure', by: actor.name });
  for (const [position, entry] of [
    ['cranking', '210 kPa'],
    ['running', '690 kPa'],
  ] as const)
    await recordReading(db, runId, { id: v7(), position, entry, takenAt: new Date().toISOString(), by: actor.name });
  expect((await viewRun(db, runId))?.judgement.summary).toContain('690 kPa, limit 827,4 kPa');
  readFor(undefined);
  expect((await viewRun(db, runId))?.judgement.summary).toContain('100.1 psi, limit 120 psi');
});

test('a person’s choice goes before the workshop’s, and only languages that are there can be chosen', async () => {
  const { db } = test_;
  const id = demoId('person', 'Ines Varga');
  expect(await localeOfPerson(id)).toBeNull();
  await db
    .insert(installation)
    .values({ kind: 'demo', locale: COMMA })
    .onConflictDoUpdate({
      target: installation.id,
      set: { locale: COMMA },
    });
  expect(await localeOfPerson(id)).toEqual(COMMA);
  const own: Locale = { ...PLAIN, units: 'imperial' };
  expect(await chooseLocale(db, id, own)).toMatchObject({ ok: true });
  expect(await localeOfPerson(id)).toEqual(own);
  expect(await chooseLocale(db, id, { ...own, language: 'tlh' })).toMatchObject({
    ok: false,
    error: { errors: [{ path: '/locale/language' }] },
  });
  expect(await localeOfPerson(id)).toEqual(own);
  expect(await chooseLocale(db, id, null)).toMatchObject({ ok: true });
  expect(await localeOfPerson(id)).toEqual(COMMA);
  expect((await db.select({ locale: person.locale }).from(person).where(eq(person.id, id)))[0]?.locale).toBeNull();
});
const localeOfPerson = (id: string): Promise<Locale | null> => localeOf(id, test_.db);

test('English is always there; a language without a file has no words', () => {
  expect(languages()[0]).toEqual({ code: 'en', name: 'English' });
  expect(translationOf('en')).toBeNull();
  expect(translationOf('../package')).toBeNull();
  expect(translationOf('tlh')).toBeNull();
});

test('what was found in recordings is said to each reader in their own words, by the same findings', async () => {
  const rows = await test_.db.select({ id: trace.id, head: trace.head }).from(trace);
  expect(rows.length).toBeGreaterThan(3);
  let sentences = 0;
  for (const { id, head } of rows) {
    const plain = (await viewTrace(test_.db, id))?.head;
    expect(plain).toEqual({ ...head, search: { ...head.search, said: undefined } });
    readFor(() => PSEUDO);
    const shown = (await viewTrace(test_.db, id))?.head;
    readFor(() => ({ locale: COMMA, words: null }));
    const comma = (await viewTrace(test_.db, id))?.head;
    readFor(undefined);
    if (!shown || !comma) throw new Error('no recording');
    // What the person calls a channel, and what a file calls itself, are their words.
    const own = new RegExp(
      [...head.channels.flatMap((c) => [c.name, c.unit]), '\\b\\w{1,3}\\b'].map(escaped).join('|'),
      'g',
    );
    for (const text of textsOf(shown)) {
      expect(text.replace(own, '')).not.toMatch(/[a-z]{4}/);
      sentences += 1;
    }
    for (const text of textsOf(comma)) expect(text).not.toMatch(/\d\.\d/);
    expect(shown.search.findings.map(({ reasons, ...f }) => [reasons.length, f])).toEqual(
      head.search.findings.map(({ reasons, ...f }) => [reasons.length, f]),
    );
  }
  expect(sentences).toBeGreaterThan(100);
});

const escaped = (text: string): string => (text.startsWith('\\b') ? text : text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
