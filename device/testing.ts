/**
 * Lays a copy into a database as a device does, and prints what each page of it shows: one JSON line a page.
 * For tests.
 *
 *   tsx device/testing.ts < {"copy": …, "pages": ["/", "/jobs/…"]}
 */
import { readdirSync, readFileSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import type { DeviceCopy } from '../formats/device-copy';
import { overDevice } from './connection';
import { layIn } from './database';
import { viewAt } from './views';

const MIGRATIONS = 'server/db/migrations';

async function main(): Promise<void> {
  const { copy, pages } = JSON.parse(readFileSync(0, 'utf8')) as { copy: DeviceCopy; pages: readonly string[] };
  const pg = await PGlite.create();
  for (const file of readdirSync(MIGRATIONS)
    .filter((f) => f.endsWith('.sql'))
    .toSorted())
    await pg.exec(readFileSync(`${MIGRATIONS}/${file}`, 'utf8').replaceAll('--> statement-breakpoint', ''));
  await layIn(pg, copy);
  const db = overDevice(pg);
  for (const page of pages) process.stdout.write(`${JSON.stringify(await viewAt(db, page))}\n`);
  await pg.close();
}

void main();
