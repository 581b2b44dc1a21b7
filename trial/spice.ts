import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** One operating point: the cards of a netlist, and what is wanted of it: `v(n1)`, `i(vm)`. */
export interface Sheet {
  readonly cards: readonly string[];
  readonly wanted: readonly string[];
}

const AT_ONCE = 300;

/** Vehicles that were solved before, by the content of their sheets: the same seeds draw them again. */
const KEPT = '.data/trial';
const isSolved = (value: unknown): value is Record<string, number> => typeof value === 'object' && value !== null;

/** What is wanted of each sheet, by its name, by ngspice; `null` where it finds no operating point. */
export async function solveSheets(sheets: readonly Sheet[]): Promise<(ReadonlyMap<string, number> | null)[]> {
  const file = path.join(KEPT, createHash('sha256').update(JSON.stringify(sheets)).digest('hex'));
  const known: unknown = await readFile(file, 'utf8').then(JSON.parse, () => null);
  if (Array.isArray(known)) return known.map((k) => (isSolved(k) ? new Map(Object.entries(k)) : null));
  const out: (ReadonlyMap<string, number> | null)[] = [];
  for (let at = 0; at < sheets.length; at += AT_ONCE) out.push(...(await solveBatch(sheets.slice(at, at + AT_ONCE))));
  await mkdir(KEPT, { recursive: true });
  await writeFile(file, JSON.stringify(out.map((o) => o && Object.fromEntries(o))));
  return out;
}

async function solveBatch(sheets: readonly Sheet[]): Promise<(ReadonlyMap<string, number> | null)[]> {
  const folder = await mkdtemp(path.join(tmpdir(), 'mudflat-trial-'));
  try {
    const control: string[] = [];
    for (const [i, { cards, wanted }] of sheets.entries()) {
      const file = path.join(folder, `c${i}.cir`);
      await writeFile(file, [`sheet ${i}`, ...cards, '.options gmin=1e-13', '.end', ''].join('\n'));
      control.push(`source ${file}`, 'op', `echo SHEET ${i}`, `print ${wanted.join(' ')}`, 'destroy all', 'remcirc');
    }
    const script = path.join(folder, 'all.cir');
    await writeFile(script, ['all', '.control', 'set numdgt=9', ...control, 'quit', '.endc', '.end', ''].join('\n'));
    const text = await run(script);
    const found = new Map<number, ReadonlyMap<string, number>>();
    const parts = text.split(/^SHEET (\d+)$/m).slice(1);
    for (let k = 0; k < parts.length; k += 2) {
      const values = [...(parts[k + 1] ?? '').matchAll(/^([vi]\(\S+\)) = (\S+)/gm)];
      found.set(Number(parts[k]), new Map(values.map(([, name = '', value]) => [name, Number(value)])));
    }
    return sheets.map(({ wanted }, i) => {
      const one = found.get(i);
      return one && wanted.every((n) => Number.isFinite(one.get(n))) ? one : null;
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const run = (script: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const child = spawn('ngspice', ['-b', script], { stdio: ['ignore', 'pipe', 'ignore'] });
    const chunks: Buffer[] = [];
    child.stdout.on('data', (b: Buffer) => chunks.push(b));
    child.on('error', (cause) => reject(new Error('ngspice is needed here', { cause })));
    child.on('close', () => resolve(Buffer.concat(chunks).toString('utf8')));
  });
