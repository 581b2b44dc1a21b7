import { tr } from '../../core/locale/translate';
import { checkEngine } from '../../core/engine/layout';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { Capture } from '../../core/signal/angle/capture';
import { conclusionWords, together } from '../../core/signal/angle/together';
import { agreement } from '../../core/signal/agreement';
import { type DriveEvent, driveEvents } from '../../core/signal/drive';
import { movesOf, onsets } from '../../core/signal/moves';
import { lineOf, searchRecording } from '../../core/signal/recording';
import { snaps } from '../../core/signal/snap';
import type { Channel, Finding, Searched } from '../../core/signal/types';
import {
  type AngleAsk,
  checkQuestion,
  type LogAsk,
  type TraceAsk,
  type TraceFindings,
  type TraceQuestion,
} from '../../formats/trace-question';
import { readJsonFile, validate } from '../../formats/validate';
import { ANGLE_ASKS, answerAngle, captureOf, lacksForAngle } from './capture';
import { channelsOf, type LoadFile } from './channels';
import { inUnitOf } from './in-unit';

/** Answers a question about a recording, from the text of its document. */
export function answerTraceText(text: string, load: LoadFile): Result<TraceFindings> {
  const json = readJsonFile(text);
  if (!json.ok) return json;
  const question = validate(checkQuestion, json.value);
  return question.ok ? answerTrace(question.value, load) : question;
}

export function answerTrace(question: TraceQuestion, load: LoadFile): Result<TraceFindings> {
  const lacking = lacks(question);
  if (lacking.length) return fail(lacking);
  const asked = channelsOf(question, load);
  if (!asked.ok) return asked;
  const { channels, notes } = asked.value;
  const capture = captureOf(channels, question);
  const known = referenceOf(question, load);
  if (!known.ok) return known;
  const parts: Part[] = [];
  for (const [i, ask] of question.ask.entries()) {
    if (isAngle(ask)) {
      const part = answerAngle(ask, capture, known.value, `/ask/${i}`);
      if (!part.ok) return part;
      parts.push(part.value);
    } else parts.push(ANSWERS[ask](channels, question));
  }
  const findings = parts.flatMap((p) => p.findings);
  const conclusions = question.ask.some(isAngle) ? together(findings, capture.banks).map(conclusionWords) : [];
  return ok({
    format: 'mudflat/trace-findings',
    version: 1,
    findings,
    searched: parts.flatMap((p) => p.searched ?? []),
    events: parts.flatMap((p) => p.events ?? []),
    notes: [...notes],
    conclusions,
    summary: [...parts.map((p) => p.summary), ...conclusions].join(' '),
  });
}

interface Part {
  readonly findings: readonly Finding[];
  readonly searched?: readonly Searched[];
  readonly events?: readonly DriveEvent[];
  readonly summary: string;
}

const isAngle = (ask: TraceAsk): ask is AngleAsk => (ANGLE_ASKS as readonly string[]).includes(ask);

/** The capture of the known good; `null`: none is stated. Its own files lie beside its document. */
function referenceOf({ reference }: TraceQuestion, load: LoadFile): Result<Capture | null> {
  if (reference === undefined || reference === null) return ok(null);
  let document = reference;
  let folder = '';
  if (typeof document === 'string') {
    const path = document;
    let text: string;
    try {
      text = new TextDecoder().decode(load(path));
    } catch (error) {
      return fail([{ path: '/reference', message: tr`${path} cannot be read: ${(error as Error).message}` }]);
    }
    const json = readJsonFile(text);
    if (!json.ok) return within(json);
    const read = validate(checkQuestion, json.value);
    if (!read.ok) return within(read);
    document = read.value;
    folder = path.slice(0, Math.max(0, path.lastIndexOf('/') + 1));
  }
  const wrong = document.engine ? checkEngine(document.engine, '/reference/engine') : [];
  if (wrong.length) return fail(wrong);
  const asked = channelsOf(document, (path) => load(path.startsWith('/') ? path : folder + path));
  return asked.ok ? ok(captureOf(asked.value.channels, document)) : within(asked);
}

/** Problems of the known good's own document, below its place in the question. */
const within = (failed: { readonly error: readonly Problem[] }): Result<never> =>
  fail(failed.error.map((p) => ({ ...p, path: `/reference${p.path}` })));

const ANSWERS: Readonly<Record<LogAsk, (channels: readonly Channel[], question: TraceQuestion) => Part>> = {
  search: (channels) => ({ ...searchRecording(channels), events: driveEvents(channels) }),
  agreement: (channels, { channels: asked }) => {
    const findings = channels.flatMap((scan) => {
      const pin = channels.find((c) => c.id === scan.of);
      if (scan.role !== 'scan-tool' || !pin) return [];
      const transfer = asked.find((c) => c.column === pin.id)?.transfer;
      const same = inUnitOf(pin, scan, transfer);
      return agreement(scan, same ?? pin, same !== null);
    });
    return {
      findings,
      summary: said(
        findings.filter((f) => f.kind === 'agreement'),
        channels,
      ),
    };
  },
  order: (channels) => {
    const moves = movesOf(channels);
    const findings = onsets(channels, moves);
    const first = findings.filter((f, i) => findings.findIndex((o) => o.event === f.event) === i);
    const name = (id: string): string => channels.find((c) => c.id === id)?.name ?? id;
    const still = channels.filter((c) => !findings.some((f) => f.channel === c.id)).map((c) => c.name);
    const lines = first.slice(0, 10).map((f) => {
      const rest = findings.filter((o) => o.event === f.event && o !== f);
      const order = rest.map((o) => tr`${name(o.channel)} ${Math.round((o.at_s - f.at_s) * 1000)} ms later`);
      return tr`Event ${f.event}: ${[tr`${name(f.channel)} moved first`, ...order].join(', ')}.`;
    });
    const head = moves.length === 0 ? ['No channel moved clearly.'] : [];
    const silent = still.length && moves.length ? [tr`Without an answer: ${still.join(', ')}.`] : [];
    return { findings, summary: [...head, ...lines, ...silent].join(' ') };
  },
  snap: (channels) => {
    const findings = snaps(channels, movesOf(channels));
    return { findings, summary: findings.length ? said(findings, channels) : 'No snap of the throttle was found.' };
  },
};

const said = (findings: readonly Finding[], channels: readonly Channel[]): string =>
  findings
    .slice(0, 12)
    .map((f) =>
      f.kind === 'agreement' ? `${lineOf(f, channels)} ${f.reasons.slice(1).join(' ')}` : lineOf(f, channels),
    )
    .join(' ');

/** What an answer would need and the question does not have. */
function lacks(question: TraceQuestion): Problem[] {
  const { ask, channels } = question;
  const problems: Problem[] = lacksForAngle(question);
  const say = (what: TraceAsk, message: string): void =>
    void problems.push({ path: `/ask/${ask.indexOf(what)}`, message: `"${what}" ${message}` });
  if (ask.includes('agreement') && !channels.some((c) => c.role === 'scan-tool' && c.of !== undefined))
    say('agreement', 'needs a channel of role scan-tool that names in "of" the column which it reports.');
  if (ask.includes('order') && channels.length < 2) say('order', 'needs two channels at least.');
  if (
    ask.includes('snap') &&
    !channels.some((c) => c.role === 'airflow' || c.role === 'rail-pressure' || c.role === 'boost')
  )
    say('snap', 'needs a channel of role airflow, rail-pressure or boost.');
  return problems;
}
