import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import type { JobView } from '../application/views';
import { demoId } from '../demo/load';
import { jobOf, newRun, openStage } from './bench-page';

test('codes are pasted, explained before they are kept, and compared over the phases', async ({ page, request }) => {
  await page.goto(`/jobs/${await jobOf(request, await newRun(request, 'PL-14'))}`);
  const codes = await openStage(page, 'Codes');
  const field = codes.getByLabel('Typed or pasted');
  await field.fill('p0673 (stored, x3), SPN 653 FMI 5 florp');
  await expect(codes.getByText('glow plug, cylinder 3: circuit or open (SAE J2012)')).toBeVisible();
  await expect(codes.getByText('Left out, no code: florp')).toBeVisible();
  await codes.getByRole('button', { name: 'Keep 2 codes' }).click();
  await expect(codes.getByRole('row', { name: /P0673/ })).toContainText('as found: stored, 3 times');
  await expect(page.getByRole('region', { name: 'Plan' }).getByText('The codes point here.').first()).toBeVisible();

  await codes.getByRole('combobox', { name: /^Read/ }).selectOption('after-clearing');
  await field.fill('P0673 P0380');
  await codes.getByRole('button', { name: 'Keep 2 codes' }).click();
  await expect(codes.getByRole('row', { name: /P0673/ })).toContainText('came back');
  await expect(codes.getByRole('row', { name: /SPN 653/ })).toContainText('gone');
  await expect(codes.getByRole('row', { name: /P0380/ })).toContainText('new');
  await codes.getByRole('button', { name: 'take back P0380' }).click();
  await expect(codes.getByRole('row', { name: /P0380/ })).toHaveCount(0);
});

test('after something was unplugged with the key on, it asks whether the testing set them', async ({
  page,
  request,
}) => {
  await page.goto(`/jobs/${await jobOf(request, await newRun(request, 'PL-14', '', 'sensor-unplugged'))}`);
  const codes = await openStage(page, 'Codes');
  await codes.getByLabel('Typed or pasted').fill('P0473');
  await codes.getByRole('button', { name: 'These were caused by testing' }).click();
  await codes.getByRole('button', { name: 'Keep 1 code' }).click();
  await expect(
    codes.getByRole('row', { name: /P0473/ }).getByRole('cell', { name: 'caused by testing' }).last(),
  ).toBeVisible();
  await codes.getByRole('combobox', { name: /^Read/ }).selectOption('after-road-test');
  await codes.getByRole('button', { name: 'No codes there' }).click();
  await expect(codes.getByText('No codes after the road test.')).toBeVisible();
});

test('a file of the scan tool: codes come into the field, the rest is taken as evidence; a wrong line is named', async ({
  page,
}) => {
  const job = v7();
  await page.request.post('/api/jobs', {
    data: { id: job, unitId: demoId('unit', 'PL-16'), complaint: 'white smoke, misfires cold' },
  });
  await page.goto(`/jobs/${job}`);
  const stage = page.getByRole('region', { name: 'Now', exact: true });
  const file = (text: string) => ({ name: 'scan.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const field = stage.getByLabel(/file of the scan tool/);
  await field.setInputFiles(file('kind,name,value\nself-test,3,broken'));
  await expect(stage.getByText('passed or failed')).toBeVisible();
  await field.setInputFiles(
    file('kind,name,value,more\ncode,P0203,active,3\nself-test,3,failed,circuit open\nlive,battery,12.4 V,'),
  );
  await expect(stage.getByLabel(/Typed or pasted/)).toHaveValue('P0203 active x3');
  await stage.getByRole('button', { name: 'Take all 2 as evidence' }).click();
  await expect(page.getByRole('button', { name: 'Take all 2 as evidence' })).toBeHidden();
  await page.getByRole('button', { name: 'Keep 1 code' }).click();
  await expect
    .poll(async () => {
      const view = (await (await page.request.get(`/api/jobs/${job}`)).json()) as JobView;
      return [view.codes.length, view.evidence.map((e) => e.body.kind).join()];
    })
    .toEqual([1, 'scan-tool,scan-tool']);
});
