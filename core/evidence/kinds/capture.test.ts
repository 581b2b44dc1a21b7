import { evidenceLikelihood } from './kinds';
import type { SupposedFault } from './supposition';

const supposed = (name: string, position: number | null, is: SupposedFault['is'] = 'part') => ({
  members: [{ is, name, position, intermittent: false, when: [] }],
});
const NOTHING = { members: [] };

describe.each([
  ['a missing pulse', { kind: 'capture', position: 3, outcome: 'no pulse', seen: 'none' }],
  ['a failed self-test', { kind: 'scan-tool', what: 'injector', position: 3, outcome: 'self-test failed', seen: '' }],
] as const)('%s of an injector', (_, evidence) => {
  it('accuses the injector of that cylinder', () =>
    expect(evidenceLikelihood(evidence, supposed('injector', 3))).toBeGreaterThan(
      10 * evidenceLikelihood(evidence, NOTHING),
    ));
  it.each([
    ['plug', 3],
    ['injector', 4],
    ['feed cable', null],
  ] as const)('says nothing of %s at %s', (name, position) =>
    expect(evidenceLikelihood(evidence, supposed(name, position))).toBe(evidenceLikelihood(evidence, NOTHING)),
  );
});

it('a weak supply accuses battery and cables, and no injector', () => {
  const evidence = { kind: 'capture', outcome: 'supply weak', seen: '' } as const;
  const none = evidenceLikelihood(evidence, NOTHING);
  expect(evidenceLikelihood(evidence, supposed('battery', null, 'shared'))).toBeGreaterThan(none);
  expect(evidenceLikelihood(evidence, supposed('injector', 2))).toBe(none);
});
