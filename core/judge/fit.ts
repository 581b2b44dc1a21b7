import { readerUnit, shownUnit } from '../quantity/reader-unit';
import { tr } from '../locale/translate';
import { printValue } from '../quantity/print';
import type { Fit, JudgedReading, Limits } from './types';
import { positionWords } from './words';

/** Below this many different stimuli a line says nothing. */
const LEAST_POINTS = 3;

/**
 * The straight line through readings over what acted on the sensor (least squares), in the units of the
 * limits and of the stimulus; `null` where fewer than three stimuli differ.
 */
export function fitOf(readings: readonly JudgedReading[]): Fit | null {
  const points = readings.flatMap(({ position, corrected, at }) =>
    corrected !== null && at ? [{ position, x: at.value, y: corrected, unit: at.unit }] : [],
  );
  const [first] = points;
  if (!first || new Set(points.map((p) => p.x)).size < LEAST_POINTS) return null;
  const mean = (of: (p: (typeof points)[number]) => number): number =>
    points.reduce((sum, p) => sum + of(p) / points.length, 0);
  const [mx, my] = [mean((p) => p.x), mean((p) => p.y)];
  const slope = mean((p) => (p.x - mx) * (p.y - my)) / mean((p) => (p.x - mx) ** 2);
  const intercept = my - slope * mx;
  const off = points.map((p) => ({ position: p.position, residual: p.y - intercept - slope * p.x }));
  const worst = off.reduce((a, b) => (Math.abs(b.residual) > Math.abs(a.residual) ? b : a));
  return { slope, intercept, atUnit: first.unit, worst };
}

/**
 * Below this share of what is asked something hardly follows; an offset above this is told, in the unit of
 * both.
 */
const HARDLY = 0.3;
const OFFSET = 5;

/** What was commanded against what is reported, in a sentence. Common practice, no source. */
function followsWords({ slope, intercept }: Fit, unit: string): string {
  if (slope < -HARDLY) return 'It moves against what is asked: reversed.';
  if (slope < HARDLY) return 'It hardly follows what is asked.';
  const off = Math.round(intercept + 50 * (slope - 1));
  return Math.abs(slope - 1) < HARDLY && Math.abs(off) > OFFSET
    ? tr`It stands about ${Math.abs(off)} ${unit} ${off > 0 ? 'above' : 'below'} what is asked, everywhere: an offset.`
    : '';
}

/** In a sentence; a line without a limit is shown, not judged. Empty where there is nothing to tell. */
export function fitWords(fit: Fit, limits: Limits): string {
  const { slope, intercept, atUnit, worst } = fit;
  if (limits.unit === atUnit) return followsWords(fit, shownUnit(limits.unit));
  const [y, x] = [readerUnit(limits.unit), readerUnit(atUnit)];
  const step = Math.abs(slope) / 100 || 1e-6;
  const value = (n: number): string => printValue(n, 10 ** Math.floor(Math.log10(Math.abs(n) || 1) - 2));
  const off = printValue(Math.abs(y.of(worst.residual)), Math.max(1e-3, y.of(step)));
  return tr`A line through them: ${value(y.of(intercept))} ${y.symbol} at 0 ${x.symbol}, ${value(y.of(slope) / x.of(1))} ${y.symbol} for each ${x.symbol} more; furthest from it is ${positionWords(worst.position)}, by ${off} ${y.symbol}.`;
}
