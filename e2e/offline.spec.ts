import { expect, type Page, test } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';
import { readFileSync } from 'node:fs';
import { seriousIssues } from './axe';
import { takeDevice } from './device';
import { jobOf, newRun } from './bench-page';
import { Hands } from './hands';
import { OwnServer } from './server';

test.use({ serviceWorkers: 'allow', storageState: { cookies: [], origins: [] } });

/** Types on the bench while there is no server: kept is what can be asked for. */
async function type(page: Page, ...entries: readonly string[]): Promise<void> {
  for (const entry of entries) {
    await page.keyboard.type(entry);
    await page.keyboard.press('Enter');
  }
}

interface Run {
  readonly readings: readonly { entry: string; takenBy: string; why: string | null }[];
  readonly judgement: { readonly pattern: string };
}
interface Job {
  readonly job: { number: number; openedAt: string; runs: { id: string; judgement: { pattern: string } | null }[] };
  readonly evidence: readonly { body: { kind: string; photos?: string[] }; by: string; at: string }[];
  readonly photos: readonly { id: string }[];
  readonly codes: readonly { code: string | null }[];
  readonly auditTrail: readonly { kind: string; at: string }[];
}

test('from the morning to the evening without the server: a whole job with a photo, a crash, two devices and a clash', async ({
  browser,
  playwright,
}) => {
  const server = new OwnServer('offline: a day');
  await server.start();
  const api = await playwright.request.newContext({ baseURL: server.base });
  await api.post('/api/session/sign-in', { data: { name: 'Odile Brandt', pin: DEMO_PIN } });
  const shared = await newRun(api, 'PL-11');
  const [tobin, ines] = [await browser.newContext(), await browser.newContext()];
  try {
    const page = await tobin.newPage();
    await takeDevice(page, server.base, 'Tobin Marsh');
    const other = await ines.newPage();
    await takeDevice(other, server.base, 'Ines Varga');

    // Morning: the server is gone while the yard is open. A job is opened all the same.
    await server.stop();
    const hands = new Hands(page);
    await hands.tap(hands.button('Open a job for PL-14'));
    await page.getByLabel('Complaint').fill('Starts on three, smokes white');
    await hands.tap(hands.button('Open job'));
    await page.waitForURL(/\/jobs\//);
    const banner = page.getByRole('complementary', { name: 'Without the server' });
    await expect(banner).toContainText('No server: this device goes on by itself');
    await expect(page.getByText('New job', { exact: false }).first()).toBeVisible();
    const jobId = page.url().split('/').at(-1) ?? '';
    await hands.codes('P0672');

    // A test: judged, weighed, and led on from, as with the server.
    await hands.start('Glow plugs, at the plug');
    await type(page, '0.1', '0.7', 'OL', '0.7', '0.7');
    await expect(page.locator('[data-position="2"]')).toContainText('OL');
    await expect(page.getByTestId('summary')).toContainText('2');
    await expect(page.getByRole('region', { name: 'What the circuit says' })).toContainText('plug 2 is open');
    await hands.toTheJob();
    await expect(page.getByText('bad:').first()).toBeVisible();

    // The browser is shut down and opened again: the PIN opens the device.
    await page.close();
    const again = await tobin.newPage();
    await again.goto(`${server.base}/jobs/${jobId}`);
    await unlock(again);
    await expect(again.getByText('P0672').first()).toBeVisible();

    // Something seen, with a photo.
    await again.getByRole('button', { name: 'Seen', exact: true }).click();
    const dialog = again.getByRole('dialog');
    await dialog.getByLabel('Where').fill('harness under the cover');
    await dialog.getByRole('radio', { name: 'damaged', exact: true }).click();
    await dialog.getByLabel('What is seen').fill('chafed on the bracket');
    await dialog.locator('input[type=file]').setInputFiles('docs/screenshots/yard.png');
    await expect(dialog.getByRole('img', { name: 'photo of this entry' })).toBeVisible();
    await dialog.getByRole('button', { name: 'Keep' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(again.getByText('chafed on the bracket').first()).toBeVisible();

    // Both read the same position of the shared test.
    await again.goto(`${server.base}/runs/${shared}`);
    await expect(again.locator('#entry')).toBeFocused();
    await type(again, '0.1', '0.6');
    await other.goto(`${server.base}/runs/${shared}`);
    await expect(other.locator('#entry')).toBeFocused();
    await type(other, '0.1', '0.9');
    await expect(other.getByRole('complementary', { name: 'Without the server' })).toContainText('entries wait');

    // What waits, with age and size.
    await again.getByRole('complementary', { name: 'Without the server' }).getByRole('link').click();
    await expect(again.getByRole('region', { name: 'On its way' })).toContainText('new job');
    await expect(again.getByRole('region', { name: 'In short' })).toContainText(/\d+ entries, .* the oldest of/);
    await again.close();

    // Evening: the other device is back first.
    await server.start();
    await expect(other.getByRole('button', { name: 'Go on with the server' })).toBeVisible();
    await expect(other.getByText('The server is back', { exact: true })).toBeVisible({ timeout: 60_000 });
    await other.getByRole('button', { name: 'Go on with the server' }).click();
    await expect(other.getByTestId('saved')).toHaveText('Everything is saved.');

    // Then the first: all of it goes by itself, but for what clashes.
    const back = await tobin.newPage();
    await back.goto(`${server.base}/waits`);
    const clash = back.getByRole('region', { name: 'Not taken' });
    await expect(clash).toContainText('reading 0.6 at 1');
    await expect(clash).toContainText('reading 0.9 at 1');
    await expect(clash).toContainText('Ines Varga');
    await expect(back.getByRole('region', { name: 'On its way' })).toHaveCount(0);
    await clash.getByRole('button', { name: 'Mine counts' }).click();
    await expect(back.getByText('Nothing waits on this device')).toBeVisible();

    // The server has all of it once, when it was made, and a trail that holds.
    const job = (await (await api.get(`/api/jobs/${jobId}`)).json()) as Job;
    expect(job.job.number).toBeLessThan(1000);
    expect(job.codes.map((c) => c.code)).toEqual(['P0672']);
    expect(job.evidence.map((e) => [e.body.kind, e.by, e.body.photos?.length])).toEqual([['visual', 'Tobin Marsh', 1]]);
    expect(job.photos).toHaveLength(1);
    expect((await api.get(`/api/photos/${job.photos[0]?.id}`)).headers()['content-type']).toBe('image/jpeg');
    const came = job.auditTrail.find((e) => e.kind === 'job')?.at ?? '';
    expect(Date.parse(came) - Date.parse(job.job.openedAt)).toBeGreaterThan(5_000);
    const run = (await (await api.get(`/api/runs/${job.job.runs[0]?.id}`)).json()) as Run;
    expect(run.readings.map((r) => r.entry)).toEqual(['0.7', 'OL', '0.7', '0.7']);
    expect(((await (await api.get(`/api/jobs/${jobId}/verify`)).json()) as { intact: boolean }).intact).toBe(true);
    const both = (await (await api.get(`/api/runs/${shared}`)).json()) as Run;
    expect(both.readings.map((r) => [r.entry, r.takenBy])).toEqual([
      ['0.9', 'Ines Varga'],
      ['0.6', 'Tobin Marsh'],
    ]);
  } finally {
    await server.stop();
    await api.dispose();
    await Promise.all([tobin.close(), ines.close()]);
  }
});

test('five wrong PINs wipe the device; what waited is a file that a lead takes in, and nobody else can read', async ({
  browser,
  playwright,
}) => {
  const server = new OwnServer('offline: wiped');
  await server.start();
  const api = await playwright.request.newContext({ baseURL: server.base });
  await api.post('/api/session/sign-in', { data: { name: 'Odile Brandt', pin: DEMO_PIN } });
  const run = await newRun(api, 'PL-11');
  const tablet = await browser.newContext();
  const office = await browser.newContext({ baseURL: server.base });
  try {
    const page = await tablet.newPage();
    await takeDevice(page, server.base, 'Tobin Marsh');
    await page.goto(`${server.base}/runs/${run}`);
    await expect(page.locator('#entry')).toBeFocused();
    // The key is there a moment after the page.
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    await page.waitForTimeout(1_000);
    await server.stop();
    await type(page, '0.1', '0.61');
    await expect(page.getByTestId('saved')).toContainText('2 entries kept in this browser');
    await page.goto(`${server.base}/`);
    await expect(page.getByRole('heading', { name: 'Yard' })).toBeVisible();
    expect(await seriousIssues(page)).toEqual([]);
    await page.getByRole('button', { name: /^At the bench/ }).click();
    await page.getByRole('menuitem', { name: /^Sign Tobin Marsh out/ }).click();

    const field = page.getByLabel('PIN or password');
    for (const left of ['4 tries left', '3 tries left', '2 tries left', 'One more try']) {
      await field.fill('000000');
      await page.getByRole('button', { name: 'Unlock' }).click();
      await expect(page.getByRole('alert').filter({ hasText: left })).toBeVisible();
    }
    const download = page.waitForEvent('download');
    await field.fill('000000');
    await page.getByRole('button', { name: 'Unlock' }).click();
    const file = await (await download).path();
    await expect(page.getByText('this device was wiped')).toBeVisible();
    expect(readFileSync(file, 'utf8')).not.toContain('0.61');
    await page.reload();
    await expect(page.getByText('Nobody has signed in on this device')).toBeVisible();

    await server.start();
    expect((await tablet.request.post(`${server.base}/api/waiting/open`, { data: {} })).status()).toBe(403);
    const lead = await office.newPage();
    await takeDevice(lead, server.base, 'Odile Brandt');
    await lead.goto('/waits');
    await lead.getByRole('region', { name: 'From another device' }).locator('input[type=file]').setInputFiles(file);
    await expect(
      lead.getByRole('status').filter({ hasText: /entries were taken in|entry was taken in/ }),
    ).toBeVisible();
    const stored = async () =>
      ((await (await api.get(`/api/runs/${run}`)).json()) as Run).readings.map((r) => [r.entry, r.takenBy, r.why]);
    await expect.poll(stored).toEqual([['0.61', 'Odile Brandt', 'typed by Tobin Marsh']]);
    await expect(lead.getByText('Nothing waits on this device')).toBeVisible();
  } finally {
    await server.stop();
    await api.dispose();
    await Promise.all([tablet.close(), office.close()]);
  }
});

test('on the device threads work as before; signed out meanwhile: the server asks who it is, then everything goes', async ({
  page,
  context,
}) => {
  const server = new OwnServer('offline: signed out');
  await server.start();
  try {
    await takeDevice(page, server.base, 'Tobin Marsh');

    // Circuits are weighed and recordings read in threads beside the page: there as well.
    const run = await newRun(page.request, 'PL-11', server.base);
    await page.goto(`${server.base}/runs/${run}`);
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    await expect(page.locator('#entry')).toBeFocused();
    await type(page, '0.1', '0.7', 'OL');
    await expect(page.getByRole('region', { name: 'What the circuit says' })).toContainText('plug 2 is open');
    await page.goto(`${server.base}/jobs/${await jobOf(page.request, run, server.base)}/traces`);
    const rows = Array.from({ length: 400 }, (_, i) => `${(i / 100).toFixed(2)};${(2 + (i % 7) / 100).toFixed(2)}`);
    const buffer = Buffer.from(`time (s);rail (V)\n${rows.join('\n')}\n`);
    await page.locator('input[type=file]').setInputFiles({ name: 'road.csv', mimeType: 'text/csv', buffer });
    await expect(page.getByText('cells between semicolons')).toBeVisible();

    await server.stop();
    await page.goto(`${server.base}/`);
    const hands = new Hands(page);
    await hands.tap(hands.button('Open a job for PL-22'));
    await page.getByLabel('Complaint').fill('Opened while nobody was signed in');
    await hands.tap(hands.button('Open job'));
    await page.waitForURL(/\/jobs\//);
    // The shelf is the server's.
    await page.getByRole('link', { name: 'Shelf' }).click();
    await expect(page.getByRole('alert').filter({ hasText: '“Shelf” needs the server.' })).toBeVisible();
    await context.clearCookies({ name: /session/ });
    await server.start();
    const banner = page.getByRole('complementary', { name: 'Without the server' });
    await expect(banner).toContainText('The server is back and asks who you are');
    await banner.getByRole('button', { name: 'Sign in' }).click();
    const dialog = page.getByRole('dialog', { name: 'Sign in at the server' });
    await dialog.getByLabel('Name').fill('Tobin Marsh');
    await dialog.getByLabel('PIN or password').fill(DEMO_PIN);
    await dialog.getByLabel('PIN or password').press('Enter');
    await expect(dialog).toHaveCount(0);
    await expect(banner.getByRole('link', { name: /wait/ })).toHaveCount(0);
    await banner.getByRole('button', { name: 'Go on with the server' }).click();
    await expect(page.getByText('Opened while nobody was signed in').first()).toBeVisible();
    await expect(page.getByText('New job')).toHaveCount(0);
  } finally {
    await server.stop();
  }
});

/** Types the PIN where the device asks for it: a browser may still have the key in memory. */
async function unlock(page: Page, pin = DEMO_PIN): Promise<void> {
  const field = page.getByLabel('PIN or password');
  await expect(field.or(page.getByRole('complementary', { name: 'Without the server' }))).toBeVisible();
  if (!(await field.isVisible())) return;
  await field.fill(pin);
  await page.getByRole('button', { name: 'Unlock' }).click();
}
