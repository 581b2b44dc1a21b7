jest.mock('@/server/people/sign-in', () => ({
  actorOf: (headers: Headers) =>
    Promise.resolve(
      headers.get('x-test') === 'nobody'
        ? null
        : { id: 'p', name: headers.get('x-test') ?? 'y', role: 'technician', depotId: null },
    ),
  deviceActor: (_: Headers, name: string) =>
    Promise.resolve(name === 'Second' ? { id: 'q', name, role: 'viewer', depotId: null } : null),
}));
jest.mock('@/server/db/connection', () => ({ serverDb: () => ({ db: {} }) }));
jest.mock('@/server/policy/authorize', () => ({
  refusalFor: (_: unknown, actor: { role: string }, action: string) =>
    Promise.resolve(
      action === 'look' || actor.role !== 'viewer'
        ? null
        : {
            type: 'about:blank',
            title: 'no',
            status: 403,
            detail: '',
            errors: [{ path: '/by', message: 'Odile may.' }],
          },
    ),
}));

import { schema } from '@/formats/schemas';
import { answer, guard, handleBytes, handleJson, isId, readText } from './handler';
import { OPEN_JOB, type OpenJob } from '@/formats/requests/jobs';

const ID = '01935b2e-7f3a-7000-8000-000000000001';
const check = schema<OpenJob>(OPEN_JOB);
const request = (body: string, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1:4180/api/jobs', {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json', host: '127.0.0.1:4180', ...headers },
  });
const post = async (body: unknown, headers = {}) => {
  const answered = await handleJson(
    request(typeof body === 'string' ? body : JSON.stringify(body), headers),
    check,
    'job.open',
    (b) => b.unitId,
    (b) => Promise.resolve(answer({ ok: true, value: { id: b.id, duplicate: false } })),
  );
  return {
    status: answered.status,
    type: answered.headers.get('content-type'),
    body: (await answered.json()) as { errors?: { path: string; message: string }[] },
  };
};
const job = { id: ID, unitId: ID, complaint: 'x', by: 'y' };

test('a good body is handled, new things are 201, known ones 200', async () => {
  expect((await post(job)).status).toBe(201);
  expect(answer({ ok: true, value: { duplicate: true } }).status).toBe(200);
});
test.each<[string, unknown, object, number]>([
  ['not JSON', '{', {}, 400],
  ['wrong fields', { ...job, id: 1 }, {}, 422],
  ['form post', job, { 'content-type': 'application/x-www-form-urlencoded' }, 415],
  ['no type', job, { 'content-type': '' }, 415],
  ['another site', job, { origin: 'https://elsewhere.example' }, 403],
  ['a broken origin', job, { origin: 'null' }, 403],
  ['too large by its header', job, { 'content-length': '99999999' }, 413],
])('%s', async (_, body, headers, status) => {
  const answered = await post(body, headers);
  expect(answered).toMatchObject({ status, type: 'application/problem+json' });
  expect(answered.body.errors?.length).toBeGreaterThan(0);
});
test('whose doing it is comes from the session, not from the body', async () => {
  const bys: string[] = [];
  const as = (body: unknown, headers = {}) =>
    handleJson(
      request(JSON.stringify(body), headers),
      check,
      'job.open',
      (b) => b.unitId,
      (b) => {
        bys.push(b.by);
        return Promise.resolve(Response.json({}));
      },
    );
  const { by, ...anonymous } = job;
  expect((await as(anonymous)).status).toBe(200);
  expect((await as({ ...job, by }, { 'x-test': 'Ines' })).status).toBe(401);
  expect((await as({ ...job, by: 'Ines' }, { 'x-test': 'Ines' })).status).toBe(200);
  expect((await as({ ...job, by: 'Second' })).status).toBe(403);
  expect((await as(job, { 'x-test': 'nobody' })).status).toBe(401);
  expect(bys).toEqual(['y', 'Ines']);
});
test('a page of another site is refused, whatever it says of its origin', async () =>
  expect((await post(job, { 'sec-fetch-site': 'cross-site' })).status).toBe(403));
test('bytes beyond the limit are not read to their end', async () => {
  let pulled = 0;
  const body = new ReadableStream({
    pull: (c) => {
      pulled++;
      c.enqueue(new Uint8Array(1000));
    },
  });
  const answered = await handleBytes(
    new Request('http://x/', { method: 'POST', body, duplex: 'half' } as RequestInit),
    'look',
    null,
    5000,
    () => Promise.resolve(Response.json({})),
  );
  expect([answered.status, pulled < 20]).toEqual([413, true]);
});
test('its own pages may post', async () =>
  expect((await post(job, { origin: 'http://127.0.0.1:4180' })).status).toBe(201));
test('the path of a wrong field comes back', async () =>
  expect((await post({ ...job, extra: 1 })).body.errors).toEqual([{ path: '/extra', message: 'Unknown field.' }]));
test('what breaks is 503 and says nothing of its inside', async () => {
  const quiet = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  const answered = await guard(() => Promise.reject(new Error('secret path')));
  quiet.mockRestore();
  expect(answered.status).toBe(503);
  expect(await answered.text()).not.toContain('secret');
});
test('text of the expected type is read', async () => {
  expect(
    await readText(
      new Request('http://x/', { method: 'POST', body: 'a,b', headers: { 'content-type': 'text/csv; charset=utf-8' } }),
      'text/csv',
    ),
  ).toBe('a,b');
});
test.each([
  [ID, true],
  [ID.toUpperCase(), true],
  ['x', false],
  [`${ID}'; drop`, false],
  ['', false],
])('%s is an id: %s', (text, is) => expect(isId(text)).toBe(is));

test('a body that has no end is refused as soon as it is too large, and the rest is not read', async () => {
  let sent = 0;
  const chunk = new Uint8Array(64 * 1024);
  const endless = new ReadableStream<Uint8Array>({
    pull: (out) => {
      sent += chunk.length;
      out.enqueue(chunk);
    },
  });
  const chunked = new Request('http://127.0.0.1:4180/api/jobs', {
    method: 'POST',
    body: endless,
    headers: { 'content-type': 'application/json', host: '127.0.0.1:4180' },
    // @ts-expect-error -- Node asks for it, and its type is not in the browser's
    duplex: 'half',
  });
  const answered = await handleJson(
    chunked,
    check,
    'job.open',
    (b) => b.unitId,
    () => Promise.resolve(Response.json({})),
  );
  expect(answered.status).toBe(413);
  expect(sent).toBeLessThan(2 * 1024 * 1024);
});

test('behind a proxy that changes the host, the browser’s own word or the stated address counts', async () => {
  const proxied = { origin: 'https://mudflat.yard', host: '127.0.0.1:4180' };
  expect((await post(job, proxied)).status).toBe(403);
  expect((await post(job, { ...proxied, 'sec-fetch-site': 'same-origin' })).status).toBe(201);
  expect((await post(job, { ...proxied, 'x-forwarded-host': 'mudflat.yard' })).status).toBe(201);
  process.env.MUDFLAT_URL = 'https://mudflat.yard/';
  expect((await post(job, proxied)).status).toBe(201);
  delete process.env.MUDFLAT_URL;
  expect((await post(job, { 'sec-fetch-site': 'cross-site', host: '127.0.0.1:4180' })).status).toBe(403);
});
