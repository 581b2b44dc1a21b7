import type { Evidence } from '../../core/evidence/types';
import type { Finding } from '../../core/signal/types';
import { moment } from '../../core/signal/words';
import type { TraceHead } from '../../formats/requests/traces';

export type RecordingEvidence = Extract<Evidence, { kind: 'recording' }>;
export type CaptureEvidence = Extract<Evidence, { kind: 'capture' }>;
export type TraceEvidence = RecordingEvidence | CaptureEvidence;

const MOST_CHARACTERS = 1900;

/** The evidence that a finding is, as it is proposed to the person; `null`: it is none by itself. */
export function evidenceOf(head: TraceHead, f: Finding): TraceEvidence | null {
  const capture = captureOutcome(head, f);
  if (capture) {
    const cylinder = 'cylinder' in f ? f.cylinder : null;
    return {
      kind: 'capture',
      ...(cylinder === null ? {} : { position: cylinder }),
      outcome: capture,
      seen: f.reasons.join(' ').slice(0, MOST_CHARACTERS),
    };
  }
  const channel = head.channels.find((c) => c.column === f.channel);
  const outcome = recordingOutcome(head, f);
  if (!channel || !outcome) return null;
  const pin = channel.of === undefined ? channel : head.channels.find((c) => c.column === channel.of);
  return {
    kind: 'recording',
    signal: (pin ?? channel).name,
    outcome,
    seen: `At ${moment(f.from_s)}: ${f.reasons.join(' ')}`.slice(0, MOST_CHARACTERS),
  };
}

/** That nothing was found, with what would have been. */
export function nothingFound(head: TraceHead): TraceEvidence {
  const seen = head.search.summary.slice(0, MOST_CHARACTERS);
  if (head.capture !== undefined) return { kind: 'capture', outcome: 'as it should be', seen };
  const signal = head.channels
    .map((c) => c.name)
    .join(', ')
    .slice(0, 190);
  return { kind: 'recording', signal, outcome: 'nothing found', seen };
}

/** A cylinder whose number is not known is nobody's evidence, nor is what is only worth a look. */
function captureOutcome(head: TraceHead, f: Finding): CaptureEvidence['outcome'] | null {
  if ('cylinder' in f && f.cylinder === null) return null;
  if (f.severity !== 'fail' && f.severity !== 'attention') return null;
  const role = head.channels.find((c) => c.column === f.channel)?.role;
  return f.kind === 'noise' ? (role === 'crank' || role === 'cam' ? 'signal noisy' : null) : outcomeOf(f);
}

function outcomeOf(f: Finding): CaptureEvidence['outcome'] | null {
  switch (f.kind) {
    case 'pulse':
      return f.missing ? 'no pulse' : 'off the grid';
    case 'compression':
      // One that stands out upwards is no lack of compression.
      return f.relative < 1 ? 'compresses little' : null;
    case 'contribution':
      return f.relative < 1 || f.misfires > 0 ? 'gives little' : null;
    case 'knock':
      return 'knocks';
    case 'cranking':
      return f.severity === 'fail' && f.even ? 'drags' : f.lowSupply === true ? 'supply weak' : null;
    case 'timing':
      return f.inTime === false ? 'out of time' : null;
    default:
      return null;
  }
}

function recordingOutcome(head: TraceHead, f: Finding): RecordingEvidence['outcome'] | null {
  const channel = head.channels.find((c) => c.column === f.channel);
  if (f.kind === 'agreement') return f.agrees === null ? null : f.agrees ? 'pin agrees' : 'pin differs';
  if (f.kind === 'apart') return 'scan tool dropped out';
  if (f.kind !== 'dropout' && f.kind !== 'spike') return null;
  const others = head.search.searched.filter((s) => s.channel !== f.channel && s.wouldFind !== null).length;
  if (others > 0 && f.together.length === others) return 'all dropped out';
  if (channel?.role !== 'scan-tool') return 'pin dropped out';
  return channel.of !== undefined && f.together.includes(channel.of) ? 'pin dropped out' : 'scan tool dropped out';
}
