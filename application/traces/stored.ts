import { tr } from '../../core/locale/translate';
import { sayingOf } from '../../core/locale/said';
import { CORE_VERSION } from '../../core/foundation/version';
import { withoutBlankRows } from '../../core/signal/blank-rows';
import { type Clock, evenClock, listedClock } from '../../core/signal/clock';
import { lineOf, searchRecording } from '../../core/signal/recording';
import { BLOCK_SAMPLES, Samples } from '../../core/signal/samples';
import { stepOf } from '../../core/signal/step';
import type { Channel, ChannelRole, Finding, Searched } from '../../core/signal/types';
import { agreement } from '../../core/signal/agreement';
import { cycleOf } from '../../core/signal/angle/cycle';
import { conclusionWords, together } from '../../core/signal/angle/together';
import type { Engine } from '../../core/engine/layout';
import type { AngleAsk } from '../../formats/trace-question';
import { driveEvents } from '../../core/signal/drive';
import type {
  JudgedBy,
  TraceCapture,
  TraceChannel,
  TraceClock,
  TraceHead,
  TraceStream,
} from '../../formats/requests/traces';
import type { ReadRecording } from '../../formats/trace/types';
import { ANGLE_ASKS, answerAngle, captureOf, lacksForAngle } from './capture';
import { inUnitOf } from './in-unit';
import { textsOf } from './stored-words';

/** What a person says of one column before it is kept. */
export interface ColumnChoice {
  readonly column: string;
  readonly name: string;
  readonly unit: string;
  readonly role: ChannelRole;
  /** Units per unit of the file. */
  readonly factor: number;
  readonly of?: string;
  readonly lead?: string;
  /** What the shelf says of this signal, in `unit`. */
  readonly judgedBy?: JudgedBy;
  /** Of an injector's own current. */
  readonly cylinder?: number;
}

/** What a capture over crank angle is asked with. */
export interface AskedCapture {
  readonly engine: Engine;
  readonly condition: TraceCapture['condition'];
  readonly temperature?: TraceCapture['temperature'];
}

export interface OriginalFile {
  readonly name: string;
  readonly size: number;
  readonly sha256: string;
}

/** A recording as it is kept: its head, and the samples of each of its streams. */
export interface StoredTrace {
  readonly head: TraceHead;
  readonly streams: readonly Samples[];
}

/** Bytes of a block's content and its hash, made where the trace is taken in. */
export type HashBlock = (block: Int32Array | Float64Array) => string;

/** A list that a person reads, and that a head can carry. */
const MOST_KEPT = 500;

type RecordingParts = readonly [
  read: ReadRecording,
  choices: readonly ColumnChoice[],
  original: OriginalFile,
  hash: HashBlock,
  progress?: (share: number) => void,
  more?: Pick<TraceHead, 'files'> & { readonly asked?: AskedCapture | null },
];

/**
 * The chosen columns of what was read, searched, as it is kept: in plain words, with what these are made of.
 * Findings beyond the five hundredth are left out of the head; their number stays in `searched`.
 */
export function toStored(...parts: RecordingParts): StoredTrace {
  const { result, said } = sayingOf(
    () => searchChosen(...parts),
    ({ head }) => textsOf(head),
  );
  return { ...result, head: { ...result.head, search: { ...result.head.search, said } } };
}

function searchChosen(...[read, choices, original, hash, progress, more = {}]: RecordingParts): StoredTrace {
  const streams: Samples[] = [];
  const clocks: TraceClock[] = [];
  const seen: Clock[] = [];
  const channels: TraceChannel[] = [];
  const searchable: Channel[] = [];
  const streamOf = (samples: Samples): number => streams.push(samples) - 1;
  const clockOf = (clock: Clock): number => {
    const known = seen.indexOf(clock);
    if (known >= 0) return known;
    seen.push(clock);
    return (
      clocks.push(clock.runs ? { runs: [...clock.runs], count: clock.count } : { stream: streamOf(timesOf(clock)) }) - 1
    );
  };
  const scales: number[] = [];
  for (const choice of choices) {
    const column = read.columns.find((c) => c.name === choice.column);
    if (!column) continue;
    const stream = streamOf(column.samples);
    scales[stream] = column.scale;
    const { of, lead, judgedBy, cylinder, ...rest } = choice;
    channels.push({
      ...rest,
      stream,
      clock: clockOf(column.clock),
      ...(of ? { of } : {}),
      ...(lead ? { lead } : {}),
      ...(judgedBy ? { judgedBy } : {}),
      ...(cylinder === undefined ? {} : { cylinder }),
    });
    searchable.push(channelFrom(choice, column.samples, column.scale, column.clock));
  }
  const capture = more.asked ? askedOverAngle(searchable, choices, more.asked, progress) : null;
  // What turns with the crank has no course: it is looked at over angle instead.
  const logged = capture ? searchable.filter((c) => !overAngle(c)) : searchable;
  const { findings: found, searched: seen_, summary: said } = searchRecording(logged, progress);
  const searched = [...seen_, ...searchable.filter((c) => !logged.includes(c)).map(notSearched)];
  const compared = besideScanTool(searchable, choices);
  const findings = [...(capture?.findings ?? []), ...found, ...compared];
  // What the search of each channel says, then what pin and scan tool say of each other.
  const summary = [
    ...(capture ? [capture.summary] : []),
    ...(logged.length ? [said] : []),
    ...compared.map((f) => lineOf(f, searchable)),
  ].join(' ');
  const head: TraceHead = {
    kind: read.kind,
    file: original.name,
    size: original.size,
    sha256: original.sha256,
    began_s: read.began_s,
    notes: read.notes.slice(0, 20).map((n) => n.slice(0, 400)),
    streams: streams.map((s, i) => streamHead(s, scales[i] ?? 1, hash)),
    clocks,
    channels,
    ...(more.files ? { files: more.files } : {}),
    ...(capture ? { capture: capture.kept } : {}),
    search: {
      core: CORE_VERSION,
      findings: findings.slice(0, MOST_KEPT),
      searched,
      summary: summary.slice(0, 20_000),
      events: driveEvents(searchable).slice(0, MOST_KEPT),
    },
  };
  return { head, streams };
}

const ANGLE_ROLES: ReadonlySet<ChannelRole> = new Set(['crank', 'cam', 'starter-current', 'injector-current', 'knock']);
/** Whether a channel is one that turns with the crank. */
export const overAngle = ({ role }: { readonly role: ChannelRole }): boolean => ANGLE_ROLES.has(role);

const notSearched = ({ id, values, clock }: Channel): Searched => ({
  channel: id,
  samples: values.length,
  seconds: clock.at(values.length - 1) - clock.at(0),
  found: 0,
  noise: 0,
  wouldFind: null,
  why: 'It is looked at over crank angle.',
});

const RUNNING: ReadonlySet<AngleAsk> = new Set(['contribution', 'knock']);

/** Every question over angle that the channels of a capture can answer, with one cycle for the picture. */
function askedOverAngle(
  channels: readonly Channel[],
  choices: readonly ColumnChoice[],
  { engine, condition, temperature }: AskedCapture,
  progress?: (share: number) => void,
) {
  const named = choices.map((c) => ({
    column: c.column,
    role: c.role,
    ...(c.cylinder === undefined ? {} : { cylinder: c.cylinder }),
  }));
  const capture = captureOf(channels, { channels: named, engine });
  const fits = (ask: AngleAsk): boolean =>
    lacksForAngle({ format: 'mudflat/trace-question', version: 1, data: '', channels: named, engine, ask: [ask] })
      .length === 0;
  // While the starter turns it nothing fires; while it runs no starter says anything.
  const asks = ANGLE_ASKS.filter(
    (a) => fits(a) && (condition === 'cranking' ? !RUNNING.has(a) : a !== 'relative-compression'),
  );
  const answers = asks.map((ask, i) => {
    progress?.(i / asks.length);
    return answerAngle(ask, capture, null, '');
  });
  const findings = answers.flatMap((a) => (a.ok ? a.value.findings : []));
  const refused = answers.flatMap((a) => (a.ok ? [] : a.error.map((p) => p.message)));
  const conclusions = together(findings, capture.banks).map(conclusionWords);
  return {
    findings,
    summary: [...answers.flatMap((a) => (a.ok ? [a.value.summary] : [])), ...refused, ...conclusions].join(' '),
    kept: {
      condition,
      ...(temperature ? { temperature } : {}),
      conclusions,
      cycle: cycleOf(capture),
    } satisfies TraceCapture,
  };
}

/** What the scan tool's values in the same recording say of the pins that they report. */
const besideScanTool = (channels: readonly Channel[], choices: readonly ColumnChoice[]): Finding[] =>
  channels.flatMap((scan) => {
    const pin = scan.role === 'scan-tool' ? channels.find((c) => c.id === scan.of) : undefined;
    if (!pin) return [];
    const same = inUnitOf(pin, scan, choices.find((c) => c.column === pin.id)?.judgedBy?.transfer);
    return agreement(scan, same ?? pin, same !== null);
  });

function streamHead(samples: Samples, scale: number, hash: HashBlock): TraceStream {
  const { count, decimals, wide } = samples;
  return { count, decimals, wide, scale, blocks: blocksOf(samples).map(hash) };
}

/** The blocks of a stream, the last cut to what it holds. */
export const blocksOf = (samples: Samples): (Int32Array | Float64Array)[] =>
  samples.blocks.map((b, i) => b.subarray(0, Math.min(BLOCK_SAMPLES, samples.count - i * BLOCK_SAMPLES)));

/** Number of samples in a block of a stream. */
export const samplesIn = ({ count }: TraceStream, block: number): number =>
  Math.min(BLOCK_SAMPLES, count - block * BLOCK_SAMPLES);

/** Times of a clock that is neither even nor in runs, as a stream. */
function timesOf(clock: Clock): Samples {
  const samples = new Samples();
  for (let i = 0; i < clock.count; i++) samples.addReal(clock.at(i));
  return samples;
}

/** A column as a channel in its unit, without rows in which nothing was recorded. */
export function channelFrom(choice: ColumnChoice, samples: Samples, scale: number, fileClock: Clock): Channel {
  const factor = scale * choice.factor;
  const all = samples.values(factor);
  const { clock, values } = withoutBlankRows(fileClock, all) ?? { clock: fileClock, values: all };
  const written = samples.decimals >= 15 ? 0 : Math.abs(factor) * 10 ** -samples.decimals;
  return {
    id: choice.column,
    name: choice.name,
    unit: choice.unit,
    role: choice.role,
    clock,
    values,
    step: stepOf(values, written),
    of: choice.of,
    limits: choice.judgedBy,
  };
}

/** The clock of a stored trace. Throws RangeError where its stream is not there. */
export function clockFrom(clock: TraceClock, streams: ReadonlyMap<number, Samples>): Clock {
  if ('runs' in clock) return evenClock(clock.runs, clock.count);
  const times = streams.get(clock.stream);
  if (!times) throw new RangeError('the times of a clock are not there');
  return listedClock(times.values());
}

/** A channel of a stored trace, from its samples and its clock. */
export const storedChannel = (head: TraceHead, channel: TraceChannel, samples: Samples, clock: Clock): Channel =>
  channelFrom(channel, samples, head.streams[channel.stream]?.scale ?? 1, clock);

/**
 * What is wrong with a head that its schema cannot say: streams and clocks that are not there, or of other
 * lengths.
 */
export function checkHead(head: TraceHead): { readonly path: string; readonly message: string }[] {
  const problems: { path: string; message: string }[] = [];
  head.streams.forEach((s, i) => {
    if (s.blocks.length !== Math.ceil(s.count / BLOCK_SAMPLES))
      problems.push({
        path: `/head/streams/${i}/blocks`,
        message: tr`${s.count} samples are ${Math.ceil(s.count / BLOCK_SAMPLES)} blocks.`,
      });
  });
  const countOf = (clock: TraceClock | undefined): number | null =>
    clock === undefined ? null : 'runs' in clock ? clock.count : (head.streams[clock.stream]?.count ?? null);
  head.clocks.forEach((c, i) => {
    if (countOf(c) === null) problems.push({ path: `/head/clocks/${i}`, message: 'Its stream is not there.' });
    else if (
      'runs' in c &&
      (c.runs[0]?.first !== 0 ||
        c.runs.some((r, k) => r.first >= c.count || (k > 0 && r.first <= (c.runs[k - 1]?.first ?? 0))))
    )
      problems.push({ path: `/head/clocks/${i}/runs`, message: 'Runs begin at sample 0 and follow each other.' });
  });
  const names = new Set<string>();
  head.channels.forEach((c, i) => {
    const path = `/head/channels/${i}`;
    const stream = head.streams[c.stream];
    if (!stream) problems.push({ path: `${path}/stream`, message: 'This stream is not there.' });
    else if (countOf(head.clocks[c.clock]) !== stream.count)
      problems.push({ path: `${path}/clock`, message: 'Its clock is not there, or has another number of samples.' });
    if (names.has(c.column)) problems.push({ path: `${path}/column`, message: 'Each column only once.' });
    names.add(c.column);
    if (c.of !== undefined && !head.channels.some((o) => o.column === c.of))
      problems.push({ path: `${path}/of`, message: 'This column is not there.' });
  });
  return problems;
}
