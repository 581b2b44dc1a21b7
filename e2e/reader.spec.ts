import { expect, test } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';
import { v7 } from 'uuid';
import { BenchPage, freshDevice, newRun } from './bench-page';

// Numbers, units and dates as whoever reads has chosen; what is kept stays what was typed, with its unit.

test('a comma and kilopascals for one, a point and psi for another, and one record', async ({ browser, baseURL }) => {
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  const name = `Metric ${Date.now() % 100_000}`;
  const pin = `${DEMO_PIN}3`;
  await lead.request.post('/api/people', { data: { id: v7(), name, role: 'technician', depotId: null, pin } });
  const run = await newRun(lead.request, 'PL-22', '', 'supply-pressure');

  const context = await browser.newContext({ storageState: { cookies: [], origins: [] }, baseURL: baseURL ?? '' });
  await context.request.post('/api/session/sign-in', { data: { name, pin } });
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('button', { name: `At the bench: ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Numbers, units and language' }).click();
  const dialog = page.getByRole('dialog', { name: 'Numbers, units and language' });
  await dialog.getByLabel('Decimal mark').selectOption('comma');
  await dialog.getByLabel('Units').selectOption('metric');
  await dialog.getByLabel('Dates').selectOption('ymd');
  await expect(dialog.getByLabel('What it comes to')).toContainText('2026-11-23');
  await dialog.getByRole('button', { name: 'Show it so' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-locale', /(?=.*"comma")(?=.*"metric")(?=.*"ymd")/);

  const bench = new BenchPage(page, run);
  await bench.open();
  await expect(page.locator('form').filter({ has: bench.field })).toContainText('kPa');
  await bench.type('210,5', '690');
  await expect(bench.summary).toContainText('690 kPa, limit 827,4 kPa');
  await expect(bench.post('cranking')).toContainText('210,5');
  await expect(bench.saved).toContainText('Everything is saved');

  const other = await lead.newPage();
  const theirs = new BenchPage(other, run);
  await theirs.open();
  await expect(theirs.summary).toContainText('100.1 psi, limit 120 psi');
  await expect(theirs.post('running')).toContainText('690 kPa');
  const csv = await (await context.request.get(`/api/runs/${run}/csv`)).text();
  expect(csv).toContain('690 kPa');
  await lead.close();
  await context.close();
});

test('nonsense for a locale is refused at its field', async ({ request }) => {
  const answer = await request.post('/api/session/locale', {
    data: { locale: { language: 'en', decimal: 'dot', units: 'given', dates: 'dmy' } },
  });
  expect(answer.status()).toBe(422);
  expect(JSON.stringify(await answer.json())).toContain('/locale/decimal');
  const unknown = await request.post('/api/session/locale', {
    data: { locale: { language: 'xx', decimal: 'comma', units: 'given', dates: 'dmy' } },
  });
  expect(JSON.stringify(await unknown.json())).toContain('There is no translation');
  expect((await request.get('/words/xx')).status()).toBe(404);
  expect((await request.get('/words/..%2Fpackage')).status()).toBe(404);
});
