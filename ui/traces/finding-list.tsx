'use client';
import { fixed, grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { evidenceOf } from '../../application/traces/finding-evidence';
import type { TraceView } from '../../application/views';
import type { DriveEvent } from '../../core/signal/drive';
import type { Finding } from '../../core/signal/types';
import { chanceToShow, hoursWords, type Shown } from '../../core/numerics/rare-events';
import { moment, say, span } from '../../core/signal/words';
import type { TraceFile, TraceNoteBody } from '../../formats/requests/traces';
import { Button } from '../kit/button';
import { shownTime } from '../kit/time';
import { decisionOn, nameOf } from '../../application/traces/picture';
import { KIND_WORDS } from './finding-words';

interface Props {
  readonly trace: TraceView;
  readonly findings: readonly Finding[];
  readonly selected: Finding | null;
  readonly timeZone: string;
  /** How often it shows itself, as the intake says. */
  readonly shown: Shown | undefined;
  readonly onShow: (f: Finding) => void;
  readonly onMark: (mark: TraceNoteBody) => void;
  readonly onEvent: (event: DriveEvent) => void;
  /** `null`: nothing can be decided any more. */
  readonly onDecide: ((of: Finding | 'nothing') => void) | null;
}

const TONES: Readonly<Record<Finding['severity'], string>> = {
  fail: 'border-rust',
  attention: 'border-ochre',
  undecided: 'border-line',
  pass: 'border-eelgrass',
  none: 'border-line',
};

/** What was found, in words, worst first; what would have been found; and the marks that people have set. */
export function FindingList({ trace, findings, selected, timeZone, shown, onShow, onMark, onEvent, onDecide }: Props) {
  const bad = findings.filter((f) => f.severity === 'fail' || f.severity === 'attention');
  const marks = trace.notes.filter((n) => n.body.kind === 'mark');
  return (
    <aside
      className="flex min-h-0 flex-col gap-3 overflow-y-auto border-line p-3 lg:w-[26rem] lg:border-l"
      aria-label="Findings"
      tabIndex={0}
    >
      <h2 className="text-lg font-bold">
        {bad.length > 0
          ? tr`${bad.length} found`
          : trace.head.capture
            ? 'No cylinder is out of line'
            : 'Nothing left its course'}
      </h2>
      <ul className="flex flex-col gap-2">
        {findings.map((f, i) => (
          <FindingCard
            key={i}
            trace={trace}
            finding={f}
            isSelected={f === selected}
            onShow={() => onShow(f)}
            onDecide={onDecide && evidenceOf(trace.head, f) ? () => onDecide(f) : null}
          />
        ))}
      </ul>
      {!trace.head.capture && <Power trace={trace} />}
      {bad.length === 0 && !trace.head.capture && shown && (
        <p>
          It showed itself {shown.times === 1 ? 'once' : tr`${shown.times} times`} in {hoursWords(shown.hours)}. While
          this was recorded it would have shown with {Math.round(100 * chanceToShow(shown, hoursOf(trace)))} %.
        </p>
      )}
      {bad.length === 0 && !trace.head.capture && onDecide && !trace.notes.some((n) => n.body.kind === 'evidence') && (
        <Button onClick={() => onDecide('nothing')}>Record that nothing was found</Button>
      )}
      {marks.length > 0 && (
        <div>
          <h3 className="font-semibold text-soft">Marks</h3>
          <ul className="flex flex-col">
            {marks.map((m) => (
              <li key={m.id}>
                <button type="button" className="min-h-12 w-full py-1 text-left" onClick={() => onMark(m.body)}>
                  <span className="font-mono">{moment(m.body.from_s)}</span> {m.body.text}
                  <span className="block text-sm text-soft">
                    {m.by}, {shownTime(m.at, timeZone)}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
      <Drive events={trace.head.search.events ?? []} onEvent={onEvent} />
      {trace.head.files && <Files files={trace.head.files} />}
      {trace.head.notes.map((n) => (
        <p key={n} className="text-sm text-soft">
          {n}
        </p>
      ))}
      <p className="flex flex-wrap gap-x-4">
        {trace.head.clocks.map((_, i) => (
          <a
            key={i}
            className="inline-flex min-h-12 items-center underline"
            href={`/api/traces/${trace.id}/csv?clock=${i}`}
            download
          >
            {trace.head.clocks.length === 1 ? 'Table of it (CSV)' : tr`Table ${i + 1} (CSV)`}
          </a>
        ))}
        <a className="inline-flex min-h-12 items-center underline" href={`/api/traces/${trace.id}/question`} download>
          Question document
        </a>
      </p>
    </aside>
  );
}

const hoursOf = ({ head }: TraceView): number => Math.max(0, ...head.search.searched.map((s) => s.seconds)) / 3600;

const EVENT_WORDS: Readonly<Record<DriveEvent['kind'], string>> = {
  'key-on': 'Key on',
  cranking: 'Starter turns',
  running: 'Engine runs',
  'key-off': 'Key off',
};

/** What the drive did: each goes to its moment. */
function Drive({ events, onEvent }: { events: readonly DriveEvent[]; onEvent: (event: DriveEvent) => void }) {
  if (!events.length) return null;
  return (
    <details>
      <summary className="min-h-12 cursor-pointer py-3 font-semibold text-soft">
        The drive: {events.length} {events.length === 1 ? 'event' : 'events'}
      </summary>
      <ul className="flex flex-col">
        {events.map((e) => (
          <li key={`${e.kind} ${e.from_s}`}>
            <button type="button" className="min-h-12 w-full py-1 text-left" onClick={() => onEvent(e)}>
              <span className="font-mono">{moment(e.from_s)}</span> {EVENT_WORDS[e.kind]}
              <span className="block text-sm text-soft">{e.reasons.join(' ')}</span>
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}

const WAY_WORDS: Readonly<Record<TraceFile['how'], string>> = {
  first: 'its clock counts',
  'time stamps': 'by the time stamps',
  'common movement': 'by what moved in both',
  'by hand': 'by hand',
};

/** The files that a recording was put together from, and how they were laid on one clock. */
function Files({ files }: { files: readonly TraceFile[] }) {
  return (
    <ul className="text-sm text-soft" aria-label="Files on one clock">
      {files.map((f) => (
        <li key={f.sha256}>
          {f.name}: {f.how === 'first' ? WAY_WORDS.first : tr`moved by ${fixed(f.shift_s, 2)} s, ${WAY_WORDS[f.how]}`}
        </li>
      ))}
    </ul>
  );
}

function FindingCard(props: {
  trace: TraceView;
  finding: Finding;
  isSelected: boolean;
  onShow: () => void;
  onDecide: (() => void) | null;
}) {
  const { trace, finding: f } = props;
  const decision = decisionOn(trace, f);
  const [first, ...more] = f.reasons;
  return (
    <li
      className={`rounded-lg border-l-4 bg-card p-2 ${TONES[f.severity]} ${props.isSelected ? 'outline-2 outline-estuary' : ''}`}
    >
      <button
        type="button"
        className="block min-h-12 w-full text-left"
        aria-pressed={props.isSelected}
        onClick={props.onShow}
      >
        <span className="block">
          <b>{nameOf(trace, f.channel)}</b>, {KIND_WORDS[f.kind]}{' '}
          <span className="font-mono text-sm">{moment(f.from_s)}</span>
        </span>
        <span className="block text-sm">{first}</span>
      </button>
      {more.length > 0 && (
        <details className="text-sm">
          <summary className="min-h-8 cursor-pointer text-soft">Why, and what else moved</summary>
          {more.map((r) => (
            <p key={r}>{r}</p>
          ))}
        </details>
      )}
      {decision ? (
        <p className="text-sm font-semibold">
          {decision.body.kind === 'evidence' ? 'Taken as evidence' : 'Dismissed'} by {decision.by}
          {decision.body.kind === 'dismissed' && <span className="font-normal">: {decision.body.text}</span>}
        </p>
      ) : (
        props.onDecide && (
          <Button className="mt-1" onClick={props.onDecide}>
            Is this evidence?
          </Button>
        )
      )}
    </li>
  );
}

/** What the search would have found: without it, "nothing found" says nothing. */
function Power({ trace }: { trace: TraceView }) {
  return (
    <div>
      <h3 className="font-semibold text-soft">What would have been found</h3>
      <ul className="text-sm">
        {trace.head.search.searched.map((s) => {
          const unit = trace.head.channels.find((c) => c.column === s.channel)?.unit ?? '';
          return (
            <li key={s.channel} className="border-t border-line py-1">
              <b>{nameOf(trace, s.channel)}</b>, {span(s.seconds)}, {grouped(s.samples)} samples:{' '}
              {s.wouldFind
                ? tr`a dropout of one sample and ${say(s.wouldFind.depth, { step: 0 })} ${unit} with ${Math.round(s.wouldFind.probability * 100)} %.`
                : (s.why ?? 'not searched.')}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
