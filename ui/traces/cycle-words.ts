import type { Finding } from '../../core/signal/types';
import type { TraceCapture } from '../../formats/requests/traces';

export const CONDITION_WORDS: Readonly<Record<TraceCapture['condition'], string>> = {
  cranking: 'the starter turns it, fuel off',
  idle: 'it idles',
  load: 'it runs under load',
};

/** A number that a cylinder has, with what it is and how good. */
export interface CylinderNumber {
  readonly cylinder: number | null;
  readonly position: number;
  readonly text: string;
  /** 0 to 1 of the post's height. */
  readonly height: number;
  readonly severity: Finding['severity'];
  readonly reasons: readonly string[];
}

export interface CylinderRow {
  readonly title: string;
  readonly numbers: readonly CylinderNumber[];
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;
/** A post is twice the mean high. */
const asHeight = (relative: number): number => Math.min(1, Math.max(0, relative / 2));

/** The numbers per cylinder that the findings of a capture hold, a row for each question, in the order of firing. */
export function cylinderRows(findings: readonly Finding[]): readonly CylinderRow[] {
  const row = (title: string, number: (f: Finding) => Pick<CylinderNumber, 'text' | 'height'> | null): CylinderRow => ({
    title,
    numbers: findings
      .flatMap((f): CylinderNumber[] => {
        const own = number(f);
        return own && 'position' in f && 'cylinder' in f
          ? [{ ...own, cylinder: f.cylinder, position: f.position, severity: f.severity, reasons: f.reasons }]
          : [];
      })
      .sort((a, b) => a.position - b.position),
  });
  return [
    row('Relative compression', (f) =>
      f.kind === 'compression' ? { text: percent(f.relative), height: asHeight(f.relative) } : null,
    ),
    row('Injector pulse, degrees off the grid', (f) =>
      f.kind !== 'pulse'
        ? null
        : f.missing
          ? { text: 'none', height: 0 }
          : { text: signed(f.offset_deg ?? 0), height: Math.min(1, Math.max(0, 0.5 + (f.offset_deg ?? 0) / 40)) },
    ),
    row('Contribution', (f) =>
      f.kind === 'contribution' ? { text: percent(f.relative), height: asHeight(f.relative) } : null,
    ),
    row('Knock, times the others', (f) =>
      f.kind === 'knock' ? { text: f.ratio.toFixed(1), height: Math.min(1, f.ratio / 5) } : null,
    ),
  ].filter((r) => r.numbers.length > 0);
}

const signed = (v: number): string => (Math.abs(v) < 0.05 ? '0.0°' : `${v > 0 ? '+' : '−'}${Math.abs(v).toFixed(1)}°`);
