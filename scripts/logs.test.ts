import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';

const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-logs-'));
afterAll(() => rmSync(folder, { recursive: true }));
const file = path.join(folder, 'server.log');
const shell = (script: string): string =>
  execFileSync('bash', ['-euo', 'pipefail', '-c', `. scripts/lib.sh; log=${file}; ${script}`], { encoding: 'utf8' });

test('a log is put away, whoever writes goes on in it, and those of eight nights are kept', () => {
  // One process keeps the file open all the time, as the server does.
  shell(
    `exec 3>>"$log"; for night in $(seq 1 11); do echo "night $night" >&3; rotate_log "$log"; done; echo today >&3`,
  );
  expect(readdirSync(folder).toSorted()).toEqual(
    ['server.log', ...Array.from({ length: 8 }, (_, i) => `server.log.${i + 1}.gz`)].toSorted(),
  );
  expect(readFileSync(file, 'utf8')).toBe('today\n');
  for (let n = 1; n <= 8; n++) {
    expect(gunzipSync(readFileSync(`${file}.${n}.gz`)).toString()).toBe(`night ${12 - n}\n`);
    expect(statSync(`${file}.${n}.gz`).mode & 0o777).toBe(0o600);
  }
  // An empty one is not put away, and one that is not there is none.
  shell(`: >"$log"; rotate_log "$log"; rotate_log "$log.other"`);
  expect(gunzipSync(readFileSync(`${file}.1.gz`)).toString()).toBe('night 11\n');
});

test('between two nights only what has grown large is put away', () => {
  const said = shell(`
    . scripts/pg.sh; pg_home() { printf '%s' ${folder}; }; pg_as() { "$@"; }
    web_log=$log
    head -c 1500000 /dev/zero >"$log"; echo small >${folder}/log
    rotate_logs 1; stat -c %s "$log" ${folder}/log
    rotate_logs; stat -c %s "$log" ${folder}/log`);
  expect(said.trim().split('\n')).toEqual(['0', '6', '0', '0']);
});
