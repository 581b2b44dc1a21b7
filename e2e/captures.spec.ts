import { expect, type Page, test } from '@playwright/test';
import { v7 } from 'uuid';
import { answerTraceText } from '../application/traces/answer';
import type { TraceView } from '../application/views';
import { type EngineFault, simulateEngine } from '../core/simulate/engine/engine';
import { demoId } from '../demo/load';
import { seriousIssues } from './axe';
import { freshDevice } from './bench-page';

/** A capture of a cranked engine of four cylinders as a scope would write it. */
function table(faults: readonly EngineFault[], seed: number): Buffer {
  const rate = 12_000;
  const { channels } = simulateEngine({
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    condition: 'cranking',
    seconds: 2.5,
    rate_Hz: rate,
    wheel: { teeth: 36, missing: 1, kind: 'hall' },
    cam: [[50, 130]],
    faults,
    seed,
  });
  const columns = [channels.crank, channels.cam, channels.starter, channels['injector 1']];
  const rows = Array.from(channels.crank, (_, i) =>
    [(i / rate).toFixed(6), ...columns.map((c) => (c[i] ?? 0).toFixed(2))].join(','),
  );
  return Buffer.from(['Time,Crank,Cam,Starter,Injector 1', '(s),(V),(V),(A),(A)', ...rows].join('\n'));
}

async function take(page: Page, unit: string, name: string, buffer: Buffer): Promise<string> {
  const job = v7();
  const opened = await page.request.post('/api/jobs', {
    data: { id: job, unitId: demoId('unit', unit), complaint: 'cranks, does not start' },
  });
  expect(opened.status(), await opened.text()).toBe(201);
  await page.goto(`/jobs/${job}/traces`);
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/csv', buffer });
  await expect(page.getByRole('combobox', { name: 'Connected to, Crank' })).toHaveValue('crank');
  await expect(page.getByRole('combobox', { name: 'Connected to, Starter' })).toHaveValue('starter-current');
  await expect(page.getByRole('textbox', { name: 'Cylinder, or empty, Injector 1' })).toHaveValue('1');
  await page.getByRole('combobox', { name: 'Recorded while' }).selectOption('cranking');
  expect(await seriousIssues(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL(/\/traces\//);
  return page.url().split('/').at(-1) ?? '';
}

test('a capture is laid over a known good: a cam that is out, and a cylinder that compresses little', async ({
  page,
  browser,
  baseURL,
}) => {
  const good = await take(page, 'PL-08', 'good.csv', table([], 3));
  // Only a lead says that it is known good.
  await expect(page.getByRole('button', { name: 'Keep it' })).toHaveCount(0);
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  const desk = await lead.newPage();
  await desk.goto(`/traces/${good}`);
  await desk.getByRole('button', { name: 'Keep it' }).click();
  await expect(desk.getByText('Say why, in a word at least.')).toBeVisible();
  await desk.getByRole('textbox', { name: 'Why' }).fill('new chain, runs well');
  await desk.getByRole('button', { name: 'Keep it' }).click();
  await expect(desk.getByText('new chain, runs well')).toBeVisible();
  await lead.close();

  const faults: EngineFault[] = [
    { kind: 'timing', shift_deg: -20 },
    { kind: 'low compression', cylinder: 4, share: 0.5 },
  ];
  const bad = await take(page, 'PL-16', 'bad.csv', table(faults, 9));
  const view = page.getByRole('group', { name: 'Over crank angle' });
  await expect(view.getByText(/Cylinder 4 compresses little/)).toBeVisible();
  await view.getByRole('combobox', { name: 'Behind it' }).selectOption(good);
  await expect(view.getByText(/degrees of the crank earlier, 2\.0 teeth of the wheel: out of time\./)).toBeVisible();
  await expect(view.getByRole('img', { name: /Order of firing: 1, 3, 4, 2/ })).toBeVisible();
  const posts = view.getByRole('region', { name: 'Relative compression' });
  await expect(posts.getByRole('listitem').filter({ hasText: 'cyl. 4' })).toContainText('bad');
  // By number too: what this cylinder had there, and what lies between.
  await expect(posts.getByRole('listitem').filter({ hasText: 'cyl. 4' })).toContainText(/there \d+ %/);
  await expect(view.getByRole('region', { name: 'By number' })).toContainText(
    /Cylinder 4, relative compression: \d+ %, there \d+ %: worse\./,
  );
  expect(await seriousIssues(page)).toEqual([]);
  await page.getByRole('button', { name: 'Over time' }).click();
  await expect(page.locator('canvas').first()).toBeVisible();
  const kept = (await (await page.request.get(`/api/traces/${bad}`)).json()) as TraceView;
  expect(kept.head.capture?.cycle).toMatchObject({ from: 'crank', isNamed: true, teeth: 36 });

  // A known good travels as a table with its question document: asked anywhere else it says the same.
  const [csv, document] = await Promise.all(
    ['csv', 'question'].map(async (what) => (await page.request.get(`/api/traces/${good}/${what}`)).body()),
  );
  const own = await Promise.all(
    ['csv', 'question'].map(async (what) => (await page.request.get(`/api/traces/${bad}/${what}`)).body()),
  );
  const files = new Map([
    [`recording-${good}.csv`, csv],
    [`recording-${good}.json`, document],
    [`recording-${bad}.csv`, own[0]],
  ]);
  const question = { ...(JSON.parse(String(own[1])) as object), reference: `recording-${good}.json` };
  const answer = answerTraceText(JSON.stringify(question), (path) => new Uint8Array(files.get(path) ?? []));
  const timing = answer.ok ? answer.value.findings.find((f) => f.kind === 'timing') : answer.error;
  expect(timing).toMatchObject({ inTime: false });
  expect((timing as { shift_deg: number }).shift_deg).toBeCloseTo(-20, 0);

  // The other workshop takes both in: the document says what the columns are, before its table is chosen.
  const elsewhere = v7();
  await page.request.post('/api/jobs', {
    data: { id: elsewhere, unitId: demoId('unit', 'PL-16'), complaint: 'cranks, does not start' },
  });
  await page.goto(`/jobs/${elsewhere}/traces`);
  const chooser = page.locator('input[type=file]').first();
  await chooser.setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"format":1}') });
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was stored' })).toBeVisible();
  await chooser.setInputFiles({
    name: `recording-${good}.json`,
    mimeType: 'application/json',
    buffer: document ?? Buffer.alloc(0),
  });
  await expect(
    page.getByRole('status').filter({ hasText: `Now choose its table, recording-${good}.csv` }),
  ).toBeVisible();
  await chooser.setInputFiles({ name: `recording-${good}.csv`, mimeType: 'text/csv', buffer: csv ?? Buffer.alloc(0) });
  await expect(page.getByText('The columns are as the question document says.')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Connected to, Starter' })).toHaveValue('starter-current');
  await expect(page.getByRole('textbox', { name: 'Cylinder, or empty, Injector 1' })).toHaveValue('1');
  await expect(page.getByRole('combobox', { name: 'Recorded while' })).toHaveValue('cranking');
  await page.getByRole('combobox', { name: 'The engine was' }).selectOption('cold');
  expect(await seriousIssues(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL(/\/traces\//);
  await expect(page.getByText('the starter turns it, fuel off, engine cold')).toBeVisible();

  await page.goto('/captures');
  await page.getByRole('textbox').fill('known good cranking PL-08');
  await expect(page.getByRole('link', { name: 'PL-08, good' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'PL-16, bad' })).toHaveCount(0);
  expect(await seriousIssues(page)).toEqual([]);
});
