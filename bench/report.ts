import sharp from 'sharp';
import { v7 } from 'uuid';
import { demoId } from '../demo/load';
import type { Db } from '../server/db/connection';
import { addPhoto } from '../server/evidence/photos';
import { recordReading } from '../server/readings/record-reading';
import { percentile, report } from './measure';
import { signIn } from './writes';
import { openJob, startRun } from '../server/jobs/open-job';

const RUNS = 25;
const PHOTOS = 12;

/** A job of 200 readings and 12 photos as PDF, asked for over HTTP. */
export async function benchReport(db: Db, base: string): Promise<void> {
  const jobId = v7();
  await openJob(db, { id: jobId, unitId: demoId('unit', 'PL-23'), complaint: 'bench of the report', by: 'Ines Varga' });
  for (let r = 0; r < RUNS; r++) {
    const run = v7();
    await startRun(db, { id: run, jobId, test: 'glow-plug-resistance', by: 'Ines Varga' });
    for (let n = 1; n <= 8; n++)
      await recordReading(db, run, {
        id: v7(),
        position: n,
        entry: n === 5 ? '201' : '0.6',
        by: 'Ines Varga',
        takenAt: new Date().toISOString(),
      });
  }
  const bytes = await sharp({
    create: {
      width: 2000,
      height: 1500,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .jpeg()
    .toBuffer();
  for (let p = 0; p < PHOTOS; p++) await addPhoto(db, jobId, { id: v7(), name: `p${p}.jpg`, by: 'Ines Varga', bytes });
  const cookie = await signIn(base);
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const from = performance.now();
    const response = await fetch(`${base}/api/jobs/${jobId}/report?voice=file`, { headers: { cookie } });
    if (!response.ok) throw new Error(await response.text());
    await response.arrayBuffer();
    times.push(performance.now() - from);
  }
  report('report of 200 readings and 12 photos, first time', times[0] ?? NaN, 'ms', null);
  report('  after that, median', percentile(times.slice(1), 0.5), 'ms', 2000);
}
