import { expect, test } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';
import { BenchPage, newRun } from './bench-page';
import config from '../playwright.config';

/**
 * A name that is no loopback: over plain HTTP its pages are no secure context, as on a tablet in the yard.
 */
const NAME = 'tablet.invalid';
const PORT = new URL(config.use?.baseURL ?? '').port;
const { launchOptions = {} } = config.use ?? {};
test.use({
  storageState: { cookies: [], origins: [] },
  launchOptions: {
    ...launchOptions,
    args: [...(launchOptions.args ?? []), `--host-resolver-rules=MAP ${NAME} 127.0.0.1`],
  },
});

test('on a tablet over plain HTTP readings are saved, and say so', async ({ page, playwright, baseURL }) => {
  const base = `http://${NAME}:${PORT}`;
  await page.goto(`${base}/sign-in`);
  expect(await page.evaluate(() => [window.isSecureContext, 'locks' in navigator])).toEqual([false, false]);
  await page.getByLabel('Name').fill('Tobin Marsh');
  await page.getByLabel('PIN or password').fill(DEMO_PIN);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'At the bench: Tobin Marsh' })).toBeVisible();
  const here = await playwright.request.newContext({ ...(baseURL ? { baseURL } : {}) });
  await here.post('/api/session/sign-in', { data: { name: 'Tobin Marsh', pin: DEMO_PIN } });
  const bench = new BenchPage(page, await newRun(here, 'PL-14'));
  await bench.open(base);
  await bench.type('0.1', '0.7', 'OL', '0.7', '0.7');
  await bench.allSaved();
  await page.reload();
  await expect(bench.post(2)).toHaveAccessibleName(/OL.*saved/);
  await here.dispose();
});
