import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type CDPSession, chromium, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import { blocksOf, toStored } from '../application/traces/stored';
import { encodeBlock } from '../core/signal/block-codec';
import { DEMO_PIN, PERSONS } from '../demo/fleet';
import { demoId } from '../demo/load';
import type { Db } from '../server/db/connection';
import { keepBlock, keepTrace } from '../server/traces/traces';
import { percentile, report } from './measure';
import { BROWSER_ARGS } from './screen';
import { HOURS, readWhole, writeDay } from './trace';

const OPENINGS = 3;
/** Keys pressed one after the other: along the recording, closer, along, and out again. */
const MOVES = [...repeat('ArrowRight', 30), ...repeat('+', 40), ...repeat('ArrowRight', 60), ...repeat('-', 40)];
const FRAME_MS = 1000 / 60;

/** A day of four channels from the server to the screen, and the screen while somebody moves along it. */
export async function benchTraceScreen(base: string, db: Db): Promise<void> {
  const id = await keepDay(db);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: BROWSER_ARGS,
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.request.post(`${base}/api/session/sign-in`, { data: { name: PERSONS[0].name, pin: DEMO_PIN } });
    const page = await context.newPage();
    await page.addInitScript(countScript);
    const opened: number[] = [];
    for (let i = 0; i < OPENINGS; i++) {
      const began = performance.now();
      await page.goto(`${base}/traces/${id}`, { waitUntil: 'commit' });
      await page.locator('[role="img"] canvas').first().waitFor();
      // The lanes are drawn in the frame after the chart is there.
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      opened.push(performance.now() - began);
    }
    report(
      `a recording of ${HOURS} h opened from the server, worst of ${OPENINGS}`,
      Math.max(...opened) / 1000,
      's',
      3,
    );
    await benchMoving(page, await context.newCDPSession(page));
  } finally {
    await browser.close();
  }
}

async function keepDay(db: Db): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'mudflat-bench-'));
  try {
    const file = join(folder, 'day.csv');
    writeDay(file);
    const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
    const columns = ['a', 'b', 'c', 'd'].map((column) => ({
      column,
      name: column,
      unit: 'V',
      role: 'sensor' as const,
      factor: 1,
    }));
    const bytes = readFileSync(file);
    const original = { name: 'day.csv', size: bytes.length, sha256: sha256(bytes) };
    const { head, streams } = toStored(readWhole(file), columns, original, (b) => sha256(encodeBlock(b)));
    const id = v7();
    must(await keepTrace(db, demoId('job', 'PL-22'), { id, by: PERSONS[0].name, name: 'A day', head }));
    for (const [stream, samples] of streams.entries())
      for (const [number, block] of blocksOf(samples).entries())
        must(await keepBlock(db, id, stream, number, deflateRawSync(encodeBlock(block))));
    return id;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function must(done: { readonly ok: boolean }): void {
  if (!done.ok) throw new Error(`The recording was not kept: ${JSON.stringify(done)}`);
}

interface Frames {
  /** Script of each frame in which something was drawn, ms. */
  readonly script: number[];
  /** Moments of all frames, ms. */
  readonly at: number[];
}

async function benchMoving(page: Page, session: CDPSession): Promise<void> {
  const rest = await framesDuring(page, () => page.waitForTimeout(3000));
  await session.send('Performance.enable');
  const before = await scriptTime_ms(session);
  const { script, at } = await framesDuring(page, async () => {
    for (const key of MOVES) await page.keyboard.press(key);
  });
  const all = (await scriptTime_ms(session)) - before;
  if (script.length < MOVES.length / 4) throw new Error('hardly a frame was drawn: the measurement says nothing');
  report(
    `moving along it: script of a frame drawn, mean of ${script.length}`,
    script.reduce((a, b) => a + b, 0) / script.length,
    'ms',
    2,
  );
  report('… worst', Math.max(...script), 'ms', 16);
  report('… all script of the page, for each key pressed', all / MOVES.length, 'ms', null);
  report('… frames a second, median', 1000 / percentile(gapsOf(at), 0.5), '', 60, false);
  report('… frames dropped', dropped(at), '%', null);
  report('frames dropped while nothing moves', dropped(rest.at), '%', null);
}

/** What the page counts while something is done. */
async function framesDuring(page: Page, work: () => Promise<unknown>): Promise<Frames> {
  await page.evaluate(() => {
    const { frames } = window as unknown as { frames: Frames };
    frames.at.length = 0;
    frames.script.length = 0;
  });
  await work();
  return page.evaluate(() => (window as unknown as { frames: Frames }).frames);
}

const gapsOf = (at: readonly number[]): number[] => at.slice(1).map((t, i) => t - (at[i] ?? t));
/** Percent of frames. */
const dropped = (at: readonly number[]): number =>
  (100 * gapsOf(at).filter((g) => g > 1.5 * FRAME_MS).length) / Math.max(1, at.length - 1);

async function scriptTime_ms(session: CDPSession): Promise<number> {
  const { metrics } = await session.send('Performance.getMetrics');
  return 1000 * (metrics.find((m) => m.name === 'ScriptDuration')?.value ?? NaN);
}

/**
 * Runs in the page: every callback of a frame is timed; those that draw nothing cost next to nothing and are
 * left out.
 */
const countScript = `
  window.frames = { script: [], at: [] };
  const ask = window.requestAnimationFrame.bind(window);
  window.requestAnimationFrame = (work) => ask((at) => {
    const began = performance.now();
    work(at);
    const took = performance.now() - began;
    if (took > 0.05) window.frames.script.push(took);
  });
  ask(function count(at) { window.frames.at.push(at); ask(count); });
`;

function repeat(key: string, times: number): string[] {
  return Array.from({ length: times }, () => key);
}
