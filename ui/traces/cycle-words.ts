import { fixed } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import type { Change } from '../../core/signal/angle/types';
import type { Finding } from '../../core/signal/types';
import type { TraceCapture } from '../../formats/requests/traces';

export const CONDITION_WORDS: Readonly<Record<TraceCapture['condition'], string>> = {
  cranking: 'the starter turns it, fuel off',
  idle: 'it idles',
  load: 'it runs under load',
};

/** What the engine did, and how warm it was where that was said. */
export const conditionWords = ({ condition, temperature }: Pick<TraceCapture, 'condition' | 'temperature'>): string =>
  tr`${CONDITION_WORDS[condition]}${temperature ? tr`, engine ${temperature}` : ''}`;

/** A number that a cylinder has, with what it is and how good. */
export interface CylinderNumber {
  readonly cylinder: number | null;
  readonly position: number;
  readonly text: string;
  /** 0 to 1 of the post's height. */
  readonly height: number;
  readonly severity: Finding['severity'];
  readonly reasons: readonly string[];
  /** The same of the capture behind it. */
  readonly before: string | null;
  /** What lies between them, as a sentence; empty: nothing is behind it. */
  readonly against: readonly string[];
}

export interface CylinderRow {
  readonly title: string;
  readonly numbers: readonly CylinderNumber[];
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;
/** A post is twice the mean high. */
const asHeight = (relative: number): number => Math.min(1, Math.max(0, relative / 2));

type Shown = Pick<CylinderNumber, 'text' | 'height'>;
const ROWS: readonly {
  readonly of: Finding['kind'];
  readonly title: string;
  readonly number: (f: Finding) => Shown | null;
}[] = [
  {
    of: 'compression',
    title: 'Relative compression',
    number: (f) => (f.kind === 'compression' ? { text: percent(f.relative), height: asHeight(f.relative) } : null),
  },
  {
    of: 'pulse',
    title: 'Injector pulse, degrees off the grid',
    number: (f) =>
      f.kind !== 'pulse'
        ? null
        : f.missing
          ? { text: 'none', height: 0 }
          : { text: signed(f.offset_deg ?? 0), height: Math.min(1, Math.max(0, 0.5 + (f.offset_deg ?? 0) / 40)) },
  },
  {
    of: 'contribution',
    title: 'Contribution',
    number: (f) => (f.kind === 'contribution' ? { text: percent(f.relative), height: asHeight(f.relative) } : null),
  },
  {
    of: 'knock',
    title: 'Knock, times the others',
    number: (f) => (f.kind === 'knock' ? { text: fixed(f.ratio, 1), height: Math.min(1, f.ratio / 5) } : null),
  },
];

/**
 * The numbers per cylinder that the findings of a capture hold, a row for each question, in the order of
 * firing; beside each the same number of the capture behind it.
 */
export function cylinderRows(
  findings: readonly Finding[],
  behind: readonly Finding[] = [],
  changes: readonly Change[] = [],
): readonly CylinderRow[] {
  return ROWS.map(({ of, title, number }): CylinderRow => {
    const before = (cylinder: number | null): string | null => {
      const twin = behind.find((o) => o.kind === of && cylinder !== null && 'cylinder' in o && o.cylinder === cylinder);
      return twin ? (number(twin)?.text ?? null) : null;
    };
    const numbers = findings.flatMap((f): CylinderNumber[] => {
      const own = number(f);
      if (!own || !('position' in f) || !('cylinder' in f)) return [];
      const { cylinder, position, severity, reasons } = f;
      const against = changes
        .filter((c) => c.of === of && c.cylinder === cylinder && c.severity !== 'pass')
        .flatMap((c) => c.reasons);
      return [{ ...own, cylinder, position, severity, reasons, before: before(cylinder), against }];
    });
    return { title, numbers: numbers.sort((a, b) => a.position - b.position) };
  }).filter((r) => r.numbers.length > 0);
}

const signed = (v: number): string => (Math.abs(v) < 0.05 ? '0.0°' : `${v > 0 ? '+' : '−'}${fixed(Math.abs(v), 1)}°`);
