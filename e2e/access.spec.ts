import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { type APIRequestContext, expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { type Action, POLICY, ruleFor } from '../application/policy';
import { demoId } from '../demo/load';
import { freshDevice, newRun } from './bench-page';
import { type Case, CASES, IDS, INSTRUMENT, NORTH, OF_UNIT, urlOf } from './routes';

// Whoever comes back to these tests after others finds what was made before.
test.beforeAll(async ({ browser, baseURL }) => {
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  const made = await lead.request.post('/api/instruments', {
    data: { id: INSTRUMENT, depotId: NORTH, name: `Access ${INSTRUMENT}`, instrument: { kind: 'multimeter' } },
  });
  expect([200, 201]).toContain(made.status());
  await lead.close();
});

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
  const url = urlOf(rule);
  if (rule.method === 'GET') return request.get(url, { timeout: 30_000, maxRedirects: 0 });
  const body = rule.text
    ? { data: Buffer.from(rule.text[1]), headers: { 'content-type': rule.text[0] } }
    : { data: rule.body?.() };
  return rule.method === 'PUT' ? request.put(url, body) : request.post(url, body);
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

test('a browser keeps no data of the API, and photos for itself alone', async ({ request }) => {
  for (const path of ['/api/session', '/api/specifications', `/api/jobs/${IDS.jobs}`])
    expect((await request.get(path)).headers()['cache-control']).toBe('no-store');
  const { photos } = (await (await request.get(`/api/jobs/${demoId('job', 'PL-14')}`)).json()) as {
    photos: { id: string }[];
  };
  for (const { id } of photos)
    expect((await request.get(`/api/photos/${id}`)).headers()['cache-control']).toContain('private');
});

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
    `/jobs/${IDS.jobs}/traces`,
    `/traces/${IDS.traces}`,
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
