import { fixed } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import { joinAnd } from '../../quantity/print';
import type { Finding } from '../types';

/** What several answers say together: a cause, its victims, and the test that separates what is left. */
export interface Conclusion {
  readonly cause: string;
  readonly why: string;
  readonly next: string;
}

interface Told {
  readonly knocks: readonly number[];
  /** Louder than the others, but not by as much as a knock usually is. */
  readonly loud: readonly number[];
  readonly misfires: readonly number[];
  readonly lowCompression: readonly number[];
  readonly noPulse: readonly number[];
  readonly offGrid: readonly number[];
  readonly hasCompression: boolean;
  readonly hasPulses: boolean;
  readonly noisy: boolean;
}

function toldBy(findings: readonly Finding[]): Told {
  const cylinders = (is: (f: Finding) => boolean): number[] =>
    findings.flatMap((f) => ('cylinder' in f && f.cylinder !== null && is(f) ? [f.cylinder] : []));
  return {
    knocks: cylinders((f) => f.kind === 'knock' && f.severity === 'fail'),
    loud: cylinders((f) => f.kind === 'knock' && f.severity === 'attention'),
    misfires: cylinders((f) => f.kind === 'contribution' && f.severity === 'fail'),
    lowCompression: cylinders((f) => f.kind === 'compression' && f.severity === 'fail'),
    noPulse: cylinders((f) => f.kind === 'pulse' && f.missing),
    offGrid: cylinders((f) => f.kind === 'pulse' && !f.missing && f.severity === 'fail'),
    hasCompression: findings.some((f) => f.kind === 'compression' && f.cylinder !== null),
    hasPulses: findings.some((f) => f.kind === 'pulse' && f.cylinder !== null),
    noisy: findings.some((f) => f.kind === 'noise' && f.severity === 'fail'),
  };
}

const names = (cylinders: readonly number[]): string =>
  tr`${cylinders.length === 1 ? 'cylinder' : 'cylinders'} ${joinAnd(cylinders.map(String))}`;

/**
 * Names cause and victims where several answers point at one thing. Common practice, no source; each says
 * what separates it from what else it could be. `banks`: the cylinders of each bank; of an inline engine
 * none, then all are one bank.
 */
export function together(findings: readonly Finding[], banks: readonly (readonly number[])[]): Conclusion[] {
  const t = toldBy(findings);
  const bankOf = (c: number): readonly number[] | null => banks.find((b) => b.includes(c)) ?? null;
  const out: Conclusion[] = [];
  const explained = new Set<number>();
  // A single one that is somewhat loud says nothing by itself; beside misfires of its bank it does.
  const knocking = t.knocks.length ? t.knocks : t.loud.length === 1 ? t.loud : [];
  for (const c of knocking) {
    const bank = bankOf(c);
    const victims = t.misfires.filter((m) => m !== c && (!bank || bank.includes(m)));
    if (!victims.length) continue;
    [c, ...victims].forEach((x) => explained.add(x));
    out.push({
      cause: tr`The injector of cylinder ${c} leaks; ${names(victims)} ${victims.length === 1 ? 'is a victim' : 'are victims'}.`,
      why: tr`Cylinder ${c} ${t.knocks.length ? 'knocks' : 'is louder than the others'} and ${names(victims)}${bank ? ' of its bank' : ''} ${victims.length === 1 ? 'misfires' : 'misfire'}: its gas in the common rail starves the others.`,
      next: tr`Cut cylinder ${c} out and record again: if the others come back, it is the cause. Then measure its leak-off.`,
    });
  }
  for (const c of t.noPulse) {
    explained.add(c);
    out.push({
      cause: tr`Cylinder ${c} gets no pulse: driver, wire or coil.`,
      why: t.misfires.includes(c) ? 'It has no pulse and gives nothing; the others fire.' : 'It has no pulse.',
      next: tr`Measure the circuit of injector ${c} at the controller, then at the injector: the first half that is good clears the other.`,
    });
  }
  for (const c of t.misfires.filter((m) => !explained.has(m))) {
    const isLow = t.lowCompression.includes(c);
    if (isLow) explained.add(c);
    if (isLow)
      out.push({
        cause: tr`Cylinder ${c} itself: it compresses little and gives little.`,
        why: 'Relative compression and contribution are low in the same cylinder: no injector does that.',
        next: 'A leak-down test says whether rings, valves or gasket; then look at valve play.',
      });
    else if (t.hasCompression && t.hasPulses)
      out.push({
        cause: tr`The injector of cylinder ${c}, on its fuel side.`,
        why: 'It compresses like the others and has its pulse, and gives little.',
        next: tr`Swap the injector of cylinder ${c} with a good one: what goes with it is the injector.`,
      });
    else
      out.push({
        cause: tr`Cylinder ${c} gives little: fuel, pulse or compression.`,
        why: 'Only its contribution was recorded.',
        next: `Record relative compression while cranking and the injector currents: the one that is good too clears itself.`,
      });
  }
  for (const c of t.lowCompression.filter((l) => !explained.has(l)))
    out.push({
      cause: tr`Cylinder ${c} compresses little.`,
      why: 'Its peak is low against the mean of all.',
      next: 'Repeat after some turns; then a leak-down test says where it goes.',
    });
  if (t.offGrid.length)
    out.push(
      t.noisy
        ? {
            cause: 'The position signal: it has spikes that may be counted as edges.',
            why: tr`Pulses of ${names(t.offGrid)} are off the grid, and the position signal is not clean.`,
            next: 'Look at shield, ground and air gap of the sensor; record it again with the engine warm.',
          }
        : {
            cause: tr`What commands ${names(t.offGrid)}: a correction of the controller, or its driver.`,
            why: 'Its pulses are off the grid while the others keep it: a position signal would move all of them.',
            next: 'Read the corrections per cylinder by scan tool; a cylinder that is corrected far is weak or too strong.',
          },
    );
  return [...out, ...ofCranking(findings), ...ofTiming(findings, t.lowCompression.length > 0)];
}

function ofCranking(findings: readonly Finding[]): Conclusion[] {
  const cranking = findings.find((f) => f.kind === 'cranking');
  const isDrag = cranking?.kind === 'cranking' && cranking.severity === 'fail' && cranking.even;
  return isDrag
    ? [
        {
          cause: 'Something drags: starter, engine or what it drives.',
          why: 'All compressions are alike and far too high: a weak battery would give low current, a bad cylinder an odd one.',
          next: 'Take the belt off and bar the engine by hand, key out and battery isolated; then try the starter by itself.',
        },
      ]
    : [];
}

function ofTiming(findings: readonly Finding[], isUneven: boolean): Conclusion[] {
  const timing = findings.find((f) => f.kind === 'timing');
  if (timing?.kind !== 'timing' || timing.inTime !== false || timing.shift_deg === null) return [];
  return [
    {
      cause: tr`The cam is ${fixed(Math.abs(timing.shift_deg), 1)} degrees of the crank out of time.`,
      why: isUneven
        ? 'Against the known good; compressions are not alike either: valves may have met pistons.'
        : 'Against the known good of this family.',
      next: 'Look at the marks of belt, chain or gears before the engine is turned again.',
    },
  ];
}

/**
 * A conclusion in sentences. It follows rules of common practice, and was tried on made captures only: it is
 * no proof.
 */
export const conclusionWords = (c: Conclusion): string => tr`Most likely: ${c.cause} ${c.why} Next: ${c.next}`;
