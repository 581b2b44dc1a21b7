import { expect, test } from '@playwright/test';
import { demoId } from '../demo/load';
import { RULES_OF_COLOUR, seriousIssues } from './axe';
import { BenchPage, jobOf, newRun } from './bench-page';

const THEMES = ['shed', 'night', 'sun'] as const;

test('the light that was chosen is there from the beginning', async ({ page }) => {
  for (const theme of THEMES) {
    await page.goto('/');
    await page.getByLabel('Light').selectOption(theme);
    await page.reload();
    await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
  }
});

test('no serious accessibility issue, in any light', async ({ page }) => {
  const job = await jobOf(page.request, demoId('run', 'PL-23'));
  for (const url of [
    '/',
    `/jobs/${job}`,
    `/runs/${demoId('run', 'PL-23')}`,
    `/runs/${demoId('run', 'PL-08')}`,
    `/runs/${demoId('run', 'PL-23')}/print`,
    '/shelf?test=glow-plug-resistance',
    '/catalogue',
    '/circuits',
    '/people',
    '/workshop',
    '/service-data',
    '/waits',
    '/instruments',
    `/runs/${demoId('run', 'PL-08', 'sensor-transfer')}`,
    `/runs/${demoId('run', 'PL-07', 'injector-self-test')}`,
  ]) {
    await page.goto(url);
    await expect(page.getByRole('main')).toBeVisible();
    for (const theme of THEMES) {
      await page.evaluate(async (chosen) => {
        document.documentElement.dataset.theme = chosen;
        await Promise.allSettled(document.getAnimations().map((a) => a.finished));
      }, theme);
      // A light changes colours and nothing else: once for all rules.
      const rules = theme === THEMES[0] ? undefined : RULES_OF_COLOUR;
      expect(await seriousIssues(page, rules), `${url} in ${theme}`).toEqual([]);
    }
  }
});

test('on a tablet the bar over a page leaves the height to the page', async ({ browser, request }) => {
  const job = await jobOf(request, demoId('run', 'PL-23'));
  const context = await browser.newContext({ viewport: { width: 768, height: 1180 }, hasTouch: true });
  const page = await context.newPage();
  for (const url of ['/', '/workshop', `/jobs/${job}`]) {
    await page.goto(url);
    for (const width of [768, 820, 1024, 1180]) {
      await page.setViewportSize({ width, height: 1180 });
      // Two rows of 44 px, a line between them and a border.
      await expect
        .poll(async () => (await page.getByRole('banner').boundingBox())?.height, { message: `${url} at ${width}` })
        .toBeLessThanOrEqual(100);
    }
  }
  await context.close();
});

test('on a phone no page is wider than the glass, and what is picked comes into view', async ({ browser, request }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  const job = await jobOf(request, demoId('run', 'PL-23'));
  for (const url of [
    '/',
    `/jobs/${job}`,
    `/jobs/${job}/report?voice=payer`,
    '/shelf?test=glow-plug-resistance',
    '/catalogue',
    '/circuits',
    '/instruments',
    '/people',
    '/workshop',
    '/service-data',
  ]) {
    await page.goto(url);
    await expect(page.getByRole('main')).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth), url).toBeLessThanOrEqual(390);
    expect(await seriousIssues(page), url).toEqual([]);
  }
  await page.goto('/circuits');
  await page.getByRole('button', { name: 'Hall sensor' }).tap();
  await expect(page.getByRole('heading', { name: 'Hall sensor' })).toBeInViewport();
  await page.goto('/catalogue');
  await page.getByRole('button', { name: 'Injectors, return flow' }).tap();
  await expect(page.getByRole('heading', { name: 'Injectors, return flow' })).toBeInViewport();
  await context.close();
});

for (const unit of ['PL-07', 'PL-03', 'PL-11', 'PL-22']) {
  test(`the bench of ${unit} fits 1280x800 without scrolling`, async ({ page }) => {
    await page.goto(`/runs/${demoId('run', unit)}`);
    const fits = await page.evaluate(
      () => document.documentElement.scrollHeight <= innerHeight && document.documentElement.scrollWidth <= innerWidth,
    );
    expect(fits).toBe(true);
    for (const name of ['Suspects', 'Next', 'Caution']) {
      const part = page.getByRole('region', { name, exact: true });
      if (await part.count()) await expect(part).toBeInViewport({ ratio: 0.9 });
    }
    await expect(page.locator('#entry')).toBeInViewport({ ratio: 1 });
    await expect(page.getByTestId('saved')).toBeInViewport({ ratio: 1 });
  });
}

test('posts say what they have the height and the width for', async ({ page }) => {
  await page.goto(`/runs/${demoId('run', 'PL-23')}`);
  const corrected = page.getByText('201 ± 4', { exact: true });
  await expect(corrected).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 620 });
  await expect(corrected).toBeHidden();
  // The longest entry stays inside its post, whatever the width.
  for (const width of [1280, 1024, 390]) {
    await page.setViewportSize({ width, height: 800 });
    const post = page.locator('[data-position="6"]');
    await expect(post.getByText('0.5~1.4', { exact: true })).toBeVisible();
    await expect
      .poll(() =>
        post.evaluate((p) => {
          const range = document.createRange();
          const entry = [...p.querySelectorAll('*')].find((e) => e.textContent === '0.5~1.4' && !e.children.length);
          if (entry) range.selectNodeContents(entry);
          return range.getBoundingClientRect().right - p.getBoundingClientRect().right;
        }),
      )
      .toBeLessThanOrEqual(1);
  }
});

test('posts stay where they are, and say what they said, while one of them is corrected', async ({ page, request }) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-07'));
  await bench.open();
  // The zero of the leads, and all eight.
  await bench.type('0.2', '0.6', '0.7', '0.6', '0.7', '0.6', '0.7', '0.6', '0.7');
  await bench.allSaved();
  const places = (): Promise<(number | undefined)[][]> =>
    Promise.all(
      [1, 8].map(async (p) => {
        const box = await bench.post(p).boundingBox();
        return [box?.x, box?.y, box?.width, box?.height];
      }),
    );
  const details = page.locator('.post-detail:visible');
  const [before, said] = [await places(), await details.count()];
  expect(said).toBeGreaterThan(8);
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('button', { name: 'terminal cleaned' })).toBeVisible();
  expect([await places(), await details.count()]).toEqual([before, said]);
  await bench.type('0.5');
  await expect(bench.post(1)).toHaveAccessibleName(/0.5 ohm/);
  await expect(page.getByRole('button', { name: 'terminal cleaned' })).toBeHidden();
  expect([await places(), await details.count()]).toEqual([before, said]);
});

for (const [name, width, height] of [
  ['tablet', 1024, 768],
  ['phone', 390, 844],
] as const) {
  test(`recorded with the large keys on a ${name}`, async ({ browser, request }) => {
    const context = await browser.newContext({ viewport: { width, height }, hasTouch: true, isMobile: true });
    const page = await context.newPage();
    const bench = new BenchPage(page, await newRun(request, 'PL-14'));
    await page.goto(`/runs/${bench.runId}`);
    const pad = page.getByRole('group', { name: 'Number pad' });
    await expect(pad).toBeVisible();
    const tap = async (...keys: string[]) => {
      for (const key of keys) await pad.getByRole('button', { name: key, exact: true }).tap();
    };
    await tap('0', '.', '2', 'Record', '0', '.', '6', 'Record', '2', '0', '1', 'Record');
    await page.getByRole('button', { name: 'OL open' }).tap();
    await tap('Record', '4', 'k', '5', 'Record');
    await expect(bench.post(4)).toHaveAccessibleName(/4k5/);
    await expect(bench.summary).toHaveText('Cylinder 3 is open and 2 and 4 are too high; 1 is in.');
    for (const key of await pad.getByRole('button').all())
      expect((await key.boundingBox())?.height).toBeGreaterThanOrEqual(48);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    await context.close();
  });
}

test('a new unit with a new engine: the server’s objection stands at the field', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Unit' }).click();
  const name = `PL-9${String(Date.now()).slice(-4)}`;
  await page.getByLabel('Fleet number').fill(name);
  await page.getByLabel('Kind').fill('Dredger');
  await page.getByLabel('Engine family').selectOption('new');
  await page.getByLabel('Code').fill(`L2-${name}`);
  await page.getByLabel('Cylinders').fill('2');
  await page.getByLabel('Firing order').fill('1-1');
  await page.getByRole('button', { name: 'Add unit' }).click();
  await expect(page.getByText(/Cylinder 1 fires twice/)).toBeVisible();
  await page.getByLabel('Firing order').fill('1-2');
  await page.getByRole('button', { name: 'Add unit' }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  await page.getByLabel('Find a unit').fill('dredger');
  await expect(page.getByRole('article')).toHaveCount(1);
});
