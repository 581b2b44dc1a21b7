import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { asFor, PLAIN, type Reader } from '../core/locale/locale';
import { FILES, type FileKind } from '../formats/files';
import type { ReadingQuestion } from '../server/files/read-beside';
import { ReadingThreads } from './reading.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-reading-'));
afterAll(() => rmSync(folder, { recursive: true }));
const made = path.join(folder, 'reading.cjs');
const reader: Reader = { locale: PLAIN, words: null };
const asking = (text: string, kind: FileKind = 'units'): ReadingQuestion => ({ kind, given: [text], reader });

/** A thread that does this instead of reading. */
function threadThat(does: string): string {
  const file = path.join(folder, `${does.length}-${Math.random()}.cjs`);
  writeFileSync(file, does);
  return file;
}

describe('a thread that reads files', () => {
  beforeAll(() => {
    buildSync({
      entryPoints: ['workers/reading.thread.ts'],
      outfile: made,
      bundle: true,
      platform: 'node',
      format: 'cjs',
      logLevel: 'error',
    });
  });

  test('reads each kind as it is read here, for whoever reads; nothing is held up meanwhile', async () => {
    const threads = new ReadingThreads(made);
    const list = `fleet_number,kind,depot,family\n${'PL-1,Tipper,Quay Yard,\n'.repeat(4_000)}`;
    let turns = 0;
    const ticking = setInterval(() => (turns += 1), 5);
    const answer = await threads.read(asking(list));
    clearInterval(ticking);
    expect(answer).toEqual({ read: FILES.units(list) });
    expect(turns).toBeGreaterThan(3);
    for (const kind of Object.keys(FILES) as FileKind[]) {
      const here = (FILES[kind] as (text: string) => unknown)('{}');
      expect([kind, await threads.read(asking('{}', kind))]).toEqual([kind, { read: here }]);
    }
    const words = { 'At most {0} characters.': '[most {0}]' };
    const other: Reader = { locale: { ...PLAIN, language: 'xx' }, words };
    const wrong = `fleet_number,kind,depot,family\n${'x'.repeat(50)},,c,d`;
    const forOther = await threads.read({ ...asking(wrong), reader: other });
    expect(forOther).toEqual({ read: asFor(other, () => FILES.units(wrong)) });
    expect(forOther).toMatchObject({ read: { error: [{ message: '[most 30]' }, {}] } });
  });

  test('a file that takes too long or too much memory ends with its thread, and the next one is read', async () => {
    const endless = new ReadingThreads(threadThat('for (;;);'), { most_ms: 300 });
    expect(await Promise.all([1, 2, 3].map(() => endless.read(asking('x'))))).toEqual(Array(3).fill({ ended: 'time' }));
    const greedy = threadThat('const all = []; for (;;) all.push(new Array(1000).fill({}));');
    expect(await new ReadingThreads(greedy, { most_MB: 16 }).read(asking('x'))).toEqual({ ended: 'memory' });
    expect(await new ReadingThreads(made).read(asking('{}', 'limits'))).toEqual({ read: FILES.limits('{}') });
  });

  test('a thread that fails or goes away without a word tells whoever asked', async () => {
    await expect(new ReadingThreads(threadThat('throw new Error("broken")')).read(asking('x'))).rejects.toThrow(
      'broken',
    );
    await expect(new ReadingThreads(threadThat('process.exit(3)')).read(asking('x'))).rejects.toThrow('ended with 3');
  });
});
