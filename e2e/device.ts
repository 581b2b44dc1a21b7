import { expect, type Page } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';

/** Signs in as a person does, and waits until this device holds the application and the day's work. */
export async function takeDevice(page: Page, base: string, name: string): Promise<void> {
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
