import { type ChildProcess, spawn } from 'node:child_process';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import { demoId } from '../demo/load';

/**
 * A vee eight as the bench reads it, one bank, then the other, at a meter that shows plug 5 open and lets 4
 * wander.
 */
export const VEE_EIGHT = {
  order: [1, 3, 5, 7, 2, 4, 6, 8],
  open: 5,
  meter: ['--fault', 'plug 5 open', '--wander', '4', '--vee'],
} as const;

/** The simulated meter that ships, as a process of its own, and a hand that moves its probes. */
export class SimulatedMeterProcess {
  private child: ChildProcess | null = null;
  readonly page: string;

  constructor(readonly port: number) {
    this.page = `http://127.0.0.1:${port + 1}`;
  }

  async start(...options: readonly string[]): Promise<void> {
    this.child = spawn(
      'node_modules/.bin/tsx',
      ['cli/meter.ts', '--port', String(this.port), '--page', String(this.port + 1), ...options],
      {
        stdio: 'ignore',
        detached: true,
      },
    );
    await expect.poll(() => fetch(`${this.page}/state`).then((r) => r.ok, () => false), { timeout: 60_000 }).toBe(true); // prettier-ignore
  }
  stop(): void {
    if (this.child?.pid) process.kill(-this.child.pid, 'SIGKILL');
    this.child = null;
  }
  private async send(path: string, body: object): Promise<void> {
    const answer = await fetch(`${this.page}${path}`, { method: 'POST', body: JSON.stringify(body) });
    expect(answer.status).toBe(200);
  }
  probe = (at: number | string): Promise<void> => this.send('/probe', { at });
  power = (on: boolean): Promise<void> => this.send('/power', { on });
  mode = (mode: string): Promise<void> => this.send('/mode', { mode });
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Both hands on the probes: touches, waits until the next position is framed, lifts, and moves on. */
export class ProbeHands {
  constructor(
    private readonly page: Page,
    private readonly meter: SimulatedMeterProcess,
  ) {}

  /** What the bench waits for. */
  get framed() {
    return this.page.locator('label[for="entry"]');
  }
  get listening() {
    return this.page.getByRole('region', { name: 'Listening' });
  }
  async zero(): Promise<void> {
    await this.meter.probe('together');
    await expect(this.framed).not.toHaveText('Leads together', { timeout: 8000 });
    await this.lift();
  }
  async touch(position: number): Promise<void> {
    await this.meter.probe(position);
    // Too quick for the bench: it asks whether it is the last one again. Lifted and touched anew it is the
    // next one.
    const again = this.listening.getByText('again?');
    const taken = this.framed.filter({ hasNotText: `Cylinder ${position}` });
    const isHeard = await again.or(taken).waitFor({ timeout: 7000 }).then(() => true, () => false); // prettier-ignore
    // Where the machine was too busy to see the lift, it is the last touch still: a person lifts once more.
    if (!isHeard || (await again.isVisible())) {
      await this.lift();
      await this.meter.probe(position);
    }
    await expect(this.framed).not.toHaveText(`Cylinder ${position}`, { timeout: 12_000 });
    await this.lift();
  }
  /** Nothing is shown on it: the bench asks, and the probes touched together say yes. */
  async touchOpen(position: number): Promise<void> {
    await this.meter.probe(position);
    await expect(this.listening.getByText('Is it open?')).toBeVisible({ timeout: 8000 });
    await this.meter.probe('off');
    await pause(300);
    await this.meter.probe('together');
    await pause(350);
    await this.lift();
    await expect(this.framed).not.toHaveText(`Cylinder ${position}`);
  }
  /** All of `VEE_EIGHT`. */
  async readEight(): Promise<void> {
    for (const p of VEE_EIGHT.order) await (p === VEE_EIGHT.open ? this.touchOpen(p) : this.touch(p));
  }
  async lift(): Promise<void> {
    await this.meter.probe('off');
    await pause(700);
  }
}

export async function openListening(page: Page, run: string): Promise<void> {
  await page.goto(`/runs/${run}`);
  await page.getByRole('button', { name: 'Listen' }).click();
  // OL: the probes lie on nothing.
  await expect(page.getByLabel('The meter shows')).toHaveText('OL', { timeout: 30_000 });
}

/** A card as a lead enters it. */
export async function addMeter(
  lead: APIRequestContext,
  name: string,
  depot: string,
  link: object | null,
  who = 'Odile Brandt',
): Promise<{ id: string; status: number; text: string }> {
  const id = v7();
  const answer = await lead.post('/api/instruments', {
    data: {
      id,
      depotId: demoId('depot', depot),
      name,
      by: who,
      instrument: {
        kind: 'multimeter',
        accuracy: [
          { quantity: 'resistance', upTo: 6, percentOfReading: 0.8, counts: 5, resolution: 0.001 },
          { quantity: 'resistance', upTo: 60, percentOfReading: 0.8, counts: 5, resolution: 0.01 },
          { quantity: 'resistance', upTo: 600, percentOfReading: 0.8, counts: 3, resolution: 0.1 },
        ],
      },
      ...(link ? { link } : {}),
    },
  });
  return { id, status: answer.status(), text: await answer.text() };
}

/** The meter in use of a run. */
export async function takeMeter(request: APIRequestContext, run: string, instrumentId: string): Promise<void> {
  const answer = await request.post(`/api/runs/${run}/circumstances`, {
    data: {
      id: v7(),
      by: 'Ines Varga',
      recordedAt: new Date().toISOString(),
      instrumentId,
      leadZero: null,
      states: [],
      condition: {},
    },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}
