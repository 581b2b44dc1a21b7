import { clockProblem } from './clock';

const NOW = Date.parse('2026-11-29T08:00:00Z');

test.each(['2026-11-29T08:00:00Z', '2026-11-30T07:59:00Z', '2001-01-01T00:00:00Z'])('%s can be', (moment) =>
  expect(clockProblem(moment, '/takenAt', NOW)).toBeNull(),
);
test.each(['0001-01-01T00:00:00Z', '1970-01-01T00:00:00Z', '9999-12-31T23:59:59Z', '2026-12-01T00:00:00Z'])(
  '%s is a clock that is wrong, in words',
  (moment) =>
    expect(clockProblem(moment, '/takenAt', NOW)).toMatchObject({
      path: '/takenAt',
      message: expect.stringContaining('set it right') as string,
    }),
);
