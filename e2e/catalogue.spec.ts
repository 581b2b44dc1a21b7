import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { LEADS, newRun, switchTo } from './bench-page';

const LEAD = 'Odile Brandt';

test('a test of our own from nothing: what only a person knows is asked, and it runs', async ({ page, request }) => {
  const name = `Gate switch ${Date.now()}`;
  await page.goto('/catalogue');
  await switchTo(page, LEAD);
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  const form = page.getByRole('dialog');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText('This must be said.')).toHaveCount(4);
  await form.getByLabel('Name').fill(name);
  await form.getByLabel('What is measured').fill('gate switch');
  await form.getByLabel('Positions are').selectOption('places');
  await form.getByLabel('Positions, one per line').fill('open\nclosed');
  await form.getByLabel('Where the probes go').fill('Across the two pins of the switch.');
  await form.getByLabel('What it proves').fill('Tells a worn switch from its wire.');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form).toBeHidden();
  const id = name.toLowerCase().replaceAll(' ', '-');
  await page.goto(`/runs/${await newRun(request, 'PL-14', '', id)}`);
  await page.locator('#entry').waitFor();
  await expect(page.locator('[data-position="closed"]')).toBeVisible();
});

test('a lead copies a test, and it is done on the same bench', async ({ page, request }) => {
  const id = `pins-${Date.now()}`;
  await page.goto('/catalogue');
  await page.getByLabel('Find a test').fill('pin by pin');
  await page.getByRole('button', { name: 'Under-cover harness, pin by pin with common' }).click();
  await page.getByRole('button', { name: 'Copy and change' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Name').fill(`Gate connector ${id}`);
  await form.getByLabel('Id').fill('Not An Id');
  await form.getByLabel('Positions, one per line').fill('pin A\npin B\npin B');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText(/Lower-case letters, digits and single hyphens/)).toBeVisible();
  await form.getByLabel('Id').fill(id);
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText(new RegExp(`A technician may not change the catalogue: ${LEADS} may`))).toBeVisible();
  await page.keyboard.press('Escape');
  await switchTo(page, LEAD);
  await page.getByRole('button', { name: 'Copy and change' }).click();
  await form.getByLabel('Name').fill(`Gate connector ${id}`);
  await form.getByLabel('Id').fill(id);
  await form.getByLabel('Positions, one per line').fill('pin A\npin B\npin B');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText('"pin B" is there twice.')).toBeVisible();
  await form.getByLabel('Positions, one per line').fill('pin A\npin B\npin C');
  await form.getByText('Advice, default rules').click();
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form).toBeHidden();
  await page.getByLabel('Find a test').fill(id);
  await expect(page.getByRole('button', { name: new RegExp(id) })).toContainText('our own');

  await page.goto(`/runs/${await newRun(request, 'PL-14', '', id)}`);
  await page.locator('#entry').waitFor();
  for (const entry of ['0.2', '0.6', 'OL', '0.5']) await page.keyboard.type(`${entry}\n`);
  await expect(page.getByTestId('summary')).toContainText('Pin B is open');
});

test('the catalogue goes out as a file that says nothing new when it comes back', async ({ page, request }, info) => {
  const file = info.outputPath('catalogue.json');
  await page.goto('/catalogue');
  const [out] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'All' }).click()]);
  await out.saveAs(file);
  expect((JSON.parse(readFileSync(file, 'utf8')) as { tests: unknown[] }).tests.length).toBeGreaterThan(50);
  const back = await request.post('/api/catalogue/import', {
    data: readFileSync(file, 'utf8'),
    headers: { 'content-type': 'application/json' },
  });
  const { rows } = (await back.json()) as { rows: { action: string }[] };
  expect(rows.length).toBeGreaterThan(50);
  expect(new Set(rows.map((r) => r.action))).toEqual(new Set(['unchanged']));
});

test('an instrument is added with its ranges, changed, and taken out of use', async ({ page }) => {
  const name = `Meter ${Date.now()}`;
  await page.goto('/instruments');
  await switchTo(page, LEAD);
  await page.getByRole('region', { name: 'North Sluice' }).getByRole('button', { name: 'Instrument' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Name').fill(name);
  await form.getByLabel('Ranges, one per line').fill('resistance 60');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText(/a line has five parts/)).toBeVisible();
  await form.getByLabel('Ranges, one per line').fill('resistance 60 0.4% 3 0.01');
  await form.getByLabel('Calibration due').fill('2020-01-01');
  await form.getByRole('button', { name: 'Keep' }).click();
  const card = page.getByRole('article').filter({ hasText: name });
  await expect(card).toContainText('to 60 Ω: 0.4 % + 3 counts of 0.01 Ω');
  await expect(card).toContainText('calibration was due 1 Jan 2020');
  await card.getByRole('button', { name: 'Change' }).click();
  await form.getByLabel('Calibration due').fill('2031-01-01');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(card).toContainText('calibration due 1 Jan 2031');
  await card.getByRole('button', { name: /out of use/ }).click();
  await expect(card).toHaveCount(0);
});
