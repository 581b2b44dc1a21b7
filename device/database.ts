import type { PGlite } from '@electric-sql/pglite';
import type { DeviceCopy } from '../formats/device-copy';

import { FIRST_NUMBER_OF_DEVICE } from '../application/job-number';

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/**
 * Lays a copy into an empty database of the newest schema, as it was: no trigger fires, and what the copy
 * left out of a row is filled with what takes no room.
 */
export async function layIn(pg: PGlite, copy: DeviceCopy): Promise<void> {
  await pg.transaction(async (tx) => {
    await tx.exec(`set local session_replication_role = replica`);
    for (const { name, columns, rows } of copy.tables) {
      const [into, from] = filled(name, columns);
      await tx.query(
        `insert into ${quoted(name)} (${into.join(', ')}) overriding system value
         select ${from.join(', ')} from json_populate_recordset(null::${quoted(name)}, $1::json)`,
        [rows],
      );
    }
  });
  await goOnCounting(pg);
}

/** Of a photo only the small one travels: it stands for the full one here. */
function filled(name: string, columns: readonly string[]): [string[], string[]] {
  const own = columns.map(quoted);
  return name === 'photo_content'
    ? [
        [...own, 'full_size'],
        [...own, 'small_size'],
      ]
    : [own, own];
}

/** What is written here comes after what was copied. */
async function goOnCounting(pg: PGlite): Promise<void> {
  const { rows } = await pg.query<{ table: string; column: string }>(
    `select table_name as "table", column_name as "column" from information_schema.columns
     where table_schema = 'public' and is_identity = 'YES'`,
  );
  for (const { table, column } of rows)
    await pg.query(
      `select setval(pg_get_serial_sequence($1, $2), greatest($3::int, (select coalesce(max(${quoted(column)}), 0) + 1 from ${quoted(table)})), false)`,
      [quoted(table), column, table === 'job' ? FIRST_NUMBER_OF_DEVICE : 1],
    );
}
