import {
  expect,
  type APIRequestContext,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
} from '@playwright/test';
import { v7 } from 'uuid';
import { DEMO_PIN } from '../demo/fleet';
import { demoId } from '../demo/load';

const TEST = 'glow-plug-resistance';

/** The leads of the demo as they are listed, with the one that words.spec.ts adds while it runs. */
export const LEADS = String.raw`Odile Brandt(?:, Reader \d+)*(?:,| and) Runa Teller`;

/** A new job and test run for a demo unit, through the HTTP API; returns the run's id. */
export async function newRun(request: APIRequestContext, unit: string, base = '', test = TEST): Promise<string> {
  const [jobId, id] = [v7(), v7()];
  const job = await request.post(`${base}/api/jobs`, {
    data: { id: jobId, unitId: demoId('unit', unit), complaint: `e2e ${unit}` },
  });
  expect(job.status()).toBe(201);
  const run = await request.post(`${base}/api/runs`, { data: { id, jobId, test } });
  expect(run.status()).toBe(201);
  return id;
}

/** Puts somebody at the bench who is signed in on the device. */
export async function switchTo(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^At the bench/ }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
  const there = page.getByRole('button', { name: `At the bench: ${name}` });
  // Whoever may more is asked for the PIN.
  const pin = page.getByRole('dialog', { name: `The PIN of ${name}` }).getByLabel('PIN or password');
  await expect(there.or(pin)).toBeVisible();
  if (await pin.isVisible()) {
    await pin.fill(DEMO_PIN);
    await pin.press('Enter');
  }
  await expect(there).toBeVisible();
}

/** A fresh browser on which only these are signed in, the last of them at the bench. */
export async function freshDevice(
  browser: Browser,
  baseURL: string | undefined,
  ...names: readonly string[]
): Promise<BrowserContext> {
  const context = await browser.newContext({
    storageState: { cookies: [], origins: [] },
    ...(baseURL ? { baseURL } : {}),
  });
  for (const name of names)
    expect((await context.request.post('/api/session/sign-in', { data: { name, pin: DEMO_PIN } })).status()).toBe(200);
  return context;
}

export async function jobOf(request: APIRequestContext, run: string, base = ''): Promise<string> {
  return ((await (await request.get(`${base}/api/runs/${run}`)).json()) as { job: { id: string } }).job.id;
}

/** Opens a stage of a job: its line in the list, or what is next. */
export async function openStage(page: Page, name: string): Promise<Locator> {
  await page
    .getByRole('navigation', { name: 'Where it stands' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .click();
  const work = page.getByRole('region', { name, exact: true });
  const isNow = await page.getByRole('link', { name: new RegExp(`^${name}, now`) }).count();
  return isNow ? page.getByRole('region', { name: 'Now', exact: true }) : work;
}

/** The bench as a technician sees it. */
export class BenchPage {
  constructor(
    readonly page: Page,
    readonly runId: string,
  ) {}

  get field(): Locator {
    return this.page.locator('#entry');
  }
  get summary(): Locator {
    return this.page.getByTestId('summary');
  }
  get saved(): Locator {
    return this.page.getByTestId('saved');
  }

  async open(base = ''): Promise<void> {
    await this.page.goto(`${base}/runs/${this.runId}`);
    await expect(this.field).toBeFocused();
  }
  post(position: number | string): Locator {
    return this.page.locator(`[data-position="${position}"]`);
  }

  /** Types entries with the keyboard alone, Enter after each. */
  async type(...entries: string[]): Promise<void> {
    for (const entry of entries) {
      await this.page.keyboard.type(entry);
      await this.page.keyboard.press('Enter');
    }
  }
  async allSaved(): Promise<void> {
    await expect(this.saved).toHaveText('Everything is saved.');
  }
}
