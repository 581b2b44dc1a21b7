import { expect, type Page, test } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';
import { demoId } from '../demo/load';
import { OwnServer } from './server';

test.use({ serviceWorkers: 'allow', storageState: { cookies: [], origins: [] } });

/** Signs in as a person does, and waits until this device holds the application and the day's work. */
async function takeDevice(page: Page, base: string, name: string): Promise<void> {
  await page.goto(`${base}/sign-in`);
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('PIN or password').fill(DEMO_PIN);
  await page.getByLabel('PIN or password').press('Enter');
  await expect(page.getByRole('button', { name: `At the bench: ${name}` })).toBeVisible();
  await expect.poll(() => page.evaluate(isReady), { timeout: 120_000 }).toBe(true);
}

/** In the page: the service worker is in charge and the copy lies here. */
async function isReady(): Promise<boolean> {
  const registration = await navigator.serviceWorker.getRegistration('/');
  if (registration?.active?.state !== 'activated' || registration.installing) return false;
  const databases = await indexedDB.databases();
  if (!databases.some((d) => d.name === 'mudflat-device')) return false;
  return new Promise((done) => {
    const opening = indexedDB.open('mudflat-device');
    opening.onsuccess = () => {
      const all = opening.result.transaction('copy').objectStore('copy').count();
      all.onsuccess = () => {
        opening.result.close();
        done(all.result > 0);
      };
    };
    opening.onerror = () => done(false);
  });
}

test('slice', async ({ page }) => {
  page.on('console', (m) => console.log('console', m.type(), m.text()));
  page.on('pageerror', (e) => console.log('pageerror', e.message));
  const server = new OwnServer(4191);
  await server.start();
  try {
    await takeDevice(page, server.base, 'Tobin Marsh');
    await server.stop();
    const t = Date.now();
    await page.goto(`${server.base}/`);
    await expect(page.getByRole('heading', { name: 'Yard' })).toBeVisible();
    console.log('opened', Date.now() - t);
    await page.screenshot({ path: '/tmp/off1.png' });
    const t2 = Date.now();
    await page
      .getByRole('link', { name: /Job \d+/ })
      .first()
      .click();
    await expect(page.getByRole('navigation', { name: 'Where it stands' })).toBeVisible();
    console.log('job', Date.now() - t2);
    await page.screenshot({ path: '/tmp/off2.png', fullPage: true });
    await page.reload();
    await expect(page.getByRole('navigation', { name: 'Where it stands' })).toBeVisible();
    void demoId;
  } finally {
    await server.stop();
  }
});
