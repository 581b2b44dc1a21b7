import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

function count(files: Record<string, unknown>, ...checks: string[]) {
  const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-count-'));
  for (const [name, content] of Object.entries(files)) writeFileSync(path.join(folder, name), JSON.stringify(content));
  const { stdout, status } = spawnSync('node', ['scripts/count.mjs', folder, ...checks], { encoding: 'utf8' });
  return [stdout.trim(), status];
}
const jest_ = { numPassedTests: 10, numFailedTests: 0, numRuntimeErrorTestSuites: 0 };

test('sums both runners', () =>
  expect(count({ 'jest.json': jest_, 'playwright.json': { stats: { expected: 5, flaky: 1, unexpected: 0 } } })).toEqual(
    ['16 passed, 0 failed', 0],
  ));
test('a failure in either fails', () => {
  expect(count({ 'jest.json': jest_, 'playwright.json': { stats: { expected: 5, flaky: 0, unexpected: 2 } } })).toEqual(
    ['15 passed, 2 failed', 1],
  );
  expect(
    count({
      'jest.json': { ...jest_, numRuntimeErrorTestSuites: 1 },
      'playwright.json': { stats: { expected: 5, flaky: 0, unexpected: 0 } },
    }),
  ).toEqual(['15 passed, 1 failed', 1]);
});
test('a runner that left nothing counts as failed', () =>
  expect(count({ 'jest.json': jest_ })).toEqual(['10 passed, 1 failed', 1]));
test('a check that is no test counts by itself; one whose tests are counted does not count twice', () => {
  const good = { 'jest.json': jest_, 'playwright.json': { stats: { expected: 5, flaky: 0, unexpected: 0 } } };
  expect(count(good, 'formatting', 'lint')).toEqual(['15 passed, 2 failed', 1]);
  expect(count({ ...good, 'jest.json': { ...jest_, numFailedTests: 1 } }, 'unit tests')).toEqual([
    '15 passed, 1 failed',
    1,
  ]);
});
