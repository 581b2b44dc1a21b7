import { tr } from '../../core/locale/translate';
import { arrange, checkEngine, type Engine } from '../../core/engine/layout';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import { type Capture, type CaptureChannel, phaseOf, positionOf } from '../../core/signal/angle/capture';
import { speedOf } from '../../core/signal/angle/axis';
import { compareCaptures } from '../../core/signal/angle/compare';
import { compression } from '../../core/signal/angle/compression';
import { contribution } from '../../core/signal/angle/contribution';
import { firing } from '../../core/signal/angle/firing';
import { knock, KNOCK_RATE_Hz } from '../../core/signal/angle/knock';
import { camMarks, timing } from '../../core/signal/angle/timing';
import type { Channel, Finding } from '../../core/signal/types';
import { cylinderPulses } from '../../core/signal/angle/pulses-of';
import type { AngleAsk, TraceQuestion } from '../../formats/trace-question';

/** What is asked over crank angle. */
export const ANGLE_ASKS: readonly AngleAsk[] = ['timing', 'relative-compression', 'firing', 'contribution', 'knock'];

type Asked = Pick<TraceQuestion, 'channels' | 'engine' | 'wheel' | 'condition'>;

/** The channels of a question with its engine, as a capture. `engine` must have passed `checkEngine`. */
export function captureOf(channels: readonly Channel[], { channels: asked, engine, wheel, condition }: Asked): Capture {
  const own = channels.map((c): CaptureChannel => ({ ...c, cylinder: asked.find((q) => q.column === c.id)?.cylinder }));
  const rows = engine?.layout === 'vee' && engine.numbering ? arrange(engine).map((r) => r.cylinders) : [];
  return {
    channels: own,
    cylinders: engine?.cylinders ?? 0,
    firingOrder: orderOf(engine),
    banks: rows,
    wheel: wheel ?? null,
    condition,
  };
}

/** The firing order as stated; one of a single cylinder needs none. */
const orderOf = (engine: Engine | undefined): readonly number[] | null =>
  engine?.firingOrder ?? (engine?.cylinders === 1 ? [1] : null);

/** What an answer over angle would need and the question does not have, seen from the question alone. */
export function lacksForAngle({ ask, channels, engine }: TraceQuestion): Problem[] {
  const problems: Problem[] = engine ? checkEngine(engine, '/engine') : [];
  const has = (role: string, named?: boolean): boolean =>
    channels.some((c) => c.role === role && (named === undefined || (c.cylinder !== undefined) === named));
  const say = (what: AngleAsk, message: string): void =>
    void problems.push({ path: `/ask/${ask.indexOf(what)}`, message: tr`"${what}" needs ${message}.` });
  const NAMED = 'a channel of role injector-current with its "cylinder"';
  for (const what of ANGLE_ASKS) {
    if (!ask.includes(what)) continue;
    if (what !== 'timing' && !engine) say(what, 'the "engine": its cylinders and firing order');
  }
  if (ask.includes('timing')) {
    if (!has('crank')) say('timing', 'a channel of role crank');
    if (!has('cam')) say('timing', 'a channel of role cam');
  }
  if (ask.includes('relative-compression') && !has('starter-current') && !has('battery'))
    say('relative-compression', 'a channel of role starter-current, or of role battery for its dips');
  if (ask.includes('firing')) {
    if (!has('injector-current', false))
      say('firing', 'a channel of role injector-current around the common supply, without a "cylinder"');
    if (!has('crank') && !has('injector-current', true)) say('firing', tr`a channel of role crank, or ${NAMED}`);
  }
  if (ask.includes('contribution') && !has('crank') && !has('cam'))
    say(
      'contribution',
      'a channel of role crank, or of a cam that has a toothed wheel: the speed comes from its teeth',
    );
  if (ask.includes('knock')) {
    if (!has('knock')) say('knock', 'a channel of role knock');
    if (!has('injector-current', true)) say('knock', tr`${NAMED}: without it no window has a cylinder`);
  }
  const cylinders = engine?.cylinders;
  channels.forEach((c, i) => {
    if (c.cylinder !== undefined && cylinders !== undefined && c.cylinder > cylinders)
      problems.push({ path: `/channels/${i}/cylinder`, message: tr`The engine has ${cylinders} cylinders.` });
  });
  return problems;
}

interface AngleAnswer {
  readonly findings: readonly Finding[];
  readonly summary: string;
}

/** Answers one question over angle, or says what its channels do not carry. */
export function answerAngle(
  what: AngleAsk,
  capture: Capture,
  reference: Capture | null,
  path: string,
): Result<AngleAnswer> {
  const missing = silentChannels(what, capture);
  if (missing) return fail([{ path, message: tr`"${what}" cannot be answered: ${missing}` }]);
  const own = WAYS[what](capture, reference);
  const findings = [...own, ...besideReference(what, own, capture, reference)];
  const told = findings.filter((f) => KINDS[what].includes(f.kind));
  if (!told.length) return fail([{ path, message: tr`"${what}" cannot be answered: ${EMPTY[what]}` }]);
  const said = findings
    .filter((f) => f.kind !== 'cam-edge' && (f.kind !== 'change' || f.severity !== 'pass'))
    .flatMap((f) => f.reasons.slice(0, 1));
  return ok({ findings, summary: said.join(' ') });
}

/**
 * Where nobody said what the engine did: speeds within this share of each other are those of one condition.
 */
const ALIKE = 0.35;

/** The same numbers of the reference beside the own ones; timing compares by itself. */
function besideReference(
  what: AngleAsk,
  own: readonly Finding[],
  capture: Capture,
  reference: Capture | null,
): readonly Finding[] {
  if (!reference || what === 'timing' || silentChannels(what, reference)) return [];
  const isSaid = capture.condition !== undefined && reference.condition !== undefined;
  const [a, b] = [phaseOf(capture), phaseOf(reference)].map((p) => (p ? speedOf(p.axis) : null));
  const isAlike = isSaid ? capture.condition === reference.condition : !a || !b || Math.abs(a / b - 1) < ALIKE;
  return compareCaptures(own, WAYS[what](reference, null), { name: 'in the reference', isAlike });
}

const WAYS: Readonly<Record<AngleAsk, (capture: Capture, reference: Capture | null) => Finding[]>> = {
  timing,
  'relative-compression': (capture) => compression(capture),
  firing: (capture) => firing(capture),
  contribution: (capture) => contribution(capture),
  knock: (capture) => knock(capture),
};
const KINDS: Readonly<Record<AngleAsk, readonly Finding['kind'][]>> = {
  timing: ['wheel'],
  'relative-compression': ['compression'],
  firing: ['pulse'],
  contribution: ['contribution'],
  knock: ['knock'],
};
const EMPTY: Readonly<Record<AngleAsk, string>> = {
  timing: 'no wheel is seen in the crank channel.',
  'relative-compression': 'no stretch is seen in which the starter turns the engine for a cycle and more.',
  firing: 'no pulses are seen in the common supply.',
  contribution: 'two cycles at least must be recorded.',
  knock: 'two cycles at least must be recorded, with samples enough in each window.',
};

/** A channel that is there, but does not carry what its role says. `null`: all do. */
function silentChannels(what: AngleAsk, capture: Capture): string | null {
  const name = (role: string): string => capture.channels.find((c) => c.role === role)?.name ?? role;
  const named = capture.channels.find((c) => c.role === 'injector-current' && c.cylinder !== undefined);
  const needsCrank = what === 'timing' || what === 'contribution';
  const position = positionOf(capture);
  if (needsCrank && !position)
    return tr`no wheel with a gap is seen in ${name(capture.channels.some((c) => c.role === 'crank') ? 'crank' : 'cam')}. Say "wheel" if it has none, look at the connection, or record faster: a tooth needs some samples.`;
  if (what === 'timing' && position && camMarks(position).length === 0)
    return tr`no edge comes back from cycle to cycle in ${name('cam')}. Two turns of the cam must be recorded.`;
  if ((what === 'knock' || what === 'firing') && !phaseOf(capture, position))
    return named && !cylinderPulses(named)
      ? tr`no regular pulses are seen in ${named.name}.`
      : 'no axis of angle is seen.';
  if (what === 'knock') {
    const slow = capture.channels.find((c) => c.role === 'knock' && 1 / c.clock.period_s < KNOCK_RATE_Hz);
    if (slow)
      return tr`${slow.name} has ${Math.round(1 / slow.clock.period_s)} samples per second; knock needs ${KNOCK_RATE_Hz} and more.`;
    if (!phaseOf(capture, position)?.named) return tr`no regular pulses are seen in ${named?.name ?? 'the injector'}.`;
  }
  return null;
}
