import type { Finding } from '../../core/signal/types';
import type { TraceHead } from '../../formats/requests/traces';
import { evidenceOf, nothingFound } from './finding-evidence';

const head = (capture: boolean): TraceHead =>
  ({
    channels: [
      { column: 'a', name: 'crank sensor', role: 'crank' },
      { column: 'b', name: 'starter', role: 'starter-current' },
    ],
    search: { summary: 'Nothing was found.', searched: [] },
    ...(capture ? { capture: {} } : {}),
  }) as unknown as TraceHead;
const finding = (more: object): Finding =>
  ({
    channel: 'b',
    from_s: 0,
    to_s: 1,
    severity: 'fail',
    confidence: 0.9,
    reasons: ['Said.'],
    ...more,
  }) as unknown as Finding;
const outcome = (more: object) => evidenceOf(head(true), finding(more))?.outcome ?? null;

describe('what a capture has shown, as evidence', () => {
  it('names the cylinder', () => {
    const low = { kind: 'compression', cylinder: 3, relative: 0.7 };
    expect(evidenceOf(head(true), finding(low))).toEqual({
      kind: 'capture',
      position: 3,
      outcome: 'compresses little',
      seen: 'Said.',
    });
    expect(outcome({ kind: 'pulse', cylinder: 2, missing: true })).toBe('no pulse');
    expect(outcome({ kind: 'pulse', cylinder: 2, missing: false })).toBe('off the grid');
    expect(outcome({ kind: 'contribution', cylinder: 2, relative: 0.4, misfires: 0.5 })).toBe('gives little');
    expect(outcome({ kind: 'knock', cylinder: 2, ratio: 8 })).toBe('knocks');
  });
  it('tells drag from a weak supply, and says neither where it is only slow', () => {
    expect(outcome({ kind: 'cranking', even: true })).toBe('drags');
    const slow = { kind: 'cranking', even: true, severity: 'attention' };
    expect(outcome({ ...slow, lowSupply: true })).toBe('supply weak');
    expect(outcome({ ...slow, lowSupply: false })).toBeNull();
    expect(outcome(slow)).toBeNull();
  });
  it('is none where the cylinder is not known, where all is good, or where it stands out upwards', () => {
    expect(outcome({ kind: 'compression', cylinder: null, relative: 0.7 })).toBeNull();
    expect(outcome({ kind: 'compression', cylinder: 3, relative: 0.7, severity: 'pass' })).toBeNull();
    expect(outcome({ kind: 'compression', cylinder: 3, relative: 1.2, severity: 'attention' })).toBeNull();
    expect(outcome({ kind: 'timing', inTime: true })).toBeNull();
    expect(outcome({ kind: 'timing', inTime: false })).toBe('out of time');
  });
  it('takes noise for evidence only on a position signal', () => {
    expect(outcome({ kind: 'noise', channel: 'a' })).toBe('signal noisy');
    expect(outcome({ kind: 'noise', channel: 'b' })).toBeNull();
  });
});

it('says of a capture without findings that it is as it should be, of a recording that nothing was found', () => {
  expect(nothingFound(head(true))).toEqual({ kind: 'capture', outcome: 'as it should be', seen: 'Nothing was found.' });
  expect(nothingFound(head(false))).toMatchObject({ kind: 'recording', outcome: 'nothing found' });
});
