import { tr } from '../locale/translate';
import { capital } from '../foundation/text';
import type { TestDefinition } from '../catalogue/types';
import { joinAnd } from '../quantity/print';
import type { PatternFound } from './pattern';
import { namePositions } from './words';
import type { JudgedReading } from './types';

/**
 * What the readings prove about what the positions share. Common practice, no source: "narrow by what works".
 */
export function provenBy(
  readings: readonly JudgedReading[],
  found: PatternFound,
  test: TestDefinition | undefined,
): string[] {
  const good = readings.filter((r) => r.severity === 'pass' || r.verdict === 'watch').map((r) => r.position);
  const failed = readings.filter((r) => r.severity === 'fail').map((r) => r.position);
  if (test?.layout === 'states') return provenStates(good, failed);
  const shared = test?.shared;
  if (!shared || readings.length < 2) return [];
  if (failed.length === readings.length) return [tr`Nothing they share is proven: ${shared}.`];
  if (good.length === 0) return [];
  const works = tr`${capital(namePositions(good))} ${good.length === 1 ? 'works' : 'work'}, so ${shared} ${/ and /.test(shared) ? 'are' : 'is'} proven as far as ${good.length === 1 ? 'it goes' : 'they go together'}.`;
  if (found.group === null) return failed.length ? [works] : [];
  return [works, tr`What only ${groupName(found.group)} shares is not proven: look there first.`];
}

const groupName = (name: string): string => (name.endsWith(' bank') ? tr`the ${name}` : `"${name}"`);

/** In engine states the same part is read each time: what differs is the load. */
function provenStates(good: readonly (number | string)[], failed: readonly (number | string)[]): string[] {
  if (failed.length === 0 || good.length === 0) return [];
  return [
    tr`It fails only ${failed.length === 1 ? 'at' : 'in'} ${joinAnd(failed)} and holds at ${joinAnd(good)}: what fails is what that state adds, not the wire as such.`,
  ];
}
