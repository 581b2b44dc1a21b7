import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { expect, type Page, test } from '@playwright/test';
import { v7 } from 'uuid';
import { blocksOf, toStored } from '../application/traces/stored';
import type { JobView, TraceView } from '../application/views';
import { encodeBlock } from '../core/signal/block-codec';
import { type SimulatedFault, simulateLogger } from '../core/simulate/logger';
import { demoId } from '../demo/load';
import { readTrace } from '../formats/trace/read';
import { type WrittenDialect, writeSimulated } from '../formats/trace/write-simulated';
import { seriousIssues } from './axe';
import { freshDevice } from './bench-page';

const DROPOUT: SimulatedFault = { signal: 'rail', place: 'signal wire', at_s: 160, seconds: 0.05, ohms: null };

function recording(dialect: WrittenDialect, faults = [DROPOUT], seed = 5): Buffer {
  const settings = {
    seconds: 300,
    rate_Hz: 100,
    seed,
    noise_V: 0.004,
    step_V: 0.001,
    faults,
    scan: { rate_Hz: 4, delay_s: 0.3 },
  };
  return Buffer.from(writeSimulated(simulateLogger(settings), dialect));
}

async function newJob(page: Page, unit: string): Promise<string> {
  const id = v7();
  const opened = await page.request.post('/api/jobs', {
    data: { id, unitId: demoId('unit', unit), complaint: 'cuts out on the road, rarely' },
  });
  expect(opened.status()).toBe(201);
  return id;
}

async function choose(page: Page, job: string, name: string, buffer: Buffer): Promise<void> {
  await page.goto(`/jobs/${job}/traces`);
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/csv', buffer });
}

test('a log becomes a finding, the finding evidence, and the evidence a word in the job', async ({ page }) => {
  const job = await newJob(page, 'PL-22');
  await choose(page, job, 'road.csv', recording('comma'));
  await expect(page.getByText('cells between semicolons, decimal comma')).toBeVisible();
  await page.getByRole('textbox', { name: 'Lead and pin, rail sensor' }).fill('green, pin 26');
  expect(await seriousIssues(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL(/\/traces\//);
  await expect(page.locator('canvas').first()).toBeVisible();
  const findings = page.getByRole('complementary', { name: 'Findings' });
  await expect(findings.getByRole('heading', { name: '1 found' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(findings.getByRole('button', { pressed: true })).toContainText('rail sensor, dropout');
  await expect(page.getByRole('button', { name: /rail sensor/ }).first()).toContainText(/\d V/);
  expect(await seriousIssues(page)).toEqual([]);
  await findings.getByRole('button', { name: 'Is this evidence?' }).click();
  await page.getByRole('button', { name: 'Yes, it is evidence' }).click();
  await expect(findings.getByText(/Taken as evidence by/)).toBeVisible();
  const view = (await (await page.request.get(`/api/jobs/${job}`)).json()) as JobView;
  expect(view.evidence.at(-1)?.body).toMatchObject({
    kind: 'recording',
    signal: 'rail sensor',
    outcome: 'pin dropped out',
  });
  expect(view.known.statements.some((s) => s.text.includes('dropped out at the pin'))).toBe(true);
  expect(await (await page.request.get(`/api/jobs/${job}/verify`)).json()).toMatchObject({ intact: true });
});

test('keys move the window, and a mark of one person is seen by another', async ({ page, browser, baseURL }) => {
  const trace = `/traces/${demoId('trace', 'PL-22')}`;
  await page.goto(trace);
  await expect(page.locator('canvas').first()).toBeVisible();
  const window_ = page.getByRole('region', { name: 'Lanes' }).locator('h2 ~ span');
  const whole = await window_.textContent();
  await page.keyboard.press('+');
  await expect(window_).not.toHaveText(whole ?? '');
  await page.keyboard.press('0');
  await expect(window_).toHaveText(whole ?? '');
  const other = await freshDevice(browser, baseURL, 'Odile Brandt');
  const watching = await other.newPage();
  const follows = watching.waitForRequest(/\/live$/);
  await watching.goto(trace);
  await follows;
  await expect(watching.locator('canvas').first()).toBeVisible();
  const words = `over the bridge ${v7().slice(-6)}`;
  await page.keyboard.press('m');
  await page.getByLabel('What is there').fill(words);
  await page.getByRole('button', { name: 'Mark it' }).click();
  await expect(page.getByText(words)).toBeVisible();
  await expect(watching.getByText(words)).toBeVisible({ timeout: 15_000 });
  await other.close();
});

test('a wrong file is refused with line and column, and nothing is stored', async ({ page }) => {
  const job = await newJob(page, 'PL-22');
  await choose(page, job, 'page.html', Buffer.from('<html><body>Not found</body></html>'));
  await expect(page.getByRole('alert').first()).toContainText('Nothing was stored');
  const broken = recording('plain').toString().split('\r\n');
  broken[20_000] = '200.00,oops,1,1,1,12';
  await choose(page, job, 'broken.csv', Buffer.from(broken.join('\r\n')));
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByRole('alert').first()).toContainText('line 20001, column 2');
  expect(await (await page.request.get(`/api/jobs/${job}/traces`)).json()).toEqual([]);
});

test('an upload that stopped half-way goes on from there with the same file, and nothing is doubled', async ({
  page,
}) => {
  const job = await newJob(page, 'PL-22');
  const file = recording('plain');
  const hash = (content: Uint8Array): string => createHash('sha256').update(content).digest('hex');
  const columns = ['air flow', 'rail sensor'].map((column) => ({
    column,
    name: column,
    unit: 'V',
    role: 'sensor' as const,
    factor: 1,
  }));
  const stored = toStored(readTrace(file), columns, { name: 'half.csv', size: file.length, sha256: hash(file) }, (b) =>
    hash(encodeBlock(b)),
  );
  const id = v7();
  expect(
    (await page.request.post(`/api/jobs/${job}/traces`, { data: { id, name: 'half', head: stored.head } })).status(),
  ).toBe(201);
  const put = (stream: number) =>
    page.request.put(`/api/traces/${id}/blocks?stream=${stream}&number=0`, {
      data: deflateRawSync(encodeBlock(stored.streams.flatMap(blocksOf)[0] as Int32Array)),
      headers: { 'content-type': 'application/octet-stream' },
    });
  expect((await put(0)).status()).toBe(201);
  expect((await put(0)).status()).toBe(200);
  // The block of another stream has another hash.
  const wrong = await put(1);
  expect([wrong.status(), await wrong.text()]).toEqual([422, expect.stringContaining('Block 0 is not the one')]);
  await choose(page, job, 'half.csv', file);
  await expect(page.getByText('1 of 2 blocks have not arrived')).toBeVisible();
  for (const name of ['boost sensor', 'coolant sensor', 'battery'])
    await page.getByRole('checkbox', { name, exact: true }).uncheck();
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL(new RegExp(`/traces/${id}`));
  const traces = (await (await page.request.get(`/api/jobs/${job}/traces`)).json()) as TraceView[];
  expect(traces.map((t) => [t.id, t.missing])).toEqual([[id, []]]);
});

test('a CAN log brings its codes, with their phase asked', async ({ page }) => {
  const job = await newJob(page, 'PL-22');
  await choose(page, job, 'bus.log', recording('can', [{ ...DROPOUT, seconds: 2 }]));
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('The log holds codes: SPN 157 FMI 4.')).toBeVisible();
  await page.getByRole('button', { name: 'After the road test' }).click();
  await expect(page.getByText('The log holds codes')).toHaveCount(0);
  const view = (await (await page.request.get(`/api/jobs/${job}`)).json()) as JobView;
  expect(view.codes.map((c) => [c.code, c.phase])).toEqual([['SPN 157 FMI 4', 'after-road-test']]);
});

test('what comes out as a table reads back unchanged', async ({ page }) => {
  const answer = await page.request.get(`/api/traces/${demoId('trace', 'PL-22')}/csv`);
  const text = await answer.body();
  const again = readTrace(new Uint8Array(text));
  expect(again.columns.map((c) => c.name)).toEqual(['air flow', 'rail sensor', 'boost sensor', 'battery']);
  expect(again.columns[0]?.samples.count).toBe(75_000);
});

test('two files of one drive are laid on one clock and kept as one recording', async ({ page }) => {
  const job = await newJob(page, 'PL-22');
  await choose(page, job, 'pins.csv', recording('comma'));
  await page.getByLabel('Add another file of the same drive').setInputFiles({
    name: 'bus.log',
    mimeType: 'text/plain',
    buffer: recording('can'),
  });
  const others = page.getByRole('list', { name: 'Other files of this drive' });
  await expect(others).toContainText('bus.log');
  await expect(others).toContainText(/move alike|time of day/, { timeout: 20_000 });
  await others.getByLabel('Shift in seconds, bus.log').fill('x');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(others.getByRole('alert')).toContainText('number of seconds');
  await others.getByLabel('Shift in seconds, bus.log').fill('-1,25');
  await expect(others.getByRole('alert')).toHaveCount(0);
  expect(await seriousIssues(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('When were they read?').or(page.locator('canvas').first())).toBeVisible({
    timeout: 30_000,
  });
  const [kept] = (await (await page.request.get(`/api/jobs/${job}/traces`)).json()) as TraceView[];
  expect(kept?.head.files?.map((f) => [f.name, f.shift_s, f.how])).toEqual([
    ['pins.csv', 0, 'first'],
    ['bus.log', -1.25, 'by hand'],
  ]);
  expect(kept?.head.clocks.length).toBeGreaterThan(1);
  await page.goto(`/traces/${kept?.id}`);
  await expect(page.locator('canvas').first()).toBeVisible();
  await expect(page.getByRole('list', { name: 'Files on one clock' })).toContainText(
    'bus.log: moved by -1.25 s, by hand',
  );
});
