import { spawnSync } from 'node:child_process';

/**
 * Two clusters of this machine, in a shell: the first is killed without warning in the middle of being
 * written.
 */
const SCRIPT = `
set -euo pipefail
. scripts/lib.sh; . scripts/pg.sh
unset DATABASE_URL
export pg_name=sbtest
clean() { pg_remove; pg_name=sbtest-standby; pg_remove; }
(clean) >/dev/null 2>&1 || true
trap '(clean) >/dev/null 2>&1 || true' EXIT
pg_start >/dev/null
bin=$(pg_bin)
"$bin/psql" -qX "$DATABASE_URL" -c 'create table written (n int primary key)'
bash scripts/standby.sh make --sync
bash scripts/standby.sh status
bash scripts/standby.sh promote >/dev/null 2>&1 && echo 'PROMOTED WHILE THE FIRST RUNS'
# Each row that psql says is stored is noted; then the first one is killed, whatever it is doing.
( n=0; while "$bin/psql" -qX "$DATABASE_URL" -c "insert into written values ($n)" 2>/dev/null; do echo "$n"; n=$((n + 1)); done ) >"$1" &
writer=$!
sleep 3
kill -9 "$(pg_as sed -n 1p "$(pg_home)/data/postmaster.pid")"
wait "$writer" || true
for _ in $(seq 1 50); do pg_running "$(pg_home)" || break; sleep 0.1; done
out=$(bash scripts/standby.sh promote)
url=$(printf '%s\\n' "$out" | sed -n "s/.*DATABASE_URL='\\([^']*\\)'.*/\\1/p")
echo "accepted $(wc -l <"$1")"
echo "missing $("$bin/psql" -qXAt "$url" -c "select count(*) from (values $(sed 's/.*/(&)/' "$1" | paste -sd,)) v(n) where not exists (select 1 from written w where w.n = v.n)")"
"$bin/psql" -qXAt "$url" -c "insert into written values (-1) returning 'takes what is written'"
bash scripts/standby.sh status
`;

test('a standby follows, takes the place of a killed database, and has all that was accepted', () => {
  const { stdout, stderr, status } = spawnSync(
    'bash',
    ['-c', SCRIPT, 'standby', `/tmp/mudflat-standby-${process.pid}`],
    {
      encoding: 'utf8',
      // Sourced scripts pick the workshop's installation where there is one: here it is a cluster of the
      // test.
      env: { ...process.env, MUDFLAT_PG_NAME: 'sbtest' },
      timeout: 110_000,
    },
  );
  expect({ status, stderr: status === 0 ? '' : stderr }).toEqual({ status: 0, stderr: '' });
  expect(stdout).toContain('it follows;');
  expect(stdout).not.toContain('PROMOTED WHILE THE FIRST RUNS');
  expect(Number(/accepted (\d+)/.exec(stdout)?.[1])).toBeGreaterThan(5);
  expect(stdout).toContain('missing 0\n');
  expect(stdout).toContain('takes what is written');
  expect(stdout).toContain('it is the database now');
});
