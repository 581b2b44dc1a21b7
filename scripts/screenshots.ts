import { createServer, request as ask } from 'node:http';
import type { AddressInfo } from 'node:net';
import { chromium, type Browser, type Page } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';
import { demoId } from '../demo/load';
import { takeDevice } from '../e2e/device';
import { Hands } from '../e2e/hands';

/** Draws docs/screenshots/ anew from a running demo with fresh data: `npm run screenshots`. */

const BASE = process.env.MUDFLAT_URL ?? 'http://127.0.0.1:4180';
const LAPTOP = { width: 1280, height: 800 };

interface View {
  readonly name: string;
  readonly path: string;
  readonly size?: { readonly width: number; readonly height: number };
  readonly theme?: 'night' | 'sun';
  readonly by?: string;
  readonly before?: (page: Page) => Promise<void>;
}

const job = (...key: string[]): string => `/jobs/${demoId('job', ...key)}`;
const run = (...key: string[]): string => `/runs/${demoId('run', ...key)}`;
const top = async (page: Page, selector: string): Promise<void> =>
  page
    .locator(selector)
    .first()
    .evaluate((e) => e.scrollIntoView());

const VIEWS: readonly View[] = [
  { name: 'bench', path: run('PL-23') },
  { name: 'bench-night', path: run('PL-11'), theme: 'night' },
  {
    name: 'bench-tablet',
    path: run('PL-14'),
    theme: 'sun',
    size: { width: 1024, height: 768 },
    before: (page) => page.getByRole('button', { name: 'Large keys' }).click(),
  },
  { name: 'bench-phone', path: run('PL-14'), size: { width: 390, height: 844 } },
  {
    name: 'far-view',
    path: run('PL-23'),
    before: async (page) => {
      await page.getByRole('button', { name: 'Listen' }).click();
      await page.getByRole('button', { name: 'Simulated meter' }).click();
      const probes = page.getByRole('group', { name: 'Probes of the simulated meter' });
      const put = async (place: string): Promise<void> =>
        probes.getByRole('button', { name: place, exact: true }).click();
      await put('8');
      await page.waitForTimeout(3000);
      await page.getByRole('button', { name: /^Far view/ }).click();
    },
  },
  { name: 'result', path: `${run('PL-11')}/print`, size: { width: 1000, height: 1200 } },
  { name: 'yard', path: '/' },
  { name: 'job', path: job('PL-16') },
  {
    name: 'known',
    path: job('PL-27'),
    size: { width: 1280, height: 1100 },
    before: async (page) => {
      await page.getByRole('link', { name: /^Tests/ }).click();
      await page.waitForTimeout(500);
      await page.evaluate(() => scrollTo(0, 0));
    },
  },
  {
    name: 'circuit',
    path: `${job('PL-22')}/circuits`,
    size: { width: 1280, height: 1300 },
    before: async (page) => {
      await page.getByText('What was read, beside').first().click();
      await top(page, 'section[aria-label^="Circuit"]');
    },
  },
  { name: 'repair', path: job('PL-14'), size: { width: 1280, height: 1300 } },
  { name: 'circuits', path: '/circuits', by: 'Odile Brandt' },
  { name: 'shelf', path: '/shelf', by: 'Odile Brandt' },
  { name: 'catalogue', path: '/catalogue' },
  { name: 'instruments', path: '/instruments' },
  { name: 'workshop', path: '/workshop', by: 'Odile Brandt' },
  {
    name: 'recording',
    path: `/traces/${demoId('trace', 'PL-22')}`,
    before: async (page) => {
      await page.locator('canvas').first().waitFor();
      await page.waitForTimeout(800);
      await page.keyboard.press('n');
      await page.waitForTimeout(800);
    },
  },
  {
    name: 'capture',
    path: `/traces/${demoId('trace', 'PL-19', 'leak')}`,
    size: { width: 1280, height: 1300 },
    before: async (page) => {
      await page.getByRole('img', { name: /Order of firing/ }).waitFor();
    },
  },
];

async function draw(browser: Browser, v: View): Promise<void> {
  const context = await browser.newContext({ baseURL: BASE, viewport: v.size ?? LAPTOP });
  const name = v.by ?? 'Ines Varga';
  if (name) {
    const answer = await context.request.post('/api/session/sign-in', { data: { name, pin: DEMO_PIN } });
    if (!answer.ok()) throw new Error(`${name}: ${await answer.text()}`);
  }
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);
  await page.addInitScript((theme) => localStorage.setItem('theme', theme), v.theme ?? 'shed');
  await page.goto(v.path);
  await page.waitForTimeout(1500);
  await v.before?.(page);
  await page.waitForTimeout(700);
  await page.screenshot({ path: `docs/screenshots/${v.name}.png` });
  await context.close();
  process.stdout.write(`${v.name}\n`);
}

/** A way to the server that can be cut, so that a page finds none. */
async function drawWithoutServer(browser: Browser): Promise<void> {
  const { hostname, port } = new URL(BASE);
  const way = createServer((incoming, outgoing) => {
    const { url: path, method, headers } = incoming;
    const onward = ask({ hostname, port, path, method, headers }, (answer) => {
      outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(outgoing);
    });
    onward.on('error', () => outgoing.destroy());
    incoming.pipe(onward);
  });
  await new Promise<void>((done) => way.listen(0, '127.0.0.1', done));
  const { port: own } = way.address() as AddressInfo;
  const base = `http://127.0.0.1:${own}`;
  const context = await browser.newContext({ viewport: LAPTOP });
  const page = await context.newPage();
  await takeDevice(page, base, 'Ines Varga');
  way.closeAllConnections();
  way.close();
  await page.goto(`${base}/`);
  const hands = new Hands(page);
  await hands.tap(hands.button('Open a job for PL-14'));
  await page.getByLabel('Complaint').fill('Starts on three, smokes white until it is warm');
  await hands.tap(hands.button('Open job'));
  await hands.codes('P0672');
  await page.waitForTimeout(700);
  await page.screenshot({ path: 'docs/screenshots/without-server.png' });
  await context.close();
  process.stdout.write('without-server\n');
}

async function main(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const only = process.argv.slice(2);
  try {
    for (const v of VIEWS) if (only.length === 0 || only.includes(v.name)) await draw(browser, v);
    if (only.length === 0 || only.includes('without-server')) await drawWithoutServer(browser);
  } finally {
    await browser.close();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});
