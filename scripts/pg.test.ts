import { spawnSync } from 'node:child_process';

/** A piece of shell with the scripts' own functions and a cluster of its own, which is removed behind it. */
function shell(name: string, script: string): string {
  const { stdout, stderr, status } = spawnSync(
    'bash',
    [
      '-c',
      `set -euo pipefail
      . scripts/lib.sh; . scripts/pg.sh
      unset DATABASE_URL
      home_of_test=$(pg_name=${name}; pg_home)
      pg_home() { printf '%s' "$home_of_test"; }
      trap 'pg_remove >/dev/null 2>&1 || true' EXIT
      pg_remove >/dev/null 2>&1 || true
      ask() { "$(pg_bin)/psql" -qXAt "$DATABASE_URL" -c "$1"; }
      settings() { ask "select string_agg(setting, ' ' order by name) from pg_settings where name in ('data_checksums', 'fsync', 'full_page_writes', 'synchronous_commit')"; }
      ${script}`,
    ],
    { encoding: 'utf8', timeout: 100_000 },
  );
  expect({ status, stderr: status === 0 ? '' : stderr }).toEqual({ status: 0, stderr: '' });
  return stdout;
}

describe('what counts as written outlasts a power cut', () => {
  test('in the cluster of a workshop and of the demo from the beginning, and not in those of tests', () => {
    const said = shell(
      'pgtest',
      `for pg_name in own main; do pg_start >/dev/null; echo "$pg_name: $(settings)"; pg_remove >/dev/null; done
       pg_name=pgtest; pg_start >/dev/null; echo "$pg_name: $(settings)"
       for pg_name in own-standby main-standby bench; do pg_is_lasting && echo "$pg_name lasts" || echo "$pg_name does not"; done`,
    );
    expect(said.trim().split('\n')).toEqual([
      'own: on on on on',
      'main: on on on on',
      'pgtest: off off off off',
      'own-standby lasts',
      'main-standby lasts',
      'bench does not',
    ]);
  });

  test('a workshop’s cluster that was made otherwise is mended when it is started, and while it runs', () => {
    const said = shell(
      'pgtest2',
      `pg_name=pgtest2; pg_start >/dev/null; echo "$(settings)"
       ask "create table kept (n int)"; ask "insert into kept values (7)"
       pg_name=own; pg_start; echo "$(settings) $(ask 'select n from kept')"
       grep -cE '^(fsync|synchronous_commit|full_page_writes) = off' "$home_of_test/data/postgresql.conf" || true
       printf 'fsync = off\\n' | pg_as tee -a "$home_of_test/data/postgresql.conf" >/dev/null
       pg_stop >/dev/null; pg_start >/dev/null; echo "$(settings) $(ask 'select n from kept')"`,
    );
    expect(said.trim().split('\n')).toEqual(['off off off off', 'off on on on 7', '0', 'off on on on 7']);
  });
});
