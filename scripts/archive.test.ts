import { spawnSync } from 'node:child_process';

/**
 * A cluster of the test: rows before and after a moment, back to it, and what happens where that cannot be.
 */
const SCRIPT = `
set -euo pipefail
. scripts/lib.sh; . scripts/pg.sh
unset DATABASE_URL
pg_name=artest
trap 'pg_remove >/dev/null 2>&1 || true' EXIT
pg_remove >/dev/null 2>&1 || true
pg_start >/dev/null
ask() { "$(pg_bin)/psql" -qXAt "$DATABASE_URL" -c "$1"; }
archive() { env -u DATABASE_URL bash scripts/archive.sh "$@" </dev/null; }
refused() { local said; if said=$(archive "$@" 2>&1); then echo "NOT REFUSED: $*"; else echo "refused: $(tail -n 1 <<<"$said")"; fi; }
ask 'create table written (what text)'
ask "insert into written values ('before it was on')"
refused status
archive on "$(pg_home)/kept away" >/dev/null
archive status
ask "insert into written values ('good')"
sleep 2
moment=$(date '+%Y-%m-%d %H:%M:%S')
sleep 2
ask "delete from written"
ask "insert into written values ('a mistake')"
refused back 'the day before the flood'
refused back '2199-01-01'
refused back '2001-01-01 12:00'
echo "after what was refused: $(ask 'select string_agg(what, $$, $$) from written')"
archive back "$moment" >/dev/null
echo "back: $(ask 'select string_agg(what, $$, $$ order by what) from written')"
ask "insert into written values ('goes on')"
archive status
# Set aside, not thrown away: the database of before can be started.
for aside in $(pg_as ls "$(pg_home)" | grep '^data-'); do echo aside; done
archive off >/dev/null
echo "off: $(ask 'show archive_mode') $(ask 'select count(*) from written')"
`;

test('back to a moment between two writes; where that cannot be, nothing is changed', () => {
  const { stdout, stderr, status } = spawnSync('bash', ['-c', SCRIPT], {
    encoding: 'utf8',
    env: { ...process.env, MUDFLAT_PG_NAME: 'artest' },
    timeout: 170_000,
  });
  expect({ status, stderr: status === 0 ? '' : stderr }).toEqual({ status: 0, stderr: '' });
  const lines = stdout.trim().split('\n');
  expect(stdout).not.toContain('NOT REFUSED');
  expect(lines.filter((l) => l.startsWith('refused')).map((l) => l.replace(/\s+/g, ' '))).toEqual([
    expect.stringContaining('./mudflat archive on'),
    expect.stringContaining("'2026-11-29 14:00'"),
    expect.stringContaining('not in the past'),
    expect.stringContaining('The database is as it was before'),
  ]);
  expect(lines).toContain('after what was refused: a mistake');
  expect(lines).toContain('back: before it was on, good');
  expect(lines.filter((l) => l === 'aside')).toHaveLength(1);
  expect(lines.filter((l) => l.includes('One can go back to any moment since'))).toHaveLength(2);
  expect(lines.at(-1)).toBe('off: off 3');
}, 180_000);
