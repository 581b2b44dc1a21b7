import type { Finding } from '../../core/signal/types';
import type { TraceView } from '../../application/views';
import type { TraceNoteBody } from '../../formats/requests/traces';
import type { Evidence } from '../../core/evidence/types';
import { moment } from '../../core/signal/words';

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

type RecordingEvidence = Extract<Evidence, { kind: 'recording' }>;

/** The evidence that a finding is, as it is proposed to the person; `null`: it is none by itself. */
export function evidenceOf(view: TraceView, f: Finding): RecordingEvidence | null {
  const channel = view.head.channels.find((c) => c.column === f.channel);
  const outcome = outcomeOf(view, f);
  if (!channel || !outcome) return null;
  const pin = channel.of === undefined ? channel : view.head.channels.find((c) => c.column === channel.of);
  return {
    kind: 'recording',
    signal: (pin ?? channel).name,
    outcome,
    seen: `At ${moment(f.from_s)}: ${f.reasons.join(' ')}`.slice(0, 1900),
  };
}

function outcomeOf(view: TraceView, f: Finding): RecordingEvidence['outcome'] | null {
  const channel = view.head.channels.find((c) => c.column === f.channel);
  if (f.kind === 'agreement') return f.agrees === null ? null : f.agrees ? 'pin agrees' : 'pin differs';
  if (f.kind === 'apart') return 'scan tool dropped out';
  if (f.kind !== 'dropout' && f.kind !== 'spike') return null;
  const others = view.head.search.searched.filter((s) => s.channel !== f.channel && s.wouldFind !== null).length;
  if (others > 0 && f.together.length === others) return 'all dropped out';
  if (channel?.role !== 'scan-tool') return 'pin dropped out';
  return channel.of !== undefined && f.together.includes(channel.of) ? 'pin dropped out' : 'scan tool dropped out';
}

/** That nothing was found, with what would have been. */
export const nothingFound = (view: TraceView): RecordingEvidence => ({
  kind: 'recording',
  signal: view.head.channels
    .map((c) => c.name)
    .join(', ')
    .slice(0, 190),
  outcome: 'nothing found',
  seen: view.head.search.summary.slice(0, 1900),
});
