import { expect, test } from '@playwright/test';
import { PERSONS } from '../demo/fleet';
import { freshDevice } from './bench-page';
import { everyPage } from './every-page';

// As a lead sees it: words.spec.ts, which goes to all of them in another language.
const VIEWER = PERSONS[5];
test(`every page of the demo as ${VIEWER.name} (${VIEWER.role}) sees it`, async ({ browser, baseURL }) => {
  const context = await freshDevice(browser, baseURL, VIEWER.name);
  const { wrong, visited } = await everyPage(context, await context.newPage(), baseURL ?? '', false);
  await context.close();
  expect(wrong).toEqual([]);
  expect(visited.size).toBeGreaterThan(25);
});
