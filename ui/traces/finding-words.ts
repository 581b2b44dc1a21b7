import type { Finding } from '../../core/signal/types';
import type { TraceView } from '../../application/views';
import type { TraceNoteBody } from '../../formats/requests/traces';

export const KIND_WORDS: Readonly<Record<Finding['kind'], string>> = {
  dropout: 'dropout',
  spike: 'spike',
  stuck: 'stood still',
  clipped: 'range ended',
  'out-of-limits': 'out of limits',
  noise: 'noise',
  gap: 'gap',
  drift: 'drift',
  agreement: 'pin and scan tool',
  apart: 'parted from the pin',
  onset: 'began to move',
  snap: 'snap',
  shape: 'shape',
  compression: 'compression',
  cranking: 'cranking',
  wheel: 'crank wheel',
  'cam-edge': 'cam edge',
  timing: 'timing',
  pulse: 'injector pulse',
  contribution: 'contribution',
  knock: 'knock',
  connection: 'connection',
  change: 'against another capture',
};

/** Findings that a person looks at, worst first, then by time. */
export const listedFindings = ({ head }: TraceView): readonly Finding[] => {
  const rank = { fail: 0, attention: 1, undecided: 2, pass: 3, none: 4 } as const;
  // A dropout goes out of the limits too: it is told once.
  const isTold = (f: Finding): boolean =>
    f.kind === 'out-of-limits' &&
    head.search.findings.some(
      (o) =>
        (o.kind === 'dropout' || o.kind === 'spike') &&
        o.channel === f.channel &&
        o.from_s <= f.to_s &&
        f.from_s <= o.to_s &&
        f.to_s - f.from_s <= 2 * (o.to_s - o.from_s),
    );
  // Of a capture the good cylinders stand on their posts.
  const isOnPost = (f: Finding): boolean => 'cylinder' in f && f.severity === 'pass';
  return head.search.findings
    .filter((f) => !isTold(f) && !isOnPost(f))
    .sort((a, b) => rank[a.severity] - rank[b.severity] || a.from_s - b.from_s);
};

export const noteOf = (f: Finding, kind: TraceNoteBody['kind'], text: string): TraceNoteBody => ({
  kind,
  from_s: f.from_s,
  to_s: f.to_s,
  channel: f.channel,
  text,
});
