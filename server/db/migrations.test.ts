import { readdirSync, readFileSync } from 'node:fs';
import { databaseCode, notFound, refuse } from './refusal';

describe('migrations', () => {
  const journal = JSON.parse(readFileSync('server/db/migrations/meta/_journal.json', 'utf8')) as {
    entries: { idx: number; tag: string }[];
  };
  test('are numbered without gaps, and each has its file', () => {
    expect(journal.entries.map((e) => e.idx)).toEqual(journal.entries.map((_, i) => i));
    const files = readdirSync('server/db/migrations')
      .filter((f) => f.endsWith('.sql'))
      .sort();
    expect(files).toEqual(journal.entries.map((e) => `${e.tag}.sql`));
    expect(files.map((f) => Number(f.slice(0, 4)))).toEqual(files.map((_, i) => i));
  });
});

describe('refusals', () => {
  test('the database’s code is found through wrappers', () => {
    const cause = Object.assign(new Error('duplicate key'), { code: '23505', constraint: 'reading_pkey' });
    expect(databaseCode(new Error('query failed', { cause }))).toEqual({ code: '23505', constraint: 'reading_pkey' });
    expect(databaseCode(Object.assign(new Error('x'), { code: 'ECONNREFUSED' }))).toBeNull();
    expect(databaseCode('text')).toBeNull();
  });
  test('carry status, path and words', () => {
    expect(refuse('t', [{ path: '/a', message: 'm' }], 409)).toMatchObject({
      ok: false,
      error: { status: 409, detail: '/a: m' },
    });
    expect(notFound('job', '/jobId').error).toMatchObject({
      status: 404,
      errors: [{ path: '/jobId', message: 'There is no such job.' }],
    });
  });
});
