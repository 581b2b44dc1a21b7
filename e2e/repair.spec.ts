import { expect, type Page, test } from '@playwright/test';
import bwip from 'bwip-js/node';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { checkCharacter } from '../core/repair/coding';
import { demoId } from '../demo/load';
import { ALPHABET } from '../demo/repairs';
import { BenchPage, jobOf, newRun, switchTo } from './bench-page';

const code = (body: string): string => body + checkCharacter(body, ALPHABET, 'mod-alphabet');
const section = (page: Page) => page.getByRole('region', { name: 'Repair' });
/** Opens a stage that is closed. */
async function stage(page: Page, name: RegExp): Promise<void> {
  const summary = section(page).locator('summary', { hasText: name });
  if (!(await summary.evaluate((s) => (s.parentElement as HTMLDetailsElement).open))) await summary.click();
}

async function signFinding(page: Page, text: string): Promise<void> {
  await page.getByRole('button', { name: 'Write a finding' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('In a sentence').fill(text);
  await dialog.getByRole('button', { name: /^Sign as/ }).click();
  await expect(page.getByText(`Finding: ${text}`)).toBeVisible();
}

test('one full story: measured, found, decided, agreed, repaired, coded by a photo, proven, released, reported', async ({
  page,
  request,
}, info) => {
  test.slow();
  const bench = new BenchPage(page, await newRun(request, 'PL-27', '', 'injector-resistance'));
  await bench.open();
  await bench.type('0.6', 'OL', '0.6', '0.6', '0.6', '0.6');
  await bench.allSaved();
  const job = await jobOf(request, bench.runId);
  await page.goto(`/jobs/${job}`);
  const stands = page.getByRole('region', { name: 'Where it stands' });
  await expect(stands).toContainText('Write the finding: The injector of cylinder 2 is bad.');
  await signFinding(page, 'The injector of cylinder 2 is open');
  await expect(stands).toContainText('Decide on one or the set, and quote it to the payer.');
  await expect(stands.getByRole('link', { name: /^Agreed/ })).toHaveAttribute('aria-current', 'step');

  await stage(page, /One or the whole set/);
  await section(page).getByLabel('A part').fill('dear');
  await expect(section(page).getByText('"dear" is no number.')).toBeVisible();
  await section(page).getByLabel('A part').fill('412.00');
  await expect(section(page).getByText(/is expected to cost .* less|Both cost the same/)).toBeVisible();
  await section(page).getByRole('button', { name: 'Decide: only those' }).click();
  // What is done folds, and says how; what is next opens.
  await expect(section(page).locator('summary', { hasText: 'only those that failed' })).toBeVisible();

  await stage(page, /^Quotation/);
  await section(page).getByLabel('Line 1, what').fill('');
  await section(page).getByRole('button', { name: 'Make the quotation' }).click();
  await expect(section(page).getByText('For what?')).toBeVisible();
  await section(page).getByLabel('Line 1, what').fill('Injector, new');
  await section(page).getByRole('button', { name: 'Make the quotation' }).click();
  await section(page).getByRole('radio', { name: 'Accepted' }).click();
  await section(page).getByLabel('Who, and what they said').fill('Works office');
  await section(page).getByRole('button', { name: 'Note the answer' }).click();
  await expect(section(page).locator('summary', { hasText: /Quotation *accepted/ })).toBeVisible();
  await expect(stands).toContainText('Nothing was mended yet.');

  await stage(page, /^Steps/);
  const ticks = section(page).getByRole('button', { name: /^Tick step/ });
  await ticks.first().click();
  await expect(section(page).getByRole('button', { name: 'Tick step depressure' })).toHaveCount(0);
  for (const [step, position] of [
    ['clean', 2],
    ['out', 2],
    ['bore', 2],
    ['washer', 2],
    ['bolts', 2],
    ['coding', 2],
    ['bleed', undefined],
  ] as const)
    expect(
      (
        await request.post(`/api/jobs/${job}/records`, {
          data: { id: v7(), record: { kind: 'step', sequence: 'injectors', step, ...(position ? { position } : {}) } },
        })
      ).status(),
    ).toBe(201);
  await expect(ticks).toHaveCount(4);
  for (let left = await ticks.count(); left > 0; left = await ticks.count()) {
    const tick = ticks.first();
    const name = (await tick.getAttribute('aria-label')) ?? '';
    await tick.click();
    const value = { torque: '22.1 lbf ft', angle: '90°', line: '28 Nm', rocker: '0.4' }[
      /step (\w+)/.exec(name)?.[1] ?? ''
    ];
    if (value !== undefined) {
      const dialog = page.getByRole('dialog');
      if (value === '28 Nm') {
        // A torque without its unit is asked about.
        await dialog.getByLabel('Value reached').fill('28');
        await dialog.getByRole('button', { name: 'Tick' }).click();
        await expect(dialog.getByText(/In which unit/)).toBeVisible();
      }
      await dialog.getByLabel('Value reached').fill(value);
      await dialog.getByLabel('Tool').fill('wrench 1');
      await dialog.getByRole('button', { name: 'Tick' }).click();
      await expect(dialog).toHaveCount(0);
    }
    await expect(section(page).getByRole('button', { name, exact: true })).toHaveCount(0);
  }

  // The code of the new part: too short, then from a photo at an angle in poor light; the same at another
  // cylinder is refused.
  await stage(page, /Codes of new parts/);
  const text = code('5TF208KD17X8HZ4RMV3C5A6P2N1G7');
  await section(page).getByLabel('Cylinder 2', { exact: true }).fill(text.slice(0, 20));
  await expect(section(page).getByText(/It has 20 characters; these codes have 30/)).toBeVisible();
  const drawn = await bwip.toBuffer({
    bcid: 'datamatrix',
    text,
    scale: 6,
    paddingwidth: 12,
    paddingheight: 12,
    barcolor: '2a2a2a',
    backgroundcolor: '5c5c58',
  });
  const photo = info.outputPath('part.jpg');
  await sharp({ create: { width: 1200, height: 900, channels: 3, background: '#5c5c58' } })
    .composite([{ input: await sharp(drawn).rotate(21, { background: '#5c5c58' }).toBuffer(), left: 350, top: 220 }])
    .jpeg({ quality: 70 })
    .toFile(photo);
  await section(page).getByLabel('Photo of the code of cylinder 2').setInputFiles(photo);
  await expect(section(page).getByLabel('Cylinder 2', { exact: true })).toHaveValue(text);
  await section(page).getByLabel('Cylinder 2', { exact: true }).press('Enter');
  await expect(section(page).getByText(text.match(/.{5}/g)?.join(' ') ?? '')).toBeVisible();
  const pasted = await request.post(`/api/jobs/${job}/records`, {
    data: { id: v7(), record: { kind: 'coding', part: 'injector', position: 3, code: text, how: 'pasted' } },
  });
  expect([pasted.status(), JSON.stringify(await pasted.json())]).toEqual([
    422,
    expect.stringContaining('The same code stands at cylinder 2'),
  ]);
  await page.getByRole('link', { name: 'Print, large and to be scanned' }).click();
  await expect(page.getByRole('img', { name: 'Data Matrix of injector 2' })).toBeVisible();
  await page.goBack();

  // Not proven yet: a technician may not release it.
  await expect(section(page).getByRole('button', { name: /^Release, signed/ })).toBeDisabled();
  const again = v7();
  expect(
    (await request.post('/api/runs', { data: { id: again, jobId: job, test: 'injector-resistance' } })).status(),
  ).toBe(201);
  for (let n = 1; n <= 6; n++)
    expect(
      (
        await request.post(`/api/runs/${again}/readings`, {
          data: { id: v7(), position: n, entry: '0.6', takenAt: new Date().toISOString() },
        })
      ).status(),
    ).toBe(201);
  expect(
    (
      await request.post(`/api/jobs/${job}/codes`, {
        data: { id: v7(), phase: 'after-clearing', status: 'unknown', codes: [] },
      })
    ).status(),
  ).toBe(201);
  expect(
    (
      await request.post(`/api/jobs/${job}/evidence`, {
        data: {
          id: v7(),
          evidence: { kind: 'drive', conditions: ['load'], outcome: 'did not show', seen: 'uphill, loaded, twice' },
        },
      })
    ).status(),
  ).toBe(201);
  await page.reload();
  await stage(page, /Proof and release/);
  await section(page).getByText('Note the scan of the whole vehicle').click();
  await section(page).getByRole('button', { name: 'Note it' }).click();
  await expect(section(page).getByText(/not done\. A lead can release/)).toHaveCount(0);
  await expect(section(page).getByRole('button', { name: /^Release, signed/ })).toBeEnabled();
  await section(page).getByLabel('Release with').fill('Runs clean under load');
  await section(page)
    .getByRole('button', { name: /^Release, signed/ })
    .click();
  await expect(section(page).getByText(/Released by .*: Runs clean under load/)).toBeVisible();
  await expect(stands).toContainText('Released.');

  for (const [voice, said] of [
    ['payer', 'What was wrong'],
    ['file', 'wrench 1'],
  ] as const) {
    await page.goto(`/jobs/${job}/report?voice=${voice}`);
    await expect(page.getByText(said).first()).toBeVisible();
    const pdf = await request.get(`/api/jobs/${job}/report?voice=${voice}`);
    expect([pdf.status(), (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
  }
  expect(((await (await request.get(`/api/jobs/${job}/verify`)).json()) as { intact: boolean }).intact).toBe(true);

  // It came back: reopened, and open again.
  await page.goto(`/jobs/${job}`);
  await stage(page, /Proof and release/);
  await section(page).getByText('The fault returned').click();
  await section(page).getByLabel('What returned').fill('Misfire again, cylinder 2');
  await section(page).getByRole('button', { name: 'Reopen' }).click();
  await expect(section(page).getByLabel('Release with')).toBeVisible();
});

test('a quotation that was declined, then deferred, stands at the next visit; the next job is marked as the comeback it is', async ({
  page,
  request,
}) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-22'));
  await bench.open();
  await bench.type('0.7', 'OL', '0.7');
  await bench.allSaved();
  const job = await jobOf(request, bench.runId);
  const text = `Plug 2 is open (${Date.now()})`;
  await page.goto(`/jobs/${job}`);
  await signFinding(page, text);
  await stage(page, /^Quotation/);
  await section(page).getByRole('button', { name: 'Make the quotation' }).click();
  await section(page).getByRole('radio', { name: 'Declined' }).click();
  await section(page).getByLabel('Who, and what they said').fill('not this year');
  await section(page).getByRole('button', { name: 'Note the answer' }).click();
  await expect(section(page).getByText('Declined: not this year').first()).toBeVisible();
  await section(page).getByRole('button', { name: 'Another quotation' }).click();
  await section(page).getByRole('button', { name: 'Make the quotation' }).click();
  await section(page).getByRole('radio', { name: 'Deferred' }).click();
  await section(page).getByRole('button', { name: 'Note the answer' }).click();
  await expect(section(page).getByText('Deferred until which day?')).toBeVisible();
  await section(page).getByLabel('Until').fill('2027-03-01');
  await section(page).getByRole('button', { name: 'Note the answer' }).click();
  await expect(section(page).getByText('Deferred until 2027-03-01').first()).toBeVisible();

  const next = v7();
  expect(
    (
      await request.post('/api/jobs', {
        data: { id: next, unitId: demoId('unit', 'PL-22'), complaint: 'Slow to fire again' },
      })
    ).status(),
  ).toBe(201);
  await page.goto(`/jobs/${next}`);
  const before = page.getByRole('region', { name: 'Complaint' }).getByRole('listitem').filter({ hasText: text });
  await expect(before).toContainText('Deferred until 2027-03-01: plug, new, Labour, hours');
  await before.getByRole('button', { name: /This is a comeback of job/ }).click();
  await expect(page.getByText(/A comeback of/)).toBeVisible();
  await page.goto(`/jobs/${job}`);
  await expect(page.getByText(/The fault came back:/)).toBeVisible();
});

test('a lead releases with a check left open and says why; a bundle goes out, and what is no bundle is refused', async ({
  page,
  request,
}, info) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-22'));
  await bench.open();
  await bench.type('0.7', '0.7', 'OL');
  await bench.allSaved();
  const job = await jobOf(request, bench.runId);
  await page.goto(`/jobs/${job}`);
  await signFinding(page, 'Plug 3 is open');
  await switchTo(page, 'Odile Brandt');
  // What it costs here is the workshop's own data, kept by a lead with its source.
  await stage(page, /One or the whole set/);
  const source = `Price list ${Date.now()}`;
  await section(page).getByLabel('Source of these costs').fill(source);
  await section(page).getByRole('button', { name: 'Keep as our costs' }).click();
  await expect(section(page).getByText(`${source}. Life:`)).toBeVisible();
  await stage(page, /Proof and release/);
  const release = section(page).getByRole('form', { name: 'Release' });
  await release.getByLabel('Release with').fill('Pump is needed tonight');
  await release.getByRole('button', { name: /^Release, signed/ }).click();
  await expect(release.getByText(/Agreed with the payer: No quotation was made/)).toBeVisible();
  for (const field of await release.getByPlaceholder('left because').all())
    await field.fill('flood warning; plug comes on Monday');
  await release.getByRole('button', { name: /^Release, signed Odile Brandt/ }).click();
  await expect(section(page).getByText('Released by Odile Brandt: Pump is needed tonight')).toBeVisible();

  const bundle = await request.get(`/api/jobs/${job}/bundle`);
  expect(bundle.headers()['content-type']).toBe('application/zip');
  const file = info.outputPath('none.zip');
  await sharp({ create: { width: 4, height: 4, channels: 3, background: '#fff' } })
    .png()
    .toFile(file);
  await page.goto('/');
  await page.getByRole('button', { name: 'Job from elsewhere' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Bundle').setInputFiles(file);
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect(dialog.getByText('This is no zip file, or it is damaged.')).toBeVisible();
  const same = info.outputPath('job.zip');
  await import('node:fs/promises').then(async (fs) => fs.writeFile(same, await bundle.body()));
  await dialog.getByLabel('Bundle').setInputFiles(same);
  await dialog.getByRole('button', { name: 'Take it in' }).click();
  await expect(page).toHaveURL(new RegExp(job));
});
