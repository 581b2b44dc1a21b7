import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { type APIRequestContext, expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { type Action, POLICY, ruleFor } from '../application/policy';
import { demoId } from '../demo/load';
import { freshDevice, newRun } from './bench-page';

/** What a route does, by the policy; `open`: for anybody at all. Who may is read there. */
interface Case {
  readonly route: string;
  readonly method: 'GET' | 'POST';
  readonly action: Action | 'open';
  readonly body?: () => unknown;
  /** Of another content type than JSON. */
  readonly text?: readonly [type: string, body: string];
  readonly query?: string;
}

const OF_UNIT = 'PL-19';
const NORTH = demoId('depot', 'North Sluice');
const entry = {
  test: 'sensor-ground',
  scope: 'general',
  limits: { quantity: 'voltage', unit: 'V', upper: 0.1 },
  source: 'access',
};
const CASES: readonly Case[] = [
  { route: 'health', method: 'GET', action: 'open' },
  { route: 'judge', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'session', method: 'GET', action: 'open' },
  { route: 'session/sign-in', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'session/switch', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'session/sign-out', method: 'POST', action: 'open', body: () => ({ no: 1 }) },
  { route: 'set-up', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'workshop/logo', method: 'GET', action: 'look' },
  { route: 'workshop/logo', method: 'POST', action: 'workshop.change', text: ['image/png', 'no picture'] },
  { route: 'workshop', method: 'POST', action: 'workshop.change', body: () => ({ name: 'Levels workshop' }) },
  {
    route: 'depots',
    method: 'POST',
    action: 'depot.add',
    body: () => ({ id: v7(), name: `Depot ${v7()}`, timeZone: 'Mars/Olympus' }),
  },
  { route: 'depots/[id]', method: 'POST', action: 'depot.change', body: () => ({ timeZone: 'Mars/Olympus' }) },
  { route: 'units/[id]', method: 'POST', action: 'unit.change', body: () => ({ kind: 'Tipper' }) },
  { route: 'units/import', method: 'POST', action: 'units.import', text: ['text/csv', 'no list'] },
  { route: 'units/export', method: 'GET', action: 'look' },
  {
    route: 'engine-families/[id]',
    method: 'POST',
    action: 'engine-family.change',
    body: () => ({ engine: { layout: 'inline', cylinders: 99 } }),
  },
  { route: 'catalogue', method: 'GET', action: 'look' },
  {
    route: 'catalogue',
    method: 'POST',
    action: 'catalogue.change',
    body: () => ({ id: v7(), testId: `none-${Date.now()}`, test: null }),
  },
  {
    route: 'catalogue/import',
    method: 'POST',
    action: 'catalogue.change',
    text: ['application/json', '{}'],
    query: `?batch=${v7()}`,
  },
  { route: 'jobs/[id]/report', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/bundle', method: 'GET', action: 'look' },
  {
    route: 'bundles',
    method: 'POST',
    action: 'job.import',
    text: ['application/zip', 'no zip'],
    query: `?depot=${NORTH}`,
  },
  {
    route: 'jobs/[id]/records',
    method: 'POST',
    action: 'job.write-repair',
    body: () => ({ id: v7(), record: { kind: 'scan', outcome: 'clean', said: 'access' } }),
  },
  {
    route: 'service-data',
    method: 'POST',
    action: 'service-data.change',
    body: () => ({ id: v7(), family: null, kind: 'fitting', key: 'access', body: { value: '1 Nm' }, source: 'access' }),
  },
  { route: 'circuits', method: 'GET', action: 'look' },
  {
    route: 'circuits',
    method: 'POST',
    action: 'circuits.change',
    body: () => ({ id: v7(), circuitId: `none-${Date.now()}`, circuit: null }),
  },
  { route: 'runs/[id]/case', method: 'GET', action: 'look' },
  { route: 'runs/[id]/next', method: 'GET', action: 'look' },
  { route: 'specifications', method: 'GET', action: 'look' },
  {
    route: 'specifications',
    method: 'POST',
    action: 'limits.draft',
    body: () => ({ id: v7(), entry: { ...entry, source: `access ${v7()}` } }),
  },
  { route: 'specifications/clashes', method: 'POST', action: 'limits.compare', body: () => entry },
  { route: 'specifications/import', method: 'POST', action: 'limits.draft', text: ['application/json', '{}'] },
  { route: 'specifications/[id]/effect', method: 'GET', action: 'look' },
  { route: 'specifications/[id]/effect', method: 'POST', action: 'limits.apply', body: () => ({ runs: [] }) },
  {
    route: 'jobs',
    method: 'POST',
    action: 'job.open',
    body: () => ({ id: v7(), unitId: demoId('unit', OF_UNIT), complaint: 'access' }),
  },
  { route: 'jobs/[id]', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/tests', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/verify', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/live', method: 'GET', action: 'look' },
  {
    route: 'jobs/[id]/notes',
    method: 'POST',
    action: 'job.note-calculation',
    body: () => ({ id: v7(), sum: 'none', inputs: {} }),
  },
  {
    route: 'jobs/[id]/codes',
    method: 'POST',
    action: 'job.keep-codes',
    body: () => ({ id: v7(), phase: 'as-found', status: 'unknown', codes: [] }),
  },
  {
    route: 'jobs/[id]/codes/take-back',
    method: 'POST',
    action: 'job.take-codes-back',
    body: () => ({ id: v7(), observation: v7() }),
  },
  {
    route: 'jobs/[id]/intake',
    method: 'POST',
    action: 'job.change-intake',
    body: () => ({ id: v7(), intake: { conditions: [], replaced: [], signs: [], photos: [] } }),
  },
  {
    route: 'jobs/[id]/evidence',
    method: 'POST',
    action: 'job.record-evidence',
    body: () => ({ id: v7(), evidence: { kind: 'wiggle', where: 'x', outcome: 'held' } }),
  },
  {
    route: 'jobs/[id]/evidence/take-back',
    method: 'POST',
    action: 'job.take-evidence-back',
    body: () => ({ id: v7(), evidence: v7() }),
  },
  {
    route: 'jobs/[id]/findings',
    method: 'POST',
    action: 'job.write-finding',
    body: () => ({ id: v7(), finding: { kind: 'not-found', text: 'x', ruledOut: [], ifReturns: 'x' } }),
  },
  {
    route: 'jobs/[id]/plan',
    method: 'POST',
    action: 'job.change-plan',
    body: () => ({ id: v7(), change: { kind: 'add', test: 'pin-drag' } }),
  },
  { route: 'jobs/[id]/photos', method: 'POST', action: 'job.add-photo', text: ['image/png', 'no picture'] },
  { route: 'photos/[id]', method: 'GET', action: 'look' },
  {
    route: 'runs',
    method: 'POST',
    action: 'run.start',
    body: () => ({ id: v7(), jobId: demoId('job', OF_UNIT), test: 'pin-drag' }),
  },
  { route: 'runs/[id]', method: 'GET', action: 'look' },
  { route: 'runs/[id]/pdf', method: 'GET', action: 'look' },
  { route: 'runs/[id]/csv', method: 'GET', action: 'look' },
  { route: 'runs/[id]/csv', method: 'POST', action: 'run.import-readings', text: ['text/csv', 'a,b\n'] },
  {
    route: 'runs/[id]/readings',
    method: 'POST',
    action: 'run.record-reading',
    body: () => ({ id: v7(), position: 99, entry: '1', takenAt: new Date().toISOString() }),
  },
  {
    route: 'runs/[id]/circumstances',
    method: 'POST',
    action: 'run.state-circumstances',
    body: () => ({ id: v7(), states: [], condition: {}, recordedAt: new Date().toISOString() }),
  },
  { route: 'runs/[id]/judge-again', method: 'GET', action: 'look' },
  { route: 'runs/[id]/judge-again', method: 'POST', action: 'run.judge-again', body: () => ({ id: v7() }) },
  {
    route: 'runs/[id]/override',
    method: 'POST',
    action: 'run.override-state',
    body: () => ({ id: v7(), state: 'none', because: 'x' }),
  },
  {
    route: 'units',
    method: 'POST',
    action: 'unit.add',
    body: () => ({ id: v7(), depotId: NORTH, engineFamilyId: v7(), fleetNumber: `A-${Date.now()}`, kind: 'x' }),
  },
  {
    route: 'units/[id]/parts',
    method: 'POST',
    action: 'unit.note-parts',
    body: () => ({ part: 'none', code: null }),
  },
  {
    route: 'engine-families',
    method: 'POST',
    action: 'engine-family.add',
    body: () => ({ id: v7(), code: `A-${v7().slice(-12)}`, engine: { layout: 'inline', cylinders: 1 } }),
  },
  {
    route: 'instruments',
    method: 'POST',
    action: 'instrument.add',
    body: () => ({ id: v7(), depotId: NORTH, name: `A ${v7()}`, instrument: { kind: 'multimeter' } }),
  },
  { route: 'instruments/[id]/retire', method: 'POST', action: 'instrument.retire', body: () => ({}) },
  {
    route: 'test-leads',
    method: 'POST',
    action: 'test-leads.measure',
    body: () => ({ id: v7(), depotId: NORTH, name: 'access', zero: null }),
  },
  { route: 'depots/[id]/choices', method: 'POST', action: 'depot.choose', body: () => ({}) },
  {
    route: 'depots/[id]/codes',
    method: 'POST',
    action: 'depot.describe-codes',
    body: () => ({ id: v7(), code: 'P1999', text: '' }),
  },
  {
    route: 'people',
    method: 'POST',
    action: 'person.add',
    body: () => ({ id: v7(), name: `A ${v7()}`, role: 'viewer', depotId: NORTH, pin: '742913' }),
  },
  { route: 'people/[id]', method: 'POST', action: 'person.change', body: () => ({ role: 'technician' }) },
];

const INSTRUMENT = v7();
test.beforeAll(async ({ browser, baseURL }) => {
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  expect(
    (
      await lead.request.post('/api/instruments', {
        data: { id: INSTRUMENT, depotId: NORTH, name: `Access ${INSTRUMENT}`, instrument: { kind: 'multimeter' } },
      })
    ).status(),
  ).toBe(201);
  await lead.close();
});

/** What each `[id]` stands for: a thing of the depot North Sluice. */
const IDS: Readonly<Record<string, string>> = {
  jobs: demoId('job', OF_UNIT),
  runs: demoId('run', OF_UNIT),
  units: demoId('unit', OF_UNIT),
  instruments: INSTRUMENT,
  depots: NORTH,
  people: demoId('person', 'Jory Thane'),
  'engine-families': demoId('family', 'L4-20'),
  specifications: demoId('specification', 'L6-109', 1),
  photos: v7(),
};

const WHO = {
  nobody: [],
  viewer: ['Pavel Osei'],
  technician: ['Jory Thane'],
  'foreign technician': ['Tobin Marsh'],
  'roving technician': ['Ines Varga'],
  'foreign lead': ['Runa Teller'],
  lead: ['Odile Brandt'],
} as const;
type Who = keyof typeof WHO;

function expected({ action }: Case, who: Who): 401 | 403 | 'may' {
  if (action === 'open') return 'may';
  if (who === 'nobody') return 401;
  const { role, of } = ruleFor(action);
  if (role === 'any') return 'may';
  if (who === 'viewer' || (role === 'lead' && who.endsWith('technician'))) return 403;
  return of !== null && who.startsWith('foreign') ? 403 : 'may';
}

function send(request: APIRequestContext, rule: Case): Promise<{ status: () => number; text: () => Promise<string> }> {
  const url = `/api/${rule.route.replace(/([\w-]+)\/\[id\]/, (_, of: string) => `${of}/${IDS[of] ?? ''}`)}${rule.query ?? ''}`;
  if (rule.method === 'GET') return request.get(url, { timeout: 30_000, maxRedirects: 0 });
  return request.post(
    url,
    rule.text
      ? { data: Buffer.from(rule.text[1]), headers: { 'content-type': rule.text[0] } }
      : { data: rule.body?.() },
  );
}

test('every route of the server is in the table, with every method', () => {
  const files = readdirSync('app/api', { recursive: true, encoding: 'utf8' }).filter(
    (f) => path.basename(f) === 'route.ts',
  );
  const served = files.flatMap((f) =>
    [
      ...readFileSync(path.join('app/api', f), 'utf8').matchAll(
        /export (?:const|async function) (GET|POST|PUT|PATCH|DELETE)\b/g,
      ),
    ].map((m) => `${m[1]} ${path.dirname(f)}`),
  );
  expect(CASES.map((r) => `${r.method} ${r.route}`).sort()).toEqual(served.sort());
});

test('every action of the policy is asked for by a route, or stands in the list of those that a command asks for', () => {
  const inside: readonly Action[] = [
    'limits.draft-for-depot',
    'limits.approve',
    'limits.replace-approved',
    'limits.withdraw',
    'limits.apply-to-depot',
    'job.release-with-open-checks',
  ];
  const asked = new Set([...CASES.map((c) => c.action), ...inside]);
  expect(Object.keys(POLICY).filter((a) => !asked.has(a as Action))).toEqual([]);
});

for (const who of Object.keys(WHO) as Who[]) {
  test(`what a ${who} may: every route`, async ({ browser, baseURL }) => {
    const context = await freshDevice(browser, baseURL, ...WHO[who]);
    const wrong: string[] = [];
    for (const rule of CASES) {
      // A stream does not end by itself: whoever may follow is tried in another test.
      if (rule.route.endsWith('/live') && expected(rule, who) === 'may') continue;
      const answer = await send(context.request, rule);
      const wants = expected(rule, who);
      const [status, text] = [answer.status(), await answer.text()];
      if (wants === 'may' ? (status === 401 && !rule.route.startsWith('session')) || status === 403 : status !== wants)
        wrong.push(`${rule.method} ${rule.route}: ${status}, expected ${wants}: ${text.slice(0, 200)}`);
      if (wants === 403 && !/ may\./.test(text)) wrong.push(`${rule.route} does not say who may: ${text}`);
      if (status >= 500) wrong.push(`${rule.method} ${rule.route}: ${status}`);
    }
    expect(wrong).toEqual([]);
    await context.close();
  });
}

test('no page by address alone', async ({ browser, baseURL }) => {
  const context = await freshDevice(browser, baseURL);
  for (const page of [
    '/',
    '/shelf',
    '/catalogue',
    '/instruments',
    '/people',
    '/workshop',
    `/jobs/${IDS.jobs}`,
    `/runs/${IDS.runs}`,
    `/runs/${IDS.runs}/print`,
  ]) {
    const answer = await context.request.get(page, { maxRedirects: 0 });
    expect([page, answer.status()]).toEqual([page, 307]);
    expect(answer.headers().location).toContain('/sign-in');
  }
  await context.close();
});

test('the cookies of a signed-in person are no use to another site’s page', async ({ browser, baseURL }) => {
  const context = await freshDevice(browser, baseURL, 'Odile Brandt');
  const forged = { id: v7(), unitId: demoId('unit', OF_UNIT), complaint: 'forged' };
  for (const headers of [
    { origin: 'https://elsewhere.example' },
    { 'sec-fetch-site': 'cross-site' },
    { origin: 'null' },
  ] as Record<string, string>[])
    expect((await context.request.post('/api/jobs', { data: forged, headers })).status()).toBe(403);
  expect((await context.request.post('/api/jobs', { form: { complaint: 'forged' } })).status()).toBe(415);
  expect(
    (
      await context.request.post(`/api/jobs/${IDS.jobs}/photos?id=${v7()}`, {
        data: Buffer.from('x'),
        headers: { origin: 'https://elsewhere.example', 'content-type': 'text/plain' },
      })
    ).status(),
  ).toBe(403);
  for (const cookie of await context.cookies()) expect([cookie.httpOnly, cookie.sameSite]).toEqual([true, 'Lax']);
  await context.close();
});

test('nobody writes in another’s name', async ({ browser, baseURL, request }) => {
  const run = await newRun(request, 'PL-14');
  const context = await freshDevice(browser, baseURL, 'Tobin Marsh');
  const reading = (by: string) => ({ id: v7(), position: 1, entry: '0.6', by, takenAt: new Date().toISOString() });
  const refused = await context.request.post(`/api/runs/${run}/readings`, { data: reading('Ines Varga') });
  expect([refused.status(), await refused.text()]).toEqual([
    401,
    expect.stringContaining('Ines Varga is not signed in on this device'),
  ]);
  expect((await context.request.post(`/api/runs/${run}/readings`, { data: reading('Tobin Marsh') })).status()).toBe(
    201,
  );
  await context.close();
});

test('30 MB, scripts and hostile names as photos: refused or inert', async ({ request }) => {
  const job = demoId('job', OF_UNIT);
  const photo = (bytes: Buffer, name: string, id = v7()) =>
    request.post(`/api/jobs/${job}/photos?id=${id}&name=${encodeURIComponent(name)}`, {
      data: bytes,
      headers: { 'content-type': 'image/jpeg' },
    });
  expect((await photo(Buffer.alloc(30e6, 1), 'big.jpg')).status()).toBe(413);
  expect(
    (await photo(Buffer.from('<svg onload="alert(1)" xmlns="http://www.w3.org/2000/svg"/>'), 'x.svg')).status(),
  ).toBe(415);
  const id = v7();
  expect(
    (await photo(readFileSync('docs/screenshots/yard.png'), '../../<script>alert(1)</script>.jpg', id)).status(),
  ).toBe(201);
  const stored = await request.get(`/api/photos/${id}`);
  expect(stored.headers()).toMatchObject({
    'content-type': 'image/jpeg',
    'x-content-type-options': 'nosniff',
    'content-disposition': `inline; filename="photo-${id}.jpg"`,
  });
  const view = (await (await request.get(`/api/jobs/${job}`)).json()) as { photos: { id: string; name: string }[] };
  expect(view.photos.find((p) => p.id === id)?.name).toBe('script.jpg');
});

test('script in any text is only text', async ({ page, request }) => {
  const evil = '<img src=x onerror="window.pwned=1"><script>window.pwned=1</script>';
  const job = v7();
  await request.post('/api/jobs', { data: { id: job, unitId: demoId('unit', OF_UNIT), complaint: evil } });
  const post = async (route: string, data: unknown) =>
    expect((await request.post(`/api/jobs/${job}/${route}`, { data })).status(), route).toBe(201);
  await post('intake', {
    id: v7(),
    intake: { conditions: ['wet'], when: evil, replaced: [{ what: evil, by: evil }], signs: [evil], photos: [] },
  });
  await post('evidence', {
    id: v7(),
    evidence: { kind: 'visual', where: evil, damaged: true, seen: evil, note: evil },
  });
  await post('findings', {
    id: v7(),
    finding: { kind: 'not-found', text: evil, ruledOut: [{ what: evil, by: evil }], ifReturns: evil },
  });
  await post('plan', { id: v7(), change: { kind: 'skip', test: 'battery-at-rest', because: evil } });
  await post('codes', {
    id: v7(),
    phase: 'as-found',
    status: 'active',
    codes: ['P1604'],
    freezeFrame: [{ name: evil.slice(0, 80), value: evil.slice(0, 80) }],
  });
  await page.goto(`/jobs/${job}`);
  await expect(page.getByText('window.pwned').first()).toBeVisible();
  expect(await page.evaluate(() => (window as unknown as { pwned?: number }).pwned)).toBeUndefined();
});
