import { tr } from '../../locale/translate';
import { capital } from '../../foundation/text';
import { type EvidenceKindDefinition, ofPosition, path, say } from './definition';
import { isCalled } from './supposition';

/** What a scan tool has shown of something, but for codes. */
export const SCAN_OUTCOMES = [
  ['self-test failed', 'failed in the controller’s own test'],
  ['self-test passed', 'passed the controller’s own test'],
  ['command on', 'is commanded on'],
  ['command off', 'is commanded off'],
  ['shown', 'as the scan tool shows it'],
] as const;

const wordsOf = (outcome: (typeof SCAN_OUTCOMES)[number][0]): string =>
  SCAN_OUTCOMES.find(([o]) => o === outcome)?.[1] ?? outcome;

/** A self-test that fails where the circuit is bad; seldom else. Common practice, no source. */
const [FAILS_THERE, FAILS_THERE_AT_TIMES, FAILS_ELSEWHERE] = [0.85, 0.45, 0.04];

/**
 * What the scan tool shows besides codes: the controller's self-test of a position, a command, live values.
 */
export const SCAN_TOOL: EvidenceKindDefinition<'scan-tool'> = {
  kind: 'scan-tool',
  name: 'Scan tool',
  purpose: 'What the scan tool shows besides codes: a self-test, whether something is commanded, live values.',
  fields: [
    { field: 'what', label: 'What', kind: 'part', hint: 'injector, glow relay, engine' },
    { field: 'position', label: 'Cylinder', kind: 'cylinder', optional: true },
    { field: 'outcome', label: 'It', kind: 'choice', options: SCAN_OUTCOMES },
    { field: 'seen', label: 'What was shown', kind: 'long' },
  ],
  example: { kind: 'scan-tool', what: 'injector', position: 3, outcome: 'self-test failed', seen: 'circuit open' },
  words: (e) => tr`Scan tool: ${e.what}${ofPosition(e.position)} ${wordsOf(e.outcome)}. ${e.seen}`,
  statements: (e, from) => {
    const name = `${capital(e.what)}${ofPosition(e.position)}`;
    const target = path(e.what, e.position ?? null);
    switch (e.outcome) {
      case 'self-test failed':
        return [
          say(
            'scan-tool',
            'suspect',
            target,
            tr`${name} ${wordsOf(e.outcome)}: part, wire or driver. The controller sees only its own pin.`,
            from,
          ),
        ];
      case 'self-test passed':
        return [say('scan-tool', 'noted', target, tr`${name} ${wordsOf(e.outcome)} at that moment.`, from)];
      default:
        return [say('scan-tool', 'noted', target, tr`${name} ${wordsOf(e.outcome)}: ${e.seen}.`, from)];
    }
  },
  likelihood: (e, supposed) => {
    if (e.outcome !== 'self-test failed' && e.outcome !== 'self-test passed') return 1;
    const there = supposed.members.filter(
      (m) => isCalled(m.name, e.what) && (e.position === undefined || m.position === null || m.position === e.position),
    );
    const fails = there.some((m) => !m.intermittent)
      ? FAILS_THERE
      : there.length
        ? FAILS_THERE_AT_TIMES
        : FAILS_ELSEWHERE;
    return e.outcome === 'self-test failed' ? fails : 1 - fails;
  },
};
