import { type BrowserContext, chromium, type Page } from '@playwright/test';
import { PERSONS } from '../demo/fleet';
import { newRun } from '../e2e/bench-page';
import { addMeter, openListening, ProbeHands, SimulatedMeterProcess, takeMeter, VEE_EIGHT } from '../e2e/meter';
import { lineOf } from '../core/simulate/meter';
import { signInAs } from './writes';
import { percentile, report } from './measure';
import { BROWSER_ARGS } from './screen';

const VALUES_A_SECOND = 20;
const TONE_MS = 50;
const PAIRS = 2;
const FRAME_MS = 1000 / 60;
const DROPPED_MS = 1.5 * FRAME_MS;
const NETWORK_PORT = 5551;
const EIGHT_PLUGS_s = 25;

/**
 * The bench while a meter sends 20 values a second: how long after the value that settles it the tone begins,
 * and whether frames are dropped while circuits are weighed beside it. Before that, how long eight plugs take
 * without a key, at a meter in the network.
 */
export async function benchListening(base: string): Promise<void> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [...BROWSER_ARGS, '--autoplay-policy=no-user-gesture-required'],
  });
  try {
    const context = await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } });
    await cookiesOf(context, base, 'Odile Brandt');
    const serial = await added(context, { kind: 'serial', baud: 9600, speaks: 'unasked' });
    const network = await added(context, { kind: 'network', host: '127.0.0.1', port: NETWORK_PORT });
    await context.clearCookies();
    await cookiesOf(context, base, PERSONS[0].name);
    report('eight plugs through the network without a key', await eightPlugs_s(context, network), 's', EIGHT_PLUGS_s);
    await adapter(context);
    const listened: HeardSet[] = [];
    const silent: HeardSet[] = [];
    for (let i = 0; i < PAIRS; i++) {
      silent.push(await measured(context, serial, false));
      listened.push(await measured(context, serial, true));
    }
    const tones = listened.flatMap((m) => m.tones_ms);
    report(`settling value to tone, median of ${tones.length}`, percentile(tones, 0.5), 'ms', TONE_MS);
    report(`settling value to tone, worst of ${tones.length}`, Math.max(...tones), 'ms', TONE_MS);
    const median = (all: readonly HeardSet[]): number =>
      percentile(
        all.map((m) => m.dropped_percent),
        0.5,
      );
    report('frames dropped, nothing is sent', median(silent), '%', null);
    report(`frames dropped, ${VALUES_A_SECOND} values a second and circuits weighed`, median(listened), '%', null);
  } finally {
    await browser.close();
  }
}

/** The id of a new meter. */
async function added(
  context: BrowserContext,
  link: { readonly kind: string; readonly [field: string]: unknown },
): Promise<string> {
  const meter = await addMeter(context.request, `Bench meter, ${link.kind}, ${Date.now()}`, 'North Sluice', link);
  if (meter.status !== 201) throw new Error(meter.text);
  return meter.id;
}

/** From the first touch until the last plug is lifted, one of them open; its pauses are those of a hand. */
async function eightPlugs_s(context: BrowserContext, meterId: string): Promise<number> {
  const meter = new SimulatedMeterProcess(NETWORK_PORT);
  await meter.start(...VEE_EIGHT.meter);
  const page = await context.newPage();
  try {
    const run = await newRun(context.request, 'PL-07');
    await takeMeter(context.request, run, meterId);
    await openListening(page, run);
    const hands = new ProbeHands(page, meter);
    await hands.zero();
    const began_ms = performance.now();
    await hands.readEight();
    return (performance.now() - began_ms) / 1000;
  } finally {
    meter.stop();
    await page.close();
  }
}

async function cookiesOf(context: BrowserContext, base: string, name: string): Promise<void> {
  const cookies = (await signInAs(base, name)).split('; ').map((c) => {
    const at = c.indexOf('=');
    return { name: c.slice(0, at), value: c.slice(at + 1), url: base };
  });
  await context.addCookies(cookies);
}

/**
 * A serial adapter whose meter sends `window.meterLine` again and again; when each line came, and when a tone
 * was begun.
 */
const adapter = (context: BrowserContext): Promise<unknown> =>
  context.addInitScript(`
    window.meterLine = 'OL OHM';
    window.sent_ms = [];
    window.tones_ms = [];
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (...at) {
      window.tones_ms.push(performance.now());
      return start.apply(this, at);
    };
    const port = {
      readable: null,
      writable: null,
      async open() {
        const encoder = new TextEncoder();
        this.readable = new ReadableStream({
          start(controller) {
            this.timer = setInterval(() => {
              window.sent_ms.push(performance.now());
              controller.enqueue(encoder.encode(window.meterLine + '\\r\\n'));
            }, ${1000 / VALUES_A_SECOND});
          },
          cancel() { clearInterval(this.timer); },
        });
      },
      async close() { this.readable = null; },
    };
    Object.defineProperty(navigator, 'serial', { value: { getPorts: async () => [port], requestPort: async () => port } });
    for (const who of ${JSON.stringify(PERSONS.map((p) => p.name))})
      localStorage.setItem('hearing ' + who, JSON.stringify({ tones: true, speech: false, volume: 0.1 }));
  `);

interface HeardSet {
  readonly tones_ms: readonly number[];
  readonly dropped_percent: number;
}

async function measured(context: BrowserContext, meterId: string, isListening: boolean): Promise<HeardSet> {
  const page = await context.newPage();
  const run = await newRun(context.request, 'PL-07');
  await takeMeter(context.request, run, meterId);
  await page.goto(`/runs/${run}`, { waitUntil: 'load' });
  if (isListening) {
    await page.getByRole('button', { name: 'Listen' }).click();
    await page.getByLabel('The meter shows').filter({ hasText: 'OL' }).waitFor();
  }
  await page.waitForTimeout(2000);
  await page.evaluate(
    'window.frames_ms = []; window.tones_ms.length = 0; requestAnimationFrame(function count(at) { window.frames_ms.push(at); requestAnimationFrame(count); })',
  );
  if (isListening) await touchAll(page);
  else await page.waitForTimeout(15_000);
  const seen = await page.evaluate(() => {
    const w = window as unknown as Record<'frames_ms' | 'sent_ms' | 'tones_ms', number[]>;
    return { frames: w.frames_ms, sent: w.sent_ms, tones: w.tones_ms };
  });
  await page.close();
  const gaps = seen.frames.slice(1).map((at, i) => at - (seen.frames[i] ?? at));
  // A tone of several notes begins once.
  const begun = seen.tones.filter((t, i) => i === 0 || t - (seen.tones[i - 1] ?? 0) > 300);
  return {
    tones_ms: begun.map((t) => t - Math.max(...seen.sent.filter((s) => s <= t))),
    dropped_percent: (100 * gaps.filter((g) => g > DROPPED_MS).length) / Math.max(1, gaps.length),
  };
}

/**
 * Leads together, then each position in turn, again and again: values that settle, with the last digit that
 * never rests.
 */
async function touchAll(page: Page): Promise<void> {
  const show = (value: number | null): Promise<void> =>
    page.evaluate(
      (line) => void ((window as unknown as { meterLine: string }).meterLine = line),
      lineOf({ value, step: 0.001 }, 'resistance'),
    );
  await show(0.2);
  await page.waitForTimeout(2500);
  await show(null);
  await page.waitForTimeout(900);
  for (let i = 0; i < VEE_EIGHT.order.length; i++) {
    await show(0.8 + 0.03 * i);
    await page.waitForTimeout(1500);
    await show(null);
    await page.waitForTimeout(900);
  }
}
