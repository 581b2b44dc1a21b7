import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { seriousIssues } from './axe';
import { BenchPage, newRun } from './bench-page';

test('eight cylinders by keyboard alone, known before the last one', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-07'));
  await bench.open();
  await expect(page.locator('label[for=entry]')).toHaveText('Leads together');
  await bench.type('0.2', '0.6', '0.7', '201', '0.6', '0.8', 'o', '0.5w1.4');
  // Known before the last one.
  await expect(bench.summary).toHaveText(
    '7 of 8 measured: 4 is open, 5 is too high (201 Ω, limit 1.0 Ω) and 6 is unsteady (0.5~1.4).',
  );
  await bench.type('0,6');
  await expect(bench.summary).toHaveText(
    'Cylinder 4 is open, 5 is too high (201 Ω, limit 1.0 Ω) and 6 is unsteady (0.5~1.4); 1, 3, 7, 2 and 8 are in.',
  );
  await bench.allSaved();
  await expect(bench.post(5)).toHaveAccessibleName('cylinder 5, 201 ohm, too high, limit 1, saved');

  await page.reload();
  await expect(bench.summary).toContainText('Cylinder 4 is open');
  await expect(bench.post(6)).toContainText('0.5~1.4');
  // Typed with a comma, shown with the mark of whoever reads.
  await expect(bench.post(8)).toContainText('0.6');
});

test('a photo of the display is kept with its reading, and seen where the reading is explained', async ({
  page,
  request,
}) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-07'));
  await bench.open();
  await bench.type('0.2', '201');
  await bench.allSaved();
  const picture = { name: 'display.png', mimeType: 'image/png', buffer: readFileSync('docs/screenshots/yard.png') };
  await page.getByLabel('Photo of the display, cylinder 1').setInputFiles(picture);
  await expect(page.getByText('The photo is kept with cylinder 1.')).toBeVisible();
  await bench.post(1).click();
  const why = page.getByRole('region', { name: /^Why cylinder 1/ });
  await expect(why.getByRole('img', { name: 'display, cylinder 1, 201' })).toBeVisible();
  expect(await seriousIssues(page)).toEqual([]);
});

test('from the yard to the first reading without the mouse', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Open a job for PL-19' }).focus();
  await page.keyboard.press('Enter');
  // Typing begins in the first field.
  await expect(page.getByLabel('Complaint')).toBeFocused();
  await page.keyboard.type('Slow to start below freezing');
  await page.keyboard.press('Tab');
  await page.keyboard.type('3 210');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'This job' })).toContainText('Slow to start below freezing');
  await expect(page.getByRole('region', { name: 'Now', exact: true })).toContainText('Read the fault codes.');
  await page.getByRole('button', { name: 'Start Glow plugs, at the plug' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('#entry')).toBeFocused();
  await page.keyboard.type('0.2\n1.6\n');
  await expect(page.locator('[data-position="1"]')).toContainText('in');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('PL-19');
  await expect(page.getByText('3,210 h')).toBeVisible();
});

test('a set that is mostly bad: the limit convicts, not the company', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-11'));
  await bench.open();
  await bench.type('0.3', '3.4', 'OL', '0.9', '201', '1k2');
  await expect(bench.summary).toHaveText('Cylinder 2 is open and 1, 4 and 5 are too high; 3 is in.');
  await expect(bench.post(3)).toHaveAccessibleName(/, in/);
  await expect(page.getByText('Most of the set is bad.')).toBeVisible();
});

test('a correction keeps the old reading and says why', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('0.2', '0.6', '7');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Correct cylinder 2')).toBeVisible();
  await expect(page.getByText('Was 7')).toBeVisible();
  await page.getByRole('button', { name: 'typed wrong' }).click();
  await bench.type('0.7');
  await expect(bench.post(2)).toContainText('0.7');
  await bench.allSaved();
  const view = (await (await request.get(`/api/runs/${bench.runId}`)).json()) as {
    readings: { position: number; entry: string; why: string | null; supersedes: string | null; id: string }[];
  };
  expect(view.readings.map((r) => [r.position, r.entry, r.why])).toEqual([
    [1, '0.6', null],
    [2, '7', null],
    [2, '0.7', 'typed wrong'],
  ]);
  expect(view.readings[2]?.supersedes).toBe(view.readings[1]?.id);
});

test('an entry that cannot be read says what can, at the field, and stays', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('0.2');
  for (const [entry, message] of [
    ['0.6.1', 'cannot stand after a number'],
    ['abc', 'cannot be read'],
    ['12 V', 'unit of voltage'],
    ['0.9~0.4', 'high to low'],
    ['5 florp', 'no unit'],
  ] as const) {
    await bench.type(entry);
    await expect(page.getByRole('alert').filter({ hasText: message })).toBeVisible();
    await expect(bench.field).toHaveValue(entry);
    await expect(bench.field).toHaveAttribute('aria-invalid', 'true');
    await page.keyboard.press('Escape');
    await expect(bench.field).toHaveValue('');
  }
  await expect(bench.post(1)).toHaveAccessibleName(/not measured/);
});

test('the lead zero is asked for; without it a reading just above the limit is not decided', async ({
  page,
  request,
}) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('OL');
  await expect(page.getByRole('alert').filter({ hasText: 'broken lead' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Not now' }).click();
  await bench.type('1.3');
  await expect(bench.post(1)).toHaveAccessibleName(/cannot tell/);
  await page.keyboard.press('z');
  await bench.type('0.3');
  await expect(page.getByRole('button', { name: /leads zeroed 0.3/ })).toBeVisible();
  await bench.allSaved();
  await page.reload();
  await expect(page.getByRole('button', { name: /leads zeroed 0.3/ })).toBeVisible();
});

test('what must be true is confirmed once, kept, and printed where it is not', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await page.getByRole('button', { name: 'key off?' }).click();
  await page.getByLabel('Meter', { exact: true }).selectOption('Yard meter 2');
  await page.getByLabel('Engine temperature').fill('7');
  await page.getByLabel('Engine temperature').press('Enter');
  await bench.allSaved();
  await page.goto(`/runs/${bench.runId}/print`);
  await expect(page.getByText('Not confirmed: plug leads off')).toBeVisible();
  await expect(page.getByText('key off, engine at 7 °C')).toBeVisible();
  await expect(page.getByText('Yard meter 2, calibration due')).toBeVisible();
});

test('two people at one position: the second is told and decides', async ({ page, request }) => {
  // Nothing is heard live here: the second hand learns of the first by the server's refusal alone.
  await page.route('**/live', (route) => route.abort());
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('0.2');
  await bench.allSaved();
  await request.post(`/api/runs/${bench.runId}/readings`, {
    data: {
      id: '01935b2e-7f3a-7000-8000-' + String(Date.now()).slice(-12).padStart(12, '0'),
      position: 1,
      entry: '0.9',
      by: 'Tobin Marsh',
      takenAt: new Date().toISOString(),
    },
  });
  await bench.type('0.7');
  await expect(page.getByText(/Your 0.7 at cylinder 1 was not stored: Tobin Marsh read 0.9/)).toBeVisible();
  await expect(bench.post(1)).toContainText('0.9');
  await page.getByRole('button', { name: 'Send as correction' }).click();
  await expect(bench.post(1)).toContainText('0.7');
  await bench.allSaved();
});

test('a module’s supply in every engine state: a suspect until the hard ones are read', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-19', '', 'injector-module-supply'));
  await bench.open();
  await bench.type('48.1', '47.5');
  await expect(page.getByText('The module stays a suspect until the hard states are read')).toBeVisible();
  await bench.type('45.6', '47.0', '43.9');
  await expect(bench.summary).toHaveText(
    'Raised idle (cold) is too low (43.9 V, limit 45 V); key on, self-test buzz, cranking and idle are in.',
  );
  await expect(bench.post('cranking')).toHaveAccessibleName(/in, not liked/);
  await bench.allSaved();
});

test('shortcuts on ?', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys on the bench' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(bench.field).toBeFocused();
});
