import { spawn, spawnSync } from 'node:child_process';
import { appendFileSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createInterface } from 'node:readline';
import pg from 'pg';
import { percentile, report } from './measure';

/** So many times the power goes while readings are written. */
const CUTS = Number(process.env.MUDFLAT_CUTS ?? 8);
const DISK = '3G';
const MEMORY = '1536M';
const START_ms = 300_000;
/** After the first answer it goes at some moment between these. */
const LEAST_ms = 300;
const MOST_ms = 12_000;
/** As the clusters that tests make and throw away: what counts as written is not on the disk. */
const HASTY = '-c fsync=off -c synchronous_commit=off -c full_page_writes=off';

const ENDS = ['SIGINT', 'SIGTERM'] as const;

/** A file for all that the machine writes, where somebody wants to see it. */
const CONSOLE = process.env.MUDFLAT_MACHINE_LOG;

/** What is known outside of the machine, and what it is made of. */
interface Outside {
  readonly folder: string;
  readonly settings: readonly string[];
  /** Sent and not answered, as a tablet keeps it: the line by its id. */
  readonly waiting: Map<string, string>;
  readonly accepted: Set<string>;
}

/** What a machine says of its disk when it has started. */
interface Told {
  readonly stored: ReadonlySet<string>;
  readonly storedTwice: number;
  readonly broken: number;
  readonly start_ms: number;
}

/**
 * The power goes, for real: database and server run in a machine of their own (user-mode Linux) with a disk
 * of its own, and the whole machine is killed while readings are written, with all that it had not flushed to
 * that disk. Started again, every accepted reading must be there, each once, and every trail intact; what was
 * not answered is sent again. The cut at the end shows that this can fail: there the database does not wait
 * for its disk.
 */
export async function benchPower(url: string): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-power-'));
  try {
    const outside = await makeMachine(folder, url);
    const told: Told[] = [];
    for (let cut = 0; cut < CUTS; cut++)
      told.push(await runMachine(outside, LEAST_ms + Math.random() * (MOST_ms - LEAST_ms)));
    told.push(await runMachine(outside, null));
    tell(`power cuts`, CUTS, outside, told.slice(1));
    const starts = told.slice(1).map((t) => t.start_ms);
    report('from power on to the first page, median', percentile(starts, 0.5) / 1000, 's', null);

    const before = outside.accepted.size;
    await runMachine(outside, MOST_ms, HASTY);
    const after = await runMachine(outside, null, HASTY).catch((error: unknown) => String(error));
    report('without waiting for the disk: accepted before a cut', outside.accepted.size - before, '', null);
    if (typeof after === 'string') process.stdout.write(`and then: ${after}\n`);
    else report('of these lost', lost(outside, after), '', null);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const lost = ({ accepted }: Outside, { stored }: Told): number => [...accepted].filter((id) => !stored.has(id)).length;

function tell(what: string, cuts: number, outside: Outside, told: readonly Told[]): void {
  const last = told.at(-1);
  if (!last) throw new Error('no machine said anything');
  report(what, cuts, '', null);
  report('readings accepted before them', outside.accepted.size, '', null);
  report('accepted and lost', lost(outside, last), '', null);
  report('stored twice', last.storedTwice, '', null);
  report('trails that are not intact', Math.max(...told.map((t) => t.broken)), '', null);
}

/** The cluster as it is, stopped, on a disk image; and what the machine has to know. */
async function makeMachine(folder: string, url: string): Promise<Outside> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<{ home: string }>(`select current_setting('data_directory') as home`);
  await client.end();
  const data = rows[0]?.home ?? '';
  const cluster = (what: string): string =>
    must('bash', ['-euc', `. scripts/lib.sh; . scripts/pg.sh; pg_name=bench; ${what}`]).trim();
  cluster('pg_stop');
  const { uid, gid } = statSync(data);
  must('mke2fs', [
    '-q',
    '-t',
    'ext4',
    '-E',
    'lazy_itable_init=0,lazy_journal_init=0',
    '-d',
    path.dirname(data),
    path.join(folder, 'disk'),
    DISK,
  ]);
  const own = {
    DATABASE_URL: url,
    MUDFLAT_MACHINE: folder,
    NODE_ENV: 'production',
    PORT: '4180',
    MUDFLAT_WORKERS: '1',
  };
  const kept = ['MUDFLAT_SECRET', 'MUDFLAT_DIST'].map((name) => [name, process.env[name] ?? ''] as const);
  const settings = [
    ...Object.entries({ uid, gid, pg: cluster('pg_bin'), path: SYSTEM_PATH, folder: process.cwd() }).map(
      ([name, value]) => `machine_${name}='${value}'`,
    ),
    ...[...Object.entries(own), ...kept].map(([name, value]) => `export ${name}='${value}'`),
  ];
  return { folder, settings, waiting: new Map(), accepted: new Set() };
}
const SYSTEM_PATH = `${process.env.PATH ?? ''}:/usr/sbin:/sbin`;

function must(command: string, args: readonly string[]): string {
  const done = spawnSync(command, args, { encoding: 'utf8', env: { ...process.env, PATH: SYSTEM_PATH } });
  if (done.status !== 0) throw new Error(`${command}: ${done.error?.message ?? done.stderr}`);
  return done.stdout;
}

/**
 * Starts the machine, lets it say what its disk holds, and kills it: `cut_ms` after the first answer, or at
 * once where it is null. Throws where the machine does not come so far.
 */
function runMachine(outside: Outside, cut_ms: number | null, options = ''): Promise<Told> {
  const { folder, settings, waiting, accepted } = outside;
  writeFileSync(path.join(folder, 'settings'), [...settings, `machine_pg_options='${options}'`, ''].join('\n'));
  writeFileSync(path.join(folder, 'waiting.json'), `[${[...waiting.values()].join()}]`);
  const began = performance.now();
  const machine = spawn(
    'linux.uml',
    [
      ...[`mem=${MEMORY}`, `ubd0=${path.join(folder, 'disk')}`, 'con0=null,fd:1', 'con=null', 'ssl=null', 'quiet'],
      ...['root=/dev/root', 'rootfstype=hostfs', 'rootflags=/', 'ro', `init=${path.resolve('bench/power-machine.sh')}`],
      `MUDFLAT_MACHINE=${folder}`,
    ],
    { detached: true, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  let [isToBeCut, isOver] = [false, false];
  // All of it: the processes of the machine are processes of this one.
  const cut = (): void => {
    if (machine.pid !== undefined && !isOver) process.kill(-machine.pid, 'SIGKILL');
  };
  // It would outlive whoever ends this bench by hand.
  const giveUp = (): void => {
    cut();
    process.exit(1);
  };
  for (const signal of ENDS) process.once(signal, giveUp);
  const stored = new Set<string>();
  const places = new Set<string>();
  let [rows, broken, start_ms] = [0, 0, NaN];
  let problem: string | null = null;
  const hear: Readonly<Record<string, (words: readonly string[]) => void>> = {
    stored: ([id = '', place = '']) => {
      rows += 1;
      stored.add(id);
      places.add(place);
    },
    trail: ([, state]) => {
      if (state !== 'intact') broken += 1;
    },
    told: () => {
      start_ms = performance.now() - began;
      if (cut_ms === null) cut();
    },
    sent: (words) => {
      const line = words.join(' ');
      waiting.set((JSON.parse(line) as { id: string }).id, line);
    },
    accepted: ([id = '']) => {
      waiting.delete(id);
      accepted.add(id);
      if (cut_ms !== null && !isToBeCut) setTimeout(cut, cut_ms);
      isToBeCut = true;
    },
    problem: (words) => {
      problem = words.join(' ');
      cut();
    },
  };
  createInterface(machine.stdout).on('line', (line) => {
    const [word = '', ...words] = line.trim().split(' ');
    if (CONSOLE) appendFileSync(CONSOLE, `${line}\n`);
    if (word.startsWith('#')) hear[word.slice(1)]?.(words);
  });
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => hear.problem?.([`it has not started after ${START_ms / 1000} s`]), START_ms);
    machine.once('error', reject);
    machine.once('close', () => {
      isOver = true;
      for (const signal of ENDS) process.off(signal, giveUp);
      clearTimeout(late);
      if (problem !== null || Number.isNaN(start_ms)) reject(new Error(problem ?? 'the machine ended by itself'));
      else resolve({ stored, storedTwice: rows - places.size, broken, start_ms });
    });
  });
}
