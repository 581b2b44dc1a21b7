import { OwnServer } from '../e2e/server';
import { loadDemo } from '../demo/load';
import { connect, migrateDatabase } from '../server/db/connection';
import { benchBest } from './best';
import { benchJudging } from './judging';
import { machine } from './measure';
import { benchMixed, benchShelf } from './mixed';
import { benchLongJob, benchPlan, benchYard } from './records';
import { benchReport } from './report';
import { benchScreen } from './screen';
import { benchDiagnosis, benchSets, benchSolver, benchTrial } from './trial';
import { benchWrites } from './writes';

/** Prints measurements with their targets; judges nothing. */
async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: run npm run bench');
  process.stdout.write(`${machine()}\n`);
  benchJudging();
  benchMixed();
  benchShelf();
  benchSolver();
  benchDiagnosis();
  benchBest();
  benchTrial();
  benchSets();
  const connection = connect(url);
  await migrateDatabase(connection);
  await loadDemo(connection.db);
  benchPlan();
  await benchLongJob(connection.db);
  await benchYard(connection.db);
  await connection.pool.end();
  const server = new OwnServer(4183);
  await server.start();
  try {
    await benchWrites(server.base, url);
    await benchScreen(server.base);
    const again = connect(url);
    await benchReport(again.db, server.base);
    await again.pool.end();
  } finally {
    await server.stop();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});
