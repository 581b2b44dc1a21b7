import { readdirSync, readFileSync } from 'node:fs';
import { DEVICE_ROUTES, routeOf } from './routes';

// As on a device, where who is there is not told by the server's sign-in.
jest.mock('@/server/people/sign-in', () => ({}));

const ID = '01900000-0000-7000-8000-000000000001';

test('what the device answers is a route of the application, by the same path', () => {
  expect(DEVICE_ROUTES.length).toBeGreaterThan(20);
  for (const route of DEVICE_ROUTES) {
    const [method = '', pattern = ''] = route.split(' ');
    const file = `app${pattern.replaceAll(':id', '[id]')}/route.ts`;
    expect(readFileSync(file, 'utf8')).toMatch(new RegExp(`export (const|async function) ${method}\\b`));
    expect(routeOf(method, pattern.replaceAll(':id', ID))?.handle).toBeDefined();
  }
});

test('every write into a job or a run can be made without the server, but for those that are told', () => {
  // Recordings: hours of samples are more than a device carries.
  // Leads are planned on the page of the recordings, which needs the server too.
  const NEED_SERVER = ['/traces', '/leads', '/bundle', '/report', '/live', '/judge-again', '/csv', '/pdf'];
  const written = (['jobs', 'runs'] as const).flatMap((room) =>
    readdirSync(`app/api/${room}/[id]`, { recursive: true })
      .map(String)
      .filter((f) => f.endsWith('route.ts') && /POST/.test(readFileSync(`app/api/${room}/[id]/${f}`, 'utf8')))
      .map((f) => `/api/${room}/:id/${f.replace(/\/?route\.ts$/, '')}`.replace(/\/$/, '')),
  );
  for (const path of written.filter((p) => !NEED_SERVER.some((n) => p.endsWith(n))))
    expect(DEVICE_ROUTES).toContain(`POST ${path}`);
});

test('what it does not know it leaves to the server', () => {
  for (const [method, path] of [
    ['POST', '/api/session/sign-in'],
    ['POST', '/api/people'],
    ['GET', '/api/jobs'],
    ['POST', `/api/jobs/${ID}/bundle`],
    ['DELETE', `/api/jobs/${ID}/evidence`],
    ['GET', '/api/jobs/../people'],
  ] as const)
    expect(routeOf(method, path)).toBeNull();
});
