import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { CIRCUITS } from '../core/circuits/library';
import { type CaseContext, circuitsInQuestion, contextOf, PredictionCache, weighOne } from '../core/diagnosis/case';
import { PLAIN, type Reader } from '../core/locale/locale';
import { WeighingThread } from './weighing.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-weighing-'));
afterAll(() => rmSync(folder, { recursive: true }));
const made = path.join(folder, 'weighing.mjs');

const CASE = {
  wiring: { cylinders: 4, systemVoltage_V: 12 },
  circuits: CIRCUITS,
  measured: [15, 15, 0].map((value, i) => ({
    test: 'glow-plug-current',
    position: i + 1,
    kind: 'value' as const,
    value,
    u: 0.02,
  })),
  observed: [],
  coded: [3],
  areas: [],
  history: { findings: [], renewed: [], conditions: [], hours: null },
  warm: false,
};
const threads: WeighingThread[] = [];
const threadOf = (file: string): WeighingThread => {
  const thread = new WeighingThread(file);
  threads.push(thread);
  return thread;
};
afterAll(() => Promise.all(threads.map((t) => t.close())));
const [asked] = circuitsInQuestion(CASE);
const context = contextOf(CASE);
const reader: Reader = { locale: PLAIN, words: null };

describe('the thread that weighs circuits', () => {
  beforeAll(() => {
    buildSync({
      entryPoints: ['workers/weighing.thread.ts'],
      outfile: made,
      bundle: true,
      platform: 'node',
      format: 'esm',
    });
  });

  test('weighs as it is weighed here, for whoever reads; nothing is held up meanwhile', async () => {
    const thread = threadOf(made);
    let turns = 0;
    const ticking = setInterval(() => (turns += 1), 5);
    const weighed = await thread.ask({ asked: asked!, context, reader });
    clearInterval(ticking);
    expect(turns).toBeGreaterThan(3);
    expect(weighed).toEqual(weighOne(asked!, context, new PredictionCache()));
    const other = { locale: { ...PLAIN, language: 'xx' }, words: { 'if all is well': '[all well]' } };
    const inOther = await thread.ask({ asked: asked!, context, reader: other });
    expect(inOther.expected[0]?.readings[0]?.when).toBe('[all well]');
    expect((await thread.ask({ asked: asked!, context, reader })).expected[0]?.readings[0]?.when).toBe(
      'if all is well',
    );
  });

  test('a question that fails is answered with what is wrong, and the next one is weighed', async () => {
    const thread = threadOf(made);
    const wrong = { ...context, history: null } as unknown as CaseContext;
    await expect(thread.ask({ asked: asked!, context: wrong, reader })).rejects.toThrow(/null/);
    expect((await thread.ask({ asked: asked!, context, reader })).circuit.id).toBe('glow-relay');
    // What cannot be sent to a thread at all.
    await expect(
      thread.ask({ asked: asked!, context: { ...context, extra: () => 1 } as CaseContext, reader }),
    ).rejects.toThrow();
  });

  test('a thread that dies says so to all who wait, and the next question starts another', async () => {
    const dying = path.join(folder, 'dying.mjs');
    writeFileSync(
      dying,
      `import { parentPort } from 'node:worker_threads';
       parentPort.on('message', ({ number, asked }) => {
         if (asked === 'exit') process.exit(3);
         if (asked === 'throw') throw new Error('out of luck');
         if (asked !== 'wait') parentPort.postMessage({ number, weighed: asked });
       });`,
    );
    const thread = threadOf(dying);
    const both = [thread.ask({ asked: 'wait' } as never), thread.ask({ asked: 'exit' } as never)];
    for (const one of both) await expect(one).rejects.toThrow('ended with 3');
    await expect(thread.ask({ asked: 'here' } as never)).resolves.toBe('here');
    await expect(thread.ask({ asked: 'throw' } as never)).rejects.toThrow('out of luck');
    await expect(thread.ask({ asked: 'again' } as never)).resolves.toBe('again');
    // Ended on purpose: the same.
    const waiting = thread.ask({ asked: 'wait' } as never);
    await Promise.all([thread.close(), expect(waiting).rejects.toThrow('ended with 1')]);
  });
});
