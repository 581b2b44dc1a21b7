import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { connect, type Connection, migrateDatabase } from '../server/db';
import { loadDemo } from './load';

export interface TestDatabase extends Connection {
  readonly url: string;
  readonly drop: () => Promise<void>;
}

/** A database of its own on the server of DATABASE_URL, migrated, with the demo fleet if asked. For tests. */
export async function makeTestDatabase(withDemo = true): Promise<TestDatabase> {
  const base = process.env.DATABASE_URL;
  if (!base) throw new Error('DATABASE_URL is not set: run the tests with ./mudflat test');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = async (sql: string): Promise<void> => {
    const client = new pg.Client({ connectionString: base });
    await client.connect();
    await client.query(sql).finally(() => client.end());
  };
  await admin(`create database ${name}`);
  const url = new URL(base);
  url.pathname = `/${name}`;
  const connection = connect(url.href);
  await migrateDatabase(connection);
  if (withDemo) await loadDemo(connection.db);
  const drop = async (): Promise<void> => {
    await connection.pool.end();
    await admin(`drop database ${name} with (force)`);
  };
  return { ...connection, url: url.href, drop };
}
