import { expect, test } from '@playwright/test';
import { BenchPage, newRun } from './bench-page';
import { OwnServer } from './server';

test('the server dies in the middle: nothing typed is lost, all of it is sent once when it is back', async ({
  page,
  request,
  context,
}) => {
  const server = new OwnServer('outage');
  await server.start();
  try {
    const bench = new BenchPage(page, await newRun(request, 'PL-07', server.base));
    await bench.open(server.base);
    await bench.type('0.2', '0.6', '0.7');
    await bench.allSaved();
    await server.stop();
    await bench.type('0.6', 'OL', '0.8');
    await expect(bench.post(2)).toContainText('0.8');
    await expect(bench.saved).toContainText('No server. 3 entries kept in this browser');
    await server.start();
    await expect(bench.saved).toHaveText('Everything is saved.');
    await bench.type('0.7');
    await bench.allSaved();

    // The page is closed while something waits: another page of this browser sends it.
    await server.stop();
    await bench.type('201');
    await expect(bench.saved).toContainText('1 entry kept');
    await page.close();
    await server.start();
    const again = new BenchPage(await context.newPage(), bench.runId);
    await again.open(server.base);
    await expect(again.saved).toHaveText('Everything is saved.');
    const view = (await (await request.get(`${server.base}/api/runs/${bench.runId}`)).json()) as {
      readings: { entry: string }[];
    };
    expect(view.readings.map((r) => r.entry)).toEqual(['0.6', '0.7', '0.6', 'OL', '0.8', '0.7', '201']);
  } finally {
    await server.stop();
  }
});

test('an answer that gets lost on the way does not double the reading', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14'));
  await bench.open();
  await bench.type('0.2');
  await bench.allSaved();
  let lost = 0;
  await page.route('**/readings', async (route) => {
    const response = await route.fetch();
    if (lost++ === 0) await route.abort('connectionreset');
    else await route.fulfill({ response });
  });
  await bench.type('0.6');
  await expect(bench.saved).toHaveText('Everything is saved.');
  expect(lost).toBeGreaterThan(1);
  const view = (await (await request.get(`/api/runs/${bench.runId}`)).json()) as { readings: unknown[] };
  expect(view.readings).toHaveLength(1);
});

test('what the server fails at is said on every page, holds up no other test, and can be saved as a file', async ({
  page,
  request,
}) => {
  const [failing, other] = [await newRun(request, 'PL-14'), await newRun(request, 'PL-07')];
  await page.route(`**/runs/${failing}/readings`, (route) => route.fulfill({ status: 500, body: '{}' }));
  const bench = new BenchPage(page, failing);
  await bench.open();
  await bench.type('0.2', '0.6');
  const box = page.getByRole('complementary', { name: 'Entries that wait' });
  await box.getByText('1 entry waits').click();
  await expect(box).toContainText('1 entry of Ines Varga waits in this browser: The server could not store it (500).');
  await expect(bench.saved).not.toContainText('No server');
  // Another test goes on as if nothing were wrong, and the box stands there too.
  const next = new BenchPage(page, other);
  await next.open();
  await next.type('0.2', '0.7');
  await next.allSaved();
  await box.getByText('1 entry waits').click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    box.getByRole('button', { name: 'Save as a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('waiting-entries-for-a-lead.json');
  await page.unroute(`**/runs/${failing}/readings`);
  // It may go by itself before anybody asks for it.
  await box
    .getByRole('button', { name: 'Try again' })
    .click({ timeout: 5_000 })
    .catch(() => undefined);
  await expect(box).toBeHidden();
  const view = (await (await request.get(`/api/runs/${failing}`)).json()) as { readings: { entry: string }[] };
  expect(view.readings.map((r) => r.entry)).toEqual(['0.6']);
});
