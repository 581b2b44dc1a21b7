// The closing line: passed and failed, summed over Jest and Playwright, and the checks beside them that
// failed (by name). Fails where a runner left no result.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const [folder, ...checks] = process.argv.slice(2);
/** Their failures are counted test by test. */
const COUNTED = ['unit tests', 'tests through the interface'];
const read = (name) => {
  try {
    return JSON.parse(readFileSync(join(folder, name), 'utf8'));
  } catch {
    return null;
  }
};
const jest = read('jest.json');
const playwright = read('playwright.json');
const passed = (jest?.numPassedTests ?? 0) + (playwright?.stats.expected ?? 0) + (playwright?.stats.flaky ?? 0);
const alone = checks.filter((c) => !COUNTED.includes(c)).length;
const failed =
  alone +
  (jest ? jest.numFailedTests + jest.numRuntimeErrorTestSuites : 1) +
  (playwright ? playwright.stats.unexpected : 1);
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed || checks.length || !passed ? 1 : 0;
