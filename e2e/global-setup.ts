import { request, type FullConfig } from '@playwright/test';
import { DEMO_PIN, PERSONS } from '../demo/fleet';

/**
 * Where the sessions of the device lie on which most tests run: all invented persons are signed in on it, the
 * first of them at the bench.
 */
export const DEVICE = '.data/results/device.json';

export default async function signEverybodyIn(config: FullConfig): Promise<void> {
  const context = await request.newContext({ baseURL: config.projects[0]?.use.baseURL ?? '' });
  for (const { name } of [...PERSONS].reverse()) {
    const answer = await context.post('/api/session/sign-in', { data: { name, pin: DEMO_PIN } });
    if (!answer.ok()) throw new Error(`${name}: ${await answer.text()}`);
  }
  await context.storageState({ path: DEVICE });
  await context.dispose();
}
