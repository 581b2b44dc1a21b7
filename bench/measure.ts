import { cpus } from 'node:os';

/** The value below which the given share of the numbers lies, nearest rank. */
export function percentile(numbers: readonly number[], share: number): number {
  const sorted = numbers.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)] ?? NaN;
}

export const machine = (): string => `${cpus()[0]?.model ?? 'unknown'} x ${cpus().length}, Node ${process.version}`;

/** One line: what, value, target and the ratio to it. Below 1 is better than the target. */
export function report(what: string, value: number, unit: string, target: number | null, lessIsBetter = true): void {
  const ratio =
    target === null
      ? ''
      : `   target ${Number(target.toPrecision(4))} ${unit}, ratio ${(lessIsBetter ? value / target : target / value).toFixed(2)}`;
  process.stdout.write(
    `${what.padEnd(58)} ${value.toFixed(value < 10 ? 2 : value < 100 ? 1 : 0).padStart(9)} ${unit}${ratio}\n`,
  );
}
