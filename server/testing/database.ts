import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { connect, type Connection, type Db, migrateDatabase } from '../db/connection';
import { loadWorkshop } from './workshop';

export interface TestDatabase extends Connection {
  readonly url: string;
  readonly drop: () => Promise<void>;
}

/** What a database of the tests holds, loaded once and copied. */
export interface Content {
  readonly name: string;
  readonly load: (db: Db) => Promise<void>;
}

/** Tables, and nothing in them. */
export const EMPTY: Content = { name: 'empty', load: () => Promise.resolve() };
const WORKSHOP: Content = { name: 'workshop', load: loadWorkshop };

/** Generous: a busy machine is no failure. */
const WAIT_ms = 120_000;

/** Runs SQL on a connection of its own. */
async function admin(url: string, ...sql: string[]): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    for (const text of sql) await client.query(text);
  } finally {
    await client.end();
  }
}

const within = (base: string, name: string): string => {
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.href;
};

/**
 * Made once per run of the tests, whoever comes first; the others wait, then copy it. Named by
 * MUDFLAT_TEST_RUN, or by this process's parent.
 */
export async function templateOf(base: string, content: Content): Promise<string> {
  const name = `template_${process.env.MUDFLAT_TEST_RUN ?? process.ppid}_${content.name}`;
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock(7210472)');
    const found = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (found.rowCount) return name;
    await client.query(`create database ${name}_making`);
    const connection = connect(within(base, `${name}_making`), WAIT_ms);
    try {
      await migrateDatabase(connection);
      await content.load(connection.db);
    } finally {
      await connection.pool.end();
    }
    await client.query(`alter database ${name}_making rename to ${name}`);
    return name;
  } finally {
    await client.end();
  }
}

/**
 * A database of its own on the server of DATABASE_URL, migrated, with the small workshop of the tests unless
 * other content is asked for.
 */
export async function makeTestDatabase(content: Content = WORKSHOP): Promise<TestDatabase> {
  const base = process.env.DATABASE_URL;
  if (!base) throw new Error('DATABASE_URL is not set: run the tests with ./mudflat test');
  const template = await templateOf(base, content);
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await admin(base, `select pg_advisory_lock(7210473)`, `create database ${name} template ${template}`);
  const url = within(base, name);
  const connection = connect(url, WAIT_ms);
  const drop = async (): Promise<void> => {
    await connection.pool.end();
    await admin(base, `drop database ${name} with (force)`);
  };
  return { ...connection, url, drop };
}
