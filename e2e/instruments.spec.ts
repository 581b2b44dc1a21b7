import { expect, test } from '@playwright/test';
import { freshDevice } from './bench-page';

test('instruments as a list: out, changed, seen before they are taken, and a bad line refused', async ({
  browser,
  baseURL,
}) => {
  const context = await freshDevice(browser, baseURL, 'Odile Brandt');
  const page = await context.newPage();
  await page.goto('/instruments');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'As a list' }).click();
  expect((await download).suggestedFilename()).toBe('instruments.csv');
  const list = await (await context.request.get('/api/instruments/export')).text();
  await page.getByRole('button', { name: 'From a list' }).click();
  const dialog = page.getByRole('dialog', { name: 'A list of instruments' });
  const choose = (text: string): Promise<void> =>
    dialog
      .locator('input[type=file]')
      .setInputFiles({ name: 'instruments.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  // A comma in a number parts it: all behind it would stand one column too far.
  await choose(
    'depot,name,kind,quantity,up_to,percent_of_reading,counts,resolution\nQuay Yard,M,dmm,voltage,6,0,5,3,0.1\n',
  );
  await expect(dialog.getByRole('alert')).toContainText('"0.1" stands under no column');
  await choose(`${list}Nowhere,M,multimeter,,,,,,,,\r\n`);
  await expect(dialog.getByRole('alert')).toContainText('There is no depot "Nowhere"');
  const name = `Listed meter ${Date.now()}`;
  await choose(`${list}Quay Yard,${name},multimeter,2027-03-01,,,voltage,60,0.5,2,0.01\r\n`);
  await expect(dialog.getByText(`${name} multimeter: new`)).toBeVisible();
  await dialog.getByRole('button', { name: 'Take 1 instrument' }).click();
  await expect(dialog).toBeHidden();
  const card = page.getByRole('region', { name: 'Quay Yard' }).getByRole('article').filter({ hasText: name });
  await expect(card).toContainText('calibration due 1 Mar 2027');
  await expect(card).toContainText('to 60 V: 0.5 % + 2 counts of 0.01 V');
  // Nobody else finds it in the way.
  await card.getByText('Out of use').click();
  await expect(card).toHaveCount(0);
  await context.close();
});
