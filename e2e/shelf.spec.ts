import { writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { BenchPage, LEADS, newRun, switchTo } from './bench-page';

const LEAD = 'Odile Brandt';
const unique = (): string => `e2e ${Date.now()}${Math.floor(Math.random() * 1e6)}`;

test('a technician’s draft judges at once, a lead approves it, and open jobs show what would change first', async ({
  page,
  request,
}) => {
  const source = unique();
  // A family that no other test of this file uses.
  const run = new BenchPage(page, await newRun(request, 'PL-11', '', 'vane-actuator-coil'));
  await run.open();
  await page.getByLabel('Meter').selectOption('Bench meter 1');
  await run.type('0.05', '4.85');
  await expect(run.post('coil')).toHaveAccessibleName(/, in/);
  await run.allSaved();

  await page.goto('/shelf?test=vane-actuator-coil');
  await page.getByRole('button', { name: 'Limits', exact: true }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Family').selectOption('L5-27');
  await form.getByLabel('Lower limit').fill('4.0');
  await form.getByLabel('Upper limit').fill('3.0');
  await form.getByRole('button', { name: 'See what it meets' }).click();
  await expect(form.getByText('Where is it from?')).toBeVisible();
  await form.getByRole('textbox', { name: 'Source' }).fill(source);
  await form.getByRole('button', { name: 'See what it meets' }).click();
  await expect(form.getByText('lower (4) is above upper (3).')).toBeVisible();
  await form.getByLabel('Lower limit').fill('3,0');
  await form.getByLabel('Upper limit').fill('4,5');
  await form.getByRole('button', { name: 'See what it meets' }).click();
  await form.getByRole('button', { name: 'Put on the shelf' }).click();

  const line = page.getByRole('button', { name: new RegExp(source) });
  await expect(line).toContainText('draft');
  await line.click();
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByText(new RegExp(`A technician may not approve limits: ${LEADS} may`))).toBeVisible();
  await switchTo(page, LEAD);
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(line).toContainText('approved');
  await line.click();
  await page.getByRole('button', { name: 'What would change in open jobs?' }).click();
  await expect(page.getByText(/coil: 4\.85/).first()).toBeVisible();
  await page.getByRole('button', { name: /Judge (this run|these \d+ runs) again/ }).click();
  await expect(page.getByText(/judged again\./)).toBeVisible();

  await page.goto(`/runs/${run.runId}`);
  await expect(run.post('coil')).toHaveAccessibleName(/too high/);
  await page.getByRole('link', { name: 'Why not another' }).click();
  await expect(page.getByRole('region', { name: 'Which limits judge' })).toContainText(`Applied by ${LEAD}.`);
  await expect(page.getByRole('region', { name: 'Which limits judge' })).toContainText(
    'Something more exact is there.',
  );
});

test('the next revision is shown side by side before it is taken', async ({ page }) => {
  const source = unique();
  await page.goto('/shelf?test=position-sensor-secondary');
  await switchTo(page, LEAD);
  for (const upper of ['1700', '1600']) {
    await page.getByRole('button', { name: 'Limits', exact: true }).click();
    const form = page.getByRole('dialog');
    await form.getByLabel('Family').selectOption('L6-109');
    await form.getByLabel('Upper limit').fill(upper);
    await form.getByRole('textbox', { name: 'Source' }).fill(source);
    await form.getByRole('button', { name: 'See what it meets' }).click();
    if (upper === '1600') {
      await expect(form.getByText('Replaces, as the next revision:')).toBeVisible();
      await expect(form.getByRole('row', { name: 'upper limit 1700 1600' })).toBeVisible();
    }
    await form.getByRole('button', { name: 'Put on the shelf' }).click();
    await expect(form).toBeHidden();
  }
  await page.getByRole('button', { name: new RegExp(source) }).click();
  await page.getByText('Earlier revision').click();
  await expect(page.getByText('upper limit 1700 → 1600')).toBeVisible();
});

test('a CSV file: what it would do, its errors by line, then taken', async ({ page }, info) => {
  const file = info.outputPath('limits.csv');
  const source = unique();
  const header = 'test;scope;of;quantity;unit;upper;source';
  await page.goto('/shelf');
  await switchTo(page, LEAD);
  await page.getByRole('button', { name: 'In', exact: true }).click();
  writeFileSync(file, `\uFEFF${header}\r\nvoltage-drop;family;L3-11;voltage;V;much;${source}\r\n`);
  await page.getByLabel('File', { exact: true }).setInputFiles(file);
  await expect(page.getByText('"much" is no number.')).toBeVisible();
  writeFileSync(file, `\uFEFF${header}\r\nvoltage-drop;family;L3-11;voltage;V;0,6;${source}\r\n`);
  await page.getByLabel('File', { exact: true }).setInputFiles([]);
  await page.getByLabel('File', { exact: true }).setInputFiles(file);
  await page.getByRole('button', { name: 'Take 1 entry' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByLabel('Find limits').fill(source);
  await expect(page.getByRole('button', { name: new RegExp(source) })).toContainText('up to 0.6 V');
});

test('a depot picks its house rule, and the next run is judged by it', async ({ page, request }) => {
  await page.goto('/shelf');
  await switchTo(page, LEAD);
  const depots = page.getByRole('region', { name: 'How the depots judge' });
  const school = depots.getByRole('group', { name: 'Quay Yard' }).getByLabel('House rule for Glow plugs, at the plug');
  await school.selectOption('strict');
  await expect(school).toBeEnabled();
  await expect(school).toHaveValue('strict');
  await expect(async () => {
    await page.goto(`/runs/${await newRun(request, 'PL-22')}`);
    await expect(page.getByRole('region', { name: 'Limit' })).toContainText('house rule “strict”', { timeout: 3000 });
  }).toPass();
  await page.goto('/shelf');
  await school.selectOption('tolerant');
  await expect(school).toHaveValue('tolerant');
});
