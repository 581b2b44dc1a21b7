import { OPEN_JOB, type OpenJob } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { answer, guard, handleJson, isId, readText } from './handler';

const ID = '01935b2e-7f3a-7000-8000-000000000001';
const check = schema<OpenJob>(OPEN_JOB);
const request = (body: string, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1:4180/api/jobs', { method: 'POST', body, headers: { 'content-type': 'application/json', host: '127.0.0.1:4180', ...headers } });
const post = async (body: unknown, headers = {}) => {
  const answered = await handleJson(request(typeof body === 'string' ? body : JSON.stringify(body), headers), check, (b) => Promise.resolve(answer({ ok: true, value: { id: b.id, duplicate: false } })));
  return { status: answered.status, type: answered.headers.get('content-type'), body: (await answered.json()) as { errors?: { path: string; message: string }[] } };
};
const job = { id: ID, unitId: ID, complaint: 'x', by: 'y' };

test('a good body is handled, new things are 201, known ones 200', async () => {
  expect((await post(job)).status).toBe(201);
  expect(answer({ ok: true, value: { duplicate: true } }).status).toBe(200);
});
test.each<[string, unknown, object, number]>([
  ['not JSON', '{', {}, 400], ['wrong fields', { ...job, id: 1 }, {}, 422], ['form post', job, { 'content-type': 'application/x-www-form-urlencoded' }, 415],
  ['no type', job, { 'content-type': '' }, 415], ['another site', job, { origin: 'https://elsewhere.example' }, 403], ['a broken origin', job, { origin: 'null' }, 403],
  ['too large by its header', job, { 'content-length': '99999999' }, 413],
])('%s', async (_, body, headers, status) => {
  const answered = await post(body, headers);
  expect(answered).toMatchObject({ status, type: 'application/problem+json' });
  expect(answered.body.errors?.length).toBeGreaterThan(0);
});
test('its own pages may post', async () => expect((await post(job, { origin: 'http://127.0.0.1:4180' })).status).toBe(201));
test('the path of a wrong field comes back', async () => expect((await post({ ...job, extra: 1 })).body.errors).toEqual([{ path: '/extra', message: 'Unknown field.' }]));
test('what breaks is 503 and says nothing of its inside', async () => {
  const quiet = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  const answered = await guard(() => Promise.reject(new Error('secret path')));
  quiet.mockRestore();
  expect(answered.status).toBe(503);
  expect(await answered.text()).not.toContain('secret');
});
test('text of the expected type is read', async () => {
  expect(await readText(new Request('http://x/', { method: 'POST', body: 'a,b', headers: { 'content-type': 'text/csv; charset=utf-8' } }), 'text/csv')).toBe('a,b');
});
test.each([[ID, true], [ID.toUpperCase(), true], ['x', false], [`${ID}'; drop`, false], ['', false]])('%s is an id: %s', (text, is) => expect(isId(text)).toBe(is));
