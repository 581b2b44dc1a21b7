import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** A project's folder with nothing in it but its scripts and a process that looks like its web server. */
function project(): { folder: string; server: ChildProcess } {
  const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-server-'));
  cpSync('scripts', path.join(folder, 'scripts'), { recursive: true });
  mkdirSync(path.join(folder, '.data'));
  const server = spawn('bash', ['-c', 'exec -a "web/server.mjs" sleep 60'], { cwd: folder, stdio: 'ignore' });
  writeFileSync(path.join(folder, '.data/server.pid'), `${server.pid}\n`);
  return { folder, server };
}
const inFolder = (folder: string, script: string) =>
  spawnSync('bash', ['-euc', `. scripts/lib.sh; . scripts/server.sh; ${script}`], { cwd: folder, encoding: 'utf8' });
const alive = (child: ChildProcess): boolean => child.exitCode === null && child.signalCode === null;
const ended = async (child: ChildProcess): Promise<void> => {
  for (let i = 0; i < 100 && alive(child); i++) await new Promise((r) => setTimeout(r, 20));
};

test('the server of this folder is found and stopped', async () => {
  const { folder, server } = project();
  expect(inFolder(folder, 'server_pid').stdout).toBe(String(server.pid));
  expect(inFolder(folder, 'server_stop').status).toBe(0);
  await ended(server);
  expect(alive(server)).toBe(false);
});

test('a copied folder leaves the server of the original alone, and forgets its number', () => {
  const { folder, server } = project();
  const copy = `${folder}-copy`;
  cpSync(folder, copy, { recursive: true });
  try {
    expect(inFolder(copy, 'server_pid').status).not.toBe(0);
    expect(inFolder(copy, 'server_stop').status).toBe(0);
    expect(alive(server)).toBe(true);
    expect(existsSync(path.join(copy, '.data/server.pid'))).toBe(false);
    expect(inFolder(folder, 'server_pid').stdout).toBe(String(server.pid));
  } finally {
    server.kill();
  }
});
