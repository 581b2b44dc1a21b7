import { expect, type Locator, type Page, test } from '@playwright/test';
import { freshDevice } from './bench-page';

/** Opens the dialog for a list of these things; `within`: where its button is. */
async function openList(page: Page, within: Page | Locator, things: string) {
  await within.getByRole('button', { name: 'From a list' }).click();
  const dialog = page.getByRole('dialog', { name: `A list of ${things}` });
  const choose = (text: string): Promise<void> =>
    dialog
      .locator('input[type=file]')
      .setInputFiles({ name: `${things}.csv`, mimeType: 'text/csv', buffer: Buffer.from(text) });
  return { dialog, choose };
}

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
  const { dialog, choose } = await openList(page, page, 'instruments');
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

test('people as a list: who is new signs in with the PIN of the list, and is taken out by a list too', async ({
  browser,
  baseURL,
}) => {
  const context = await freshDevice(browser, baseURL, 'Odile Brandt');
  const page = await context.newPage();
  await page.goto('/people');
  const list = await (await context.request.get('/api/people/export')).text();
  const name = `Listed hand ${Date.now()}`;
  const { dialog, choose } = await openList(page, page, 'people');
  await choose(`${list}${name},technician,Quay Yard,yes,123456\r\n`);
  await expect(dialog.getByRole('alert')).toContainText('Digits in a row are too easy to guess.');
  await choose(`${list}${name},technician,Quay Yard,yes,902417\r\n`);
  await expect(dialog.getByText(`${name} technician, Quay Yard: new`)).toBeVisible();
  await dialog.getByRole('button', { name: 'Take 1 person' }).click();
  await expect(dialog).toBeHidden();
  const card = page.getByRole('listitem').filter({ hasText: name });
  await expect(card).toContainText('technician, Quay Yard');

  const own = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const signIn = (): ReturnType<typeof own.request.post> =>
    own.request.post('/api/session/sign-in', { data: { name, pin: '902417' } });
  expect((await signIn()).status()).toBe(200);
  await own.close();

  const gone = await openList(page, page, 'people');
  await gone.choose(`name,role,depot,signs_in\n${name},technician,Quay Yard,no\n`);
  await gone.dialog.getByRole('button', { name: 'Take 1 person' }).click();
  await expect(card).toContainText('not signing in any more');
  await context.close();
});

test('depots as a list: seen before they are taken, a zone that there is not refused at its line', async ({
  browser,
  baseURL,
}) => {
  const context = await freshDevice(browser, baseURL, 'Odile Brandt');
  const page = await context.newPage();
  await page.goto('/workshop');
  const list = await (await context.request.get('/api/depots/export')).text();
  const { dialog, choose } = await openList(page, page.getByRole('region', { name: 'Depots' }), 'depots');
  await choose(`${list}New Cut,Europe/Nowhere,EUR,yes\r\n`);
  await expect(dialog.getByRole('alert')).toContainText('There is no time zone "Europe/Nowhere"');
  await expect(dialog.getByRole('alert')).toContainText('/time_zone');
  await choose(list);
  await expect(dialog.getByText(/Quay Yard .*: unchanged/)).toBeVisible();
  await expect(dialog.getByText('The file says what is here already.')).toBeVisible();
  await choose(`${list}New Cut,Etc/UTC,EUR,yes\r\n`);
  await expect(dialog.getByText('New Cut Etc/UTC: new')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Take 1 depot' })).toBeEnabled();
  await context.close();
});
