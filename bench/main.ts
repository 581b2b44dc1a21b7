import { OwnServer } from '../e2e/server';
import { loadDemo } from '../demo/load';
import { connect, type Db, migrateDatabase } from '../server/db/connection';
import { benchBest } from './best';
import { benchCapture } from './capture';
import { benchFaults } from './faults';
import { benchHostile } from './hostile';
import { benchLarge } from './large';
import { benchLoad } from './load';
import { benchListening } from './listening';
import { benchJudging } from './judging';
import { machine } from './measure';
import { benchMixed, benchShelf } from './mixed';
import { benchLongJob, benchPlan, benchYard } from './records';
import { benchPower } from './power';
import { benchReport } from './report';
import { benchScreen } from './screen';
import { benchDiagnosis, benchSets, benchSolver, benchTrial } from './trial';
import { benchSecondTrial } from './second-trial';
import { benchTouch } from './touch';
import { benchTrace } from './trace';
import { benchTraceScreen } from './trace-screen';
import { benchWrites } from './writes';

/** What needs nothing but the core, by name. */
const CORE: Readonly<Record<string, () => void | Promise<void>>> = {
  'second-trial': benchSecondTrial,
  trace: benchTrace,
  capture: benchCapture,
  touch: benchTouch,
  judging: () => {
    benchJudging();
    benchMixed();
    benchShelf();
  },
  diagnosis: () => {
    benchSolver();
    benchDiagnosis();
    benchBest();
    benchTrial();
    benchSets();
    benchPlan();
  },
};
/** What needs a database, and what needs a server before it too. */
const DATABASE: Readonly<Record<string, (db: Db) => Promise<void>>> = { jobs: benchLongJob, yard: benchYard };
const SERVER: Readonly<Record<string, (base: string, url: string, db: Db, server: OwnServer) => Promise<void>>> = {
  faults: (_, url, __, server) => benchFaults(server, url),
  writes: (base, url, db) => benchWrites(base, url, db),
  hostile: (base) => benchHostile(base),
  large: (base) => benchLarge(base),
  load: (base, _, db) => benchLoad(base, db),
  screen: (base) => benchScreen(base),
  listening: (base) => benchListening(base),
  'trace-screen': (base, _, db) => benchTraceScreen(base, db),
  report: (base, _, db) => benchReport(db, base),
};

/** What stops the database of the benchmarks: it comes last. */
const LAST: Readonly<Record<string, (url: string) => Promise<void>>> = { power: benchPower };

/** Prints measurements with their targets; judges nothing. Without names: all of them. */
async function main(names: readonly string[]): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: run ./mudflat bench');
  const all = [...Object.keys(CORE), ...Object.keys(DATABASE), ...Object.keys(SERVER), ...Object.keys(LAST)];
  const unknown = names.filter((n) => !all.includes(n));
  if (unknown.length) throw new Error(`There is no benchmark ${unknown.join(', ')}; there are ${all.join(', ')}.`);
  const wanted = (name: string): boolean => names.length === 0 || names.includes(name);
  process.stdout.write(`${machine()}\n`);
  for (const [name, run] of Object.entries(CORE)) if (wanted(name)) await run();
  const connection = connect(url);
  await migrateDatabase(connection);
  await loadDemo(connection.db);
  for (const [name, run] of Object.entries(DATABASE)) if (wanted(name)) await run(connection.db);
  const onServer = Object.entries(SERVER).filter(([name]) => wanted(name));
  const server = new OwnServer('bench');
  if (onServer.length) await server.start();
  try {
    for (const [, run] of onServer) await run(server.base, url, connection.db, server);
  } finally {
    if (onServer.length) await server.stop();
    await connection.pool.end();
  }
  for (const [name, run] of Object.entries(LAST)) if (wanted(name)) await run(url);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});
