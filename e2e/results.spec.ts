import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { demoId } from '../demo/load';
import { BenchPage, newRun } from './bench-page';

test('the PDF says what the bench says, on one page, with selectable text', async ({ request }, info) => {
  const answer = await request.get(`/api/runs/${demoId('run', 'PL-07')}/pdf`);
  expect(answer.headers()['content-type']).toBe('application/pdf');
  const file = info.outputPath('result.pdf');
  writeFileSync(file, await answer.body());
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  expect(text).toContain('demo: everything here is invented');
  for (const said of [
    'PL-07',
    'All of the right bank, and nothing else',
    '0.2 Ω, subtracted',
    'Levels Board service sheet LB-61',
    'approved',
    'Ines Varga',
    'Caution',
    'maker’s service information',
  ]) {
    expect(text.replace(/\s+/g, ' ')).toContain(said);
  }
  const facts = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
  expect(facts).toMatch(/Pages:\s+1\b/);
  expect(facts).toMatch(/Title:\s+Glow plugs, at the plug: PL-07/);
  expect(facts).toMatch(/Tagged:\s+yes/);
  expect(execFileSync('pdfinfo', ['-struct-text', file], { encoding: 'utf8' })).toMatch(
    /H1 \(block\)\s+"Glow plugs, at the plug: PL-07"/,
  );
  const fonts = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
  expect(fonts.length).toBeGreaterThan(1);
  for (const font of fonts) expect(font).toMatch(/ yes +(yes|no) +(yes|no) +\d+/);
});

const JOBS = [
  ['PL-03'],
  ['PL-07'],
  ['PL-08'],
  ['PL-11'],
  ['PL-14'],
  ['PL-16'],
  ['PL-16', 'last winter'],
  ['PL-19'],
  ['PL-22'],
  ['PL-23'],
  ['PL-27'],
] as const;
test('every job of the demo has its two reports as PDF: tagged, under one title, and nothing left out of them', async ({
  request,
}, info) => {
  const file = info.outputPath('report.pdf');
  for (const job of JOBS)
    for (const voice of ['payer', 'file'] as const) {
      const answer = await request.get(`/api/jobs/${demoId('job', ...job)}/report?voice=${voice}`);
      expect(answer.status(), job.join(' ')).toBe(200);
      writeFileSync(file, await answer.body());
      const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
      expect(text).not.toMatch(/undefined|NaN|\[object|□/);
      expect(text).toContain(voice === 'payer' ? 'What you told us' : 'its last hash is');
      const tree = execFileSync('pdfinfo', ['-struct-text', file], { encoding: 'utf8' });
      expect([...tree.matchAll(/^ +H1 /gm)]).toHaveLength(1);
      expect(tree).not.toMatch(/^ +H3 /m);
      expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toMatch(/Tagged:\s+yes/);
      for (const font of execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2))
        expect(font).toMatch(/ yes +(yes|no) +yes +\d+/);
      if (voice === 'payer') continue;
      const view = (await (await request.get(`/api/jobs/${demoId('job', ...job)}`)).json()) as {
        job: { runs: { judgement: { readings: { entry: string }[] } | null }[] };
      };
      for (const entry of view.job.runs.flatMap((r) => r.judgement?.readings.map((x) => x.entry) ?? []))
        expect(text).toContain(entry);
    }
});

test('CSV comes out, goes back in unchanged, and a bad row is shown by its line before anything is stored', async ({
  page,
  request,
}, info) => {
  const source = demoId('run', 'PL-14');
  const bench = new BenchPage(page, source);
  await bench.open();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CSV out' }).click(),
  ]);
  const file = info.outputPath('out.csv');
  await download.saveAs(file);
  const csv = readFileSync(file, 'utf8');
  expect(csv.split('\r\n')[0]).toBe(
    'unit,job,test,position,entry,value,unit_of_measure,verdict,limit_lower,limit_upper,limit_source,condition,instrument,taken_at,taken_by',
  );

  await page.getByRole('button', { name: 'CSV in' }).click();
  await page.getByLabel('CSV file').setInputFiles(file);
  await expect(page.getByText('The file says what is here already.')).toBeVisible();
  await page.keyboard.press('Escape');

  const other = new BenchPage(page, await newRun(request, 'PL-14'));
  await other.open();
  writeFileSync(file, csv.replace(/(\r\n[^\r]*,)3,201,/, '$13,florp,'));
  await page.getByRole('button', { name: 'CSV in' }).click();
  await page.getByLabel('CSV file').setInputFiles(file);
  await expect(page.getByText(/Line 4: "florp" cannot be read/)).toBeVisible();
  expect(
    ((await (await request.get(`/api/runs/${other.runId}`)).json()) as { readings: unknown[] }).readings,
  ).toHaveLength(0);
  await page.getByRole('button', { name: 'Store 3 readings' }).click();
  await expect(other.post(1)).toContainText('0.7');
  writeFileSync(file, csv);
  await page.getByRole('button', { name: 'CSV in' }).click();
  await page.getByLabel('CSV file').setInputFiles(file);
  await page.getByRole('button', { name: 'Store 1 reading' }).click();
  await expect(other.post(3)).toContainText('201');
  const entries = (text: string) =>
    text
      .trim()
      .split('\r\n')
      .slice(1)
      .map((l) => l.split(',').slice(3, 5));
  const back = await (await request.get(`/api/runs/${other.runId}/csv`)).text();
  expect(entries(back)).toEqual(entries(csv));
});

test('the API judges a file as the command line does', async ({ request }) => {
  const set = {
    format: 'mudflat/test-set',
    version: 1,
    test: 'x',
    limits: { quantity: 'voltage', unit: 'V', lower: 45 },
    readings: [{ position: 'cranking', entry: '43.0' }],
  };
  const answer = await request.post('/api/judge', { data: set });
  expect(await answer.json()).toMatchObject({ pattern: 'one', suspects: ['cranking'], readings: [{ verdict: 'low' }] });
  const byCommand = execFileSync('node', ['--import', 'tsx', 'cli/main.ts', 'judge', '-'], {
    input: JSON.stringify(set),
    encoding: 'utf8',
  });
  expect(JSON.parse(byCommand)).toEqual(await answer.json());
});

test('bad input over HTTP is answered with problem details and a path', async ({ request }) => {
  const run = demoId('run', 'PL-14');
  const post = (url: string, data: unknown, headers = {}) => request.post(url, { data, headers });
  const bad = await post(`/api/runs/${run}/readings`, { id: 'x', position: 1, entry: '1', takenAt: 'now' });
  expect(bad.status()).toBe(422);
  expect(bad.headers()['content-type']).toBe('application/problem+json');
  expect(((await bad.json()) as { errors: { path: string }[] }).errors.map((e) => e.path).sort()).toEqual([
    '/id',
    '/takenAt',
  ]);
  expect((await post('/api/runs/not-an-id/readings', {})).status()).toBe(404);
  expect((await request.post('/api/jobs', { data: 'x', headers: { 'content-type': 'text/plain' } })).status()).toBe(
    415,
  );
  expect((await post('/api/jobs', {}, { origin: 'http://elsewhere.example' })).status()).toBe(403);
  expect(
    (
      await request.post('/api/judge', {
        data: `{"a":"${'x'.repeat(9_000_000)}"}`,
        headers: { 'content-type': 'application/json' },
      })
    ).status(),
  ).toBe(413);
  expect((await request.get('/runs/01935b2e-7f3a-7000-8000-000000000000')).status()).toBe(404);
});
