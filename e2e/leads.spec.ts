import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import type { JobView } from '../application/views';
import { demoId } from '../demo/load';
import { seriousIssues } from './axe';
import { freshDevice } from './bench-page';
import { openStage } from './bench-page';

const PINS = [
  { pin: '1', signal: 'Rail sensor signal', colour: 'brown-white', to: 'sensor', cylinder: null },
  { pin: '2', signal: 'Sensor reference', colour: 'red', to: 'sensors', cylinder: null },
  { pin: '3', signal: '', colour: '', to: '', cylinder: null },
  { pin: '4', signal: 'Sensor ground', colour: 'black', to: 'sensors', cylinder: null },
];
const LOG = [
  't;Green;Blue',
  ...Array.from(
    { length: 400 },
    (_, i) => `${(i / 100).toFixed(2)};${(1 + (i % 7) / 1000).toFixed(3)};${(5 + (i % 5) / 1000).toFixed(3)}`,
  ),
].join('\n');

test('leads are planned before recording, and the columns of the file are proposed from the plan', async ({
  page,
  browser,
  baseURL,
}) => {
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  const job = v7();
  await page.request.post('/api/jobs', {
    data: { id: job, unitId: demoId('unit', 'PL-08'), complaint: 'cuts out, rarely' },
  });
  const view = (await (await page.request.get(`/api/jobs/${job}`)).json()) as { unit: { family: string } };
  const kept = await lead.request.post('/api/service-data', {
    data: {
      id: v7(),
      family: view.unit.family,
      kind: 'connector',
      key: 'controller-a',
      body: { name: 'Controller A', place: 'on the bracket', seenFrom: 'wire side', rows: [2, 2], pins: PINS },
      source: 'invented for this test',
    },
  });
  expect(kept.ok(), await kept.text()).toBe(true);
  await lead.close();
  await page.goto(`/jobs/${job}/traces`);
  await page.getByRole('link', { name: 'Before recording: say which lead goes to which pin' }).click();
  await page.getByLabel('Lead, row 1').fill('green');
  await page.getByLabel('Goes to, row 1').selectOption('Controller A pin 1: Rail sensor signal');
  await expect(page.getByLabel('Wire, row 1')).toHaveValue('brown-white');
  await page.getByLabel('Lead, row 2').fill('green');
  await page.getByLabel('Goes to, row 2').selectOption('Controller A pin 2: Sensor reference');
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  // Every field that is wrong says so, and what was typed stays.
  await expect(page.getByRole('alert').first()).toBeVisible();
  await page.getByLabel('Common ground').fill('battery negative post');
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  await expect(page.getByText('Lead green is there twice.')).toBeVisible();
  await page.getByLabel('Lead, row 2').fill('blue');
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  const sheet = page.getByRole('region', { name: 'Plan of the leads' });
  await expect(sheet).toContainText('Controller A pin 1, wire brown-white');
  expect(await seriousIssues(page)).toEqual([]);

  await page.goto(`/jobs/${job}/traces`);
  const file = { name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(LOG) };
  await page.locator('input[type=file]').setInputFiles(file);
  await expect(page.getByRole('textbox', { name: 'Called, Green' })).toHaveValue('Rail sensor signal');
  await expect(page.getByRole('combobox', { name: 'Connected to, Green' })).toHaveValue('rail-pressure');
  await expect(page.getByRole('textbox', { name: 'Lead and pin, Blue' })).toHaveValue('blue: Controller A, pin 2, red');
  await page.getByRole('combobox', { name: 'Judged by, Blue' }).selectOption('sensor-reference');
  expect(await seriousIssues(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL(/\/traces\//);
  const [kept_] = (await (await page.request.get(`/api/jobs/${job}/traces`)).json()) as {
    head: { channels: object[] };
  }[];
  expect(kept_?.head.channels[1]).toMatchObject({
    judgedBy: { test: 'Three-wire sensor, reference', lower: 4.75, upper: 5.25 },
  });
});

test('how often a fault shows itself says for how long to record', async ({ page }) => {
  const job = v7();
  await page.request.post('/api/jobs', {
    data: { id: job, unitId: demoId('unit', 'PL-08'), complaint: 'cuts out, rarely' },
  });
  await page.goto(`/jobs/${job}`);
  await openStage(page, 'Complaint');
  await page.getByRole('button', { name: 'When, and what was done before?' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'intermittent' }).click();
  await dialog.getByLabel('Times', { exact: true }).fill('2');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByRole('alert')).toBeVisible();
  await dialog.getByLabel('In hours of running').fill('10');
  await expect(dialog).toContainText('record for 22 h, it then shows with 90 %');
  expect(await seriousIssues(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  const view = (await (await page.request.get(`/api/jobs/${job}`)).json()) as JobView;
  expect(JSON.stringify(view.plan)).toContain('It showed itself 2 times in 10 h: record for 22 h');
});
