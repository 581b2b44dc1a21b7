import { readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { newRun, switchTo } from './bench-page';
import pg from 'pg';
import { Hands } from './hands';
import { OwnServer } from './server';

/** An empty database on the server of this run, for a workshop of its own. */
async function emptyDatabase(): Promise<string> {
  const base = process.env.DATABASE_URL ?? '';
  const name = `own_${process.pid}_${Date.now()}`;
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.href;
}
const prepare = (url: string, kind: '--own' | '--demo') =>
  spawnSync('node_modules/.bin/tsx', ['scripts/prepare.ts', kind], {
    env: { ...process.env, DATABASE_URL: url },
    encoding: 'utf8',
  });

/** In the page: who may open this device while there is no server. */
const peopleOfDevice = (): Promise<IDBValidKey[]> =>
  new Promise((done, fail) => {
    const opening = indexedDB.open('mudflat-device');
    opening.onerror = () => fail(new Error('there is no device store'));
    opening.onsuccess = () => {
      const all = opening.result.transaction('people').objectStore('people').getAllKeys();
      all.onsuccess = () => done(all.result);
    };
  });

let server: OwnServer | null = null;
test.afterEach(async () => server?.stop());

test('an empty workshop is set up, and comes to its first report', async ({ browser }, info) => {
  test.slow();
  const url = await emptyDatabase();
  const code = /set-up code (\S+)/.exec(prepare(url, '--own').stdout)?.[1] ?? '';
  expect(code).not.toBe('');
  server = new OwnServer('workshop', { DATABASE_URL: url });
  await server.start();
  const context = await browser.newContext({ baseURL: server.base, storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  const h = new Hands(page);
  await page.goto('/');
  await expect(page).toHaveURL(/\/set-up$/);

  // What is wrong is said at its field, and what was typed stays.
  await h.write(page.getByLabel('Code', { exact: true }), 'AAAAA-AAAAA');
  await h.write(page.getByLabel('Its name'), 'Lock End Workshop');
  const lead = page.getByRole('region', { name: 'The first lead' });
  await h.write(lead.getByLabel('Name'), 'Ada Wick');
  await h.write(lead.getByLabel('Password'), 'short');
  await h.write(lead.getByLabel('Once more'), 'short');
  const depot = page.getByRole('region', { name: 'Its depot' });
  await h.write(depot.getByLabel('Name'), 'Lock End');
  await depot.getByLabel('Time zone').selectOption('Etc/UTC');
  const go = page.getByRole('button', { name: 'Set up and sign in' });
  await h.tap(go);
  await expect(lead.getByText('Type 10 characters at least.')).toBeVisible();
  await h.write(lead.getByLabel('Password'), 'heron on a post');
  await h.write(lead.getByLabel('Once more'), 'heron on a post');
  await h.tap(go);
  await expect(page.getByText('This is not the code that the command has printed last.')).toBeVisible();
  await h.write(page.getByLabel('Code', { exact: true }), code.toLowerCase());
  await h.tap(go);

  // An empty yard says what to do first; it is no demo.
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps.getByRole('listitem').first()).toContainText('An engine family, to do');
  // Whoever has set it up goes on without the server too, as after any other sign-in.
  expect(await page.evaluate(peopleOfDevice)).toEqual(['Ada Wick']);
  await expect(page.getByText('demo', { exact: true })).toBeHidden();

  await h.tap(steps.getByRole('link', { name: /^An engine family/ }));
  await h.tap(page.getByRole('button', { name: 'Engine family', exact: true }));
  const dialog = page.getByRole('dialog');
  await h.write(dialog.getByLabel('Code'), 'V8-7');
  await dialog.getByLabel('Layout').selectOption('vee');
  await h.write(dialog.getByLabel('Cylinders'), '8');
  await dialog.getByLabel('Numbering').selectOption('odd-even');
  await h.write(dialog.getByLabel('Firing order'), '1-2-7-8-4-5-6-3');
  await expect(dialog.getByRole('figure')).toContainText('Right bank');
  await h.tap(dialog.getByRole('button', { name: 'Save' }));
  await expect(page.getByRole('region', { name: 'Engine families' })).toContainText('8 in a vee, 12 V');

  // Units from a list: its errors by line first.
  await h.tap(page.getByRole('button', { name: 'From a list: units' }));
  const file = (text: string) => ({ name: 'units.csv', mimeType: 'text/csv', buffer: Buffer.from(text, 'latin1') });
  await dialog.getByLabel('File').setInputFiles(file('fleet_number;kind;depot;familly\nLE-1;Tipper;Lock End;V8-7\n'));
  await expect(dialog.getByText(/The column "familly" is not known. Did you mean "family"/)).toBeVisible();
  await dialog
    .getByLabel('File')
    .setInputFiles(file('fleet_number;kind;depot;family\nLE-1;R\xfcttler;Lock End;V8-7\nLE-2;Pump;Lock End;V8-7\n'));
  await expect(dialog.getByText('LE-1 Rüttler: new')).toBeVisible();
  await h.tap(dialog.getByRole('button', { name: /^Take 2/ }));
  await expect(page.getByRole('region', { name: 'Units' })).toContainText('LE-1 Rüttler');
  await h.tap(page.getByRole('button', { name: 'Change LE-2' }));
  await dialog.getByLabel('It is').selectOption('yes');
  await h.tap(dialog.getByRole('button', { name: 'Save' }));
  await expect(page.getByRole('region', { name: 'Units' })).toContainText('LE-2 Pump, not used any more');

  // To the first report.
  await h.tap(page.getByRole('link', { name: 'Yard' }));
  await expect(steps.getByRole('listitem').nth(1)).toContainText('A unit, done');
  await h.openJob('LE-1', 'White smoke when cold');
  await h.tap(page.getByRole('button', { name: 'Start Glow plugs, at the plug' }));
  await expect(page.locator('#entry')).toBeFocused();
  for (const entry of ['0.1', '0.7', 'OL', '0.7', '0.7', '0.7', '0.7', '0.7', '0.7']) {
    await page.keyboard.type(entry);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByTestId('saved')).toHaveText('Everything is saved.');
  const run = /runs\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? '';
  const pdf = await context.request.get(`/api/runs/${run}/pdf`);
  expect([pdf.status(), (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
  info.annotations.push({
    type: 'taps',
    description: `${h.taps} taps and ${h.keys} keys from nothing to the first report`,
  });

  // It is nobody's demo: the demo refuses the database and leaves it as it is.
  const refused = prepare(url, '--demo');
  expect([refused.status, refused.stderr]).toEqual([3, expect.stringContaining('a workshop’s own data')]);
  expect((await context.request.get('/api/jobs')).status()).not.toBe(500);
  await page.goto('/set-up');
  await expect(page).toHaveURL(/\/$/);
  await context.close();
});

test('a starter kit goes out of one workshop, and says nothing new when it comes back', async ({ page }) => {
  await page.goto('/workshop');
  await switchTo(page, 'Odile Brandt');
  const kit = page.getByRole('region', { name: 'Starter kit' });
  const [out] = await Promise.all([
    page.waitForEvent('download'),
    kit.getByRole('link', { name: 'Pass ours on' }).click(),
  ]);
  const file = await out.path();
  const read = JSON.parse(readFileSync(file, 'utf8')) as { families: unknown[]; limits: unknown[] };
  expect(read.families.length).toBeGreaterThan(3);
  await kit.getByRole('button', { name: 'Take one in' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('File').setInputFiles(file);
  await expect(dialog.getByText(/^engine family L4-20: unchanged$/)).toBeVisible();
  await expect(dialog.getByText(/: new$/)).toHaveCount(0);
  await dialog
    .getByLabel('File')
    .setInputFiles({ name: 'a.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"another"}') });
  await expect(dialog.getByRole('alert').first()).toBeVisible();
});

test('a connector with its pins is entered once, and the bench shows the pins of the cylinder that is next', async ({
  page,
  request,
}) => {
  await page.goto('/service-data');
  await switchTo(page, 'Odile Brandt');
  await page.getByLabel('Engine family').selectOption('L5-27');
  const section = page.getByRole('region', { name: 'Connectors' });
  await section.getByRole('button', { name: 'Connector' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Name').fill('Loom connector');
  await form.getByLabel('Pins, one per line').fill('1; plug 1; red; relay 87; 1\n2; plug 2; red; relay 87; two\n3');
  await form.getByLabel('Pins in each row').fill('2, 2');
  await form.getByLabel('Where it is from').fill('sheet 9, invented');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText('Line 2: "two" is no cylinder')).toBeVisible();
  await form.getByLabel('Pins, one per line').fill('1; plug 1; red; relay 87; 1\n2; plug 2; red; relay 87; 2\n3');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText('The rows show 4 pins, and 3 are listed.')).toBeVisible();
  await form.getByLabel('Pins in each row').fill('2, 1');
  await expect(form.getByRole('img', { name: /^Loom connector, from the wire side/ })).toBeVisible();
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(section.getByText('pin 2: plug 2, red, to relay 87')).toBeVisible();

  await page.goto(`/runs/${await newRun(request, 'PL-11', '', 'glow-plug-through-harness')}`);
  await expect(page.locator('#entry')).toBeFocused();
  // The leads first; then the first cylinder is next.
  await page.keyboard.type('0.1');
  await page.keyboard.press('Enter');
  const panel = page.locator('details', { hasText: 'Connectors of this engine' });
  if ((await panel.getAttribute('open')) === null) await panel.getByText('Connectors of this engine').click();
  await expect(panel.getByText('pin 1: plug 1, red, to relay 87')).toBeVisible();
  // Taken away again: the record keeps it, the screens do not show it.
  await page.goto('/service-data');
  await page.getByLabel('Engine family').selectOption('L5-27');
  await section.getByRole('button', { name: 'Change Loom connector' }).click();
  await form.getByRole('button', { name: 'Take it away' }).click();
  await expect(section.getByText('Loom connector')).toHaveCount(0);
});
