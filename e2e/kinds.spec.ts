import { expect, test } from '@playwright/test';
import { BenchPage, newRun } from './bench-page';

test('what has no number: pass and fail by one key, with a note', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14', '', 'injector-self-test'));
  await bench.open();
  await bench.type('p', 'ok');
  await page.keyboard.type('no click');
  await page.getByRole('button', { name: /^fail/ }).click();
  await bench.type('p');
  await expect(bench.summary).toHaveText('Cylinder 3 failed (no click); 1, 2 and 4 passed.');
  await expect(page.getByText('module, its supply and the common wire are proven')).toBeVisible();
  await bench.allSaved();
  await page.reload();
  await expect(bench.post(3)).toHaveAccessibleName(/fail no click.*failed, saved/);
});

test('large keys for what has no number', async ({ browser, request }) => {
  const context = await browser.newContext({ viewport: { width: 1024, height: 768 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  const bench = new BenchPage(page, await newRun(request, 'PL-14', '', 'pin-drag'));
  await page.goto(`/runs/${bench.runId}`);
  const pad = page.getByRole('group', { name: 'Pass or fail' });
  for (const key of ['Pass', 'Pass', 'Fail', 'Pass', 'Pass']) await pad.getByRole('button', { name: key }).tap();
  await expect(bench.summary).toContainText('Pin 3 failed');
  await context.close();
});

test('a sensor against a gauge: the pressure is typed with the volts', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-08', '', 'sensor-transfer'));
  await bench.open();
  await bench.type('0.51');
  await expect(page.getByText(/This test compares with a pressure/)).toBeVisible();
  await page.keyboard.press('Escape');
  await bench.type('0.51 @ 0', '1.14 @ 40 kPa', '2.11 @ 1 bar', '1.70 @ 180');
  await expect(bench.post('high')).toHaveAccessibleName(/too low, limit 3\.2/);
  await bench.post('high').click();
  await expect(page.getByText('At 180 kPa the sensor should show 3.38 V')).toBeVisible();
});

test('a slip of the prefix is asked about before it lands', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('0.2', '0.7', '700');
  await expect(page.getByText('700 Ω at cylinder 2?')).toBeVisible();
  await page.getByRole('button', { name: 'It shows 0.7 Ω' }).click();
  await expect(bench.post(2)).toHaveAccessibleName(/0\.7 ohm, in/);
  // Meant as typed: Enter once more.
  await bench.type('700');
  await page.keyboard.press('Enter');
  await expect(bench.post(3)).toHaveAccessibleName(/700 ohm, too high/);
  await bench.allSaved();
});

test('the meter is changed in the middle; each reading keeps its own', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await page.getByLabel('Meter').selectOption('Yard meter 2');
  await bench.type('0.3', '0.9');
  await page.getByLabel('Meter').selectOption('Bench meter 1');
  await expect(page.getByRole('button', { name: 'leads zeroed?' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.locator('#entry').focus();
  await page.keyboard.press('z');
  await bench.type('0.05', '0.65');
  await expect(bench.post(1)).toContainText('0.6 ±');
  await expect(bench.post(2)).toContainText('0.60 ±');
  await bench.allSaved();
  await page.reload();
  await expect(bench.post(1)).toContainText('0.6 ±');
  await expect(bench.post(2)).toContainText('0.60 ±');
  const csv = await (await request.get(`/api/runs/${bench.runId}/csv`)).text();
  expect(csv).toMatch(/1,0\.9,.*"Yard meter 2, leads 0\.3 ohm"/);
  expect(csv).toMatch(/2,0\.65,.*"Bench meter 1, leads 0\.05 ohm"/);
});

test('read again and different: the contact is named', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('0.2', '0.6');
  for (const entry of ['0.9', '0.7']) {
    await page.keyboard.press('ArrowUp');
    await page.getByRole('button', { name: 'read again' }).click();
    await bench.type(entry);
  }
  await expect(bench.post(1)).toHaveAccessibleName(/check again/);
  await bench.post(1).click();
  await expect(page.getByText('Read again it showed 0.6, 0.9 and 0.7')).toBeVisible();
});

test('the uncertainty opens, and a sum filled from the bench goes into the job’s record', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await page.getByLabel('Meter').selectOption('Yard meter 2');
  await bench.type('0.2', '1.0');
  await bench.post(1).click();
  await page.getByText(/and what it is made of/).click();
  await expect(page.getByRole('cell', { name: 'half a step of the digits' })).toBeVisible();

  await page.getByRole('button', { name: 'Sums' }).click();
  const drawer = page.getByRole('dialog');
  await drawer.getByLabel('Which').selectOption('plug-behind-harness');
  await expect(drawer.getByRole('textbox', { name: /^Plug/ })).toHaveValue('1.0');
  await expect(drawer.getByRole('textbox', { name: /^Feed/ })).toHaveValue('12');
  await drawer.getByRole('textbox', { name: /^Harness/ }).fill('x');
  await expect(drawer.getByText('"x" is no number.')).toBeVisible();
  await drawer.getByRole('textbox', { name: /^Harness/ }).fill('5');
  await expect(drawer.getByTestId('sum-result')).toContainText('Current 2 A');
  await expect(drawer.getByTestId('sum-result')).toContainText('16.67 %');
  await drawer.getByRole('button', { name: 'Put into the job’s record' }).click();
  await expect(drawer.getByText('It stands in the job’s record.')).toBeVisible();
  const { job } = (await (await request.get(`/api/runs/${bench.runId}`)).json()) as { job: { id: string } };
  await page.goto(`/jobs/${job.id}`);
  await page.getByText('Noted (1)').click();
  const noted = page.getByRole('list', { name: 'Noted' });
  await expect(noted).toContainText('Plug behind a harness');
  await expect(noted).toContainText('Current 2 A');
});

test('a fact of the part is asked once of a unit, and a limit that does not fit is proposed from the bench', async ({
  page,
  request,
}) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14', '', 'glow-plug-heat'));
  await bench.open();
  await page.getByRole('group', { name: 'Which plug rated voltage?' }).getByRole('button', { name: '7 V' }).click();
  await expect(page.getByRole('region', { name: 'Caution' })).toContainText('The plug is rated 7 V: never more');
  await expect(bench.field).toBeFocused();
  await bench.type('4.1', '4.4', 'never');
  await expect(page.getByRole('region', { name: 'Suspects' })).toContainText('too slow');

  const limit = page.getByRole('region', { name: 'Limit' });
  await limit.getByRole('button', { name: 'Propose another limit' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Where it is from').fill('Sheet of the plugs, page 2');
  await form.getByRole('button', { name: 'Keep as a draft' }).click();
  await expect(form.getByText('Give the lowest or the highest good value.')).toBeVisible();
  await form.getByLabel('At most').fill('5,5');
  await form.getByRole('button', { name: 'Keep as a draft' }).click();
  await expect(limit).toContainText('on the shelf as a draft');

  await page.goto(`/runs/${await newRun(request, 'PL-14', '', 'glow-plug-heat')}`);
  await expect(limit).toContainText('Limit up to 5.5 s');
  await expect(limit).toContainText('a draft that nobody has approved yet');
  await expect(page.getByRole('region', { name: 'Caution' })).toContainText('The plug is rated 7 V');
});
