import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import { demoId } from '../demo/load';

const TEST = 'glow-plug-resistance';

/** A new job and test run for a demo unit, through the HTTP API; returns the run's id. */
export async function newRun(request: APIRequestContext, unit: string, base = '', test = TEST): Promise<string> {
  const [jobId, id] = [v7(), v7()];
  const job = await request.post(`${base}/api/jobs`, { data: { id: jobId, unitId: demoId('unit', unit), complaint: `e2e ${unit}`, by: 'Tester' } });
  expect(job.status()).toBe(201);
  const run = await request.post(`${base}/api/runs`, { data: { id, jobId, test, by: 'Tester' } });
  expect(run.status()).toBe(201);
  return id;
}

/** The bench as a technician sees it. */
export class BenchPage {
  constructor(readonly page: Page, readonly runId: string) {}

  get field(): Locator { return this.page.locator('#entry'); }
  get summary(): Locator { return this.page.getByTestId('summary'); }
  get saved(): Locator { return this.page.getByTestId('saved'); }

  async open(base = ''): Promise<void> {
    await this.page.goto(`${base}/runs/${this.runId}`);
    await expect(this.field).toBeFocused();
  }
  post(position: number | string): Locator { return this.page.locator(`[data-position="${position}"]`); }

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
