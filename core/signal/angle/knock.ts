import { fixed } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import { fft, powerOfTwo } from '../../numerics/fft';
import { quantile } from '../../numerics/select';
import type { Finding } from '../types';
import { type Capture, cylinderAfter, phaseOf } from './capture';
import { clipping } from './connection';
import type { Knock } from './types';

/** The band in which a structure rings, Hz. Common practice, no source. */
const [LOWEST_Hz, HIGHEST_Hz] = [2_500, 25_000];
/** The window after top dead centre, degrees; never into the next cylinder's. Common practice, no source. */
const [BEFORE_deg, AFTER_deg] = [8, 70];
/** So many times the others' band energy fails; so much is watched. Common practice, no source. */
const [FAIL, WATCH] = [2.5, 1.7];
const FEWEST_CYCLES = 2;

/** The least rate at which a band is left to look at, samples per second. */
export const KNOCK_RATE_Hz = 2.4 * LOWEST_Hz;

/**
 * Band energy of a knock sensor in a window after each cylinder's top dead centre, against the median of the
 * others of its bank: by the discrete Fourier transform of each window with Hann's taper, Parseval's theorem.
 */
export function knock(capture: Capture): Finding[] {
  const sensors = capture.channels.filter((c) => c.role === 'knock');
  const phase = phaseOf(capture);
  if (!phase?.named || !sensors.length) return [];
  const { axis, named } = phase;
  const n = capture.cylinders;
  const step = 720 / n;
  return sensors.flatMap((channel) => {
    const findings: Finding[] = clipping(channel);
    const rate_Hz = 1 / channel.clock.period_s;
    const energies = Array.from({ length: n }, () => [] as number[]);
    const after = Math.min(AFTER_deg, step - BEFORE_deg - 4);
    for (
      let k = Math.floor((axis.first_deg - named.angle_deg) / step);
      named.angle_deg + k * step < axis.last_deg;
      k++
    ) {
      const at = named.angle_deg + k * step;
      const [from, to] = [axis.timeAt(at - BEFORE_deg), axis.timeAt(at + after)];
      if (!Number.isFinite(from + to)) continue;
      const [a, b] = [channel.clock.before(from) + 1, channel.clock.before(to)];
      if (b - a < 16) continue;
      energies[((k % n) + n) % n]?.push(bandEnergy(channel.values.subarray(a, b), rate_Hz));
    }
    const own = energies.map((e) => (e.length >= FEWEST_CYCLES ? quantile(e, 0.5) : NaN));
    const base = { channel: channel.id, from_s: axis.timeAt(axis.first_deg), to_s: axis.timeAt(axis.last_deg) };
    const cylinders = own.map((_, slot) => cylinderAfter(capture.firingOrder, named.cylinder, slot));
    const bankOf = (c: number | null): readonly number[] =>
      capture.banks.find((bank) => c !== null && bank.includes(c)) ?? [];
    own.forEach((energy, slot) => {
      if (!Number.isFinite(energy)) return;
      const cylinder = cylinders[slot] ?? null;
      const bank = bankOf(cylinder);
      const others = own.filter(
        (e, k) => k !== slot && Number.isFinite(e) && (!bank.length || bank.includes(cylinders[k] ?? -1)),
      );
      if (!others.length) return;
      const ratio = energy / quantile(others, 0.5);
      // How many of its cycles are above the others: one loud cycle is no knocking cylinder.
      const above =
        (energies[slot] ?? []).filter((e) => e > WATCH * quantile(others, 0.5)).length / (energies[slot]?.length ?? 1);
      findings.push(finding(base, slot, cylinder, ratio, above, energies[slot]?.length ?? 0));
    });
    return findings;
  });
}

/**
 * Energy in the band that knocking is heard in, of evenly spaced `values` (any unit) at `rate_Hz`, in units²,
 * by Parseval's theorem. 0 where the rate is too low for the band; NaN for NaN and for no values.
 */
export function bandEnergy(values: Float64Array, rate_Hz: number): number {
  const n = powerOfTwo(values.length);
  const [re, im] = [new Float64Array(n), new Float64Array(n)];
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  for (let i = 0; i < values.length; i++)
    re[i] = ((values[i] ?? 0) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / values.length));
  fft(re, im);
  const [low, high] = [LOWEST_Hz, Math.min(HIGHEST_Hz, 0.48 * rate_Hz)];
  let sum = 0;
  for (let k = 1; k < n / 2; k++) {
    const f = (k * rate_Hz) / n;
    if (f >= low && f <= high) sum += (re[k] ?? 0) ** 2 + (im[k] ?? 0) ** 2;
  }
  // Both halves of the spectrum, and per sample: windows are of unlike lengths.
  return (2 * sum) / n / values.length;
}

function finding(
  base: { channel: string; from_s: number; to_s: number },
  slot: number,
  cylinder: number | null,
  ratio: number,
  above: number,
  cycles: number,
): Knock {
  const isBad = ratio >= FAIL && above >= 0.5;
  const who = cylinder === null ? tr`The place ${slot + 1}` : tr`Cylinder ${cylinder}`;
  return {
    kind: 'knock',
    ...base,
    severity: isBad ? 'fail' : ratio >= WATCH ? 'attention' : 'pass',
    confidence: Math.min(0.95, 0.5 + cycles / 40),
    cylinder,
    position: slot + 1,
    ratio,
    reasons: [
      tr`${who}: ${fixed(ratio, 1)} times the band energy of the others of its bank after top dead centre, over ${cycles} cycles.`,
      ...(isBad
        ? [
            'It knocks: of a bank of which others misfire, the knocking one is the cause and they are victims. Common practice.',
          ]
        : []),
    ],
  };
}
