import type { Severity, Verdict } from '../../core/foundation/vocabulary';

/**
 * The shape of each verdict's mark, as lines in a box 44 wide and 28 high about (0, 0): the same on the
 * bench, in the yard, on paper and in the PDF. Our own signs: docs/decisions/0003.
 */
export interface Stroke {
  /** SVG path. */
  readonly d: string;
  readonly fill?: boolean;
  readonly width?: number;
  readonly dash?: string;
}

const BAR = 'M-22 -5H22V5H-22Z';
const thick = (d: string): Stroke => ({ d, width: 3.5 });

export const MARKS: Readonly<Record<Verdict, readonly Stroke[]>> = {
  within: [{ d: BAR, fill: true }],
  // A slit: inside, but not whole.
  watch: [{ d: 'M-22 -6H22V-1.5H-22ZM-22 1.5H22V6H-22Z', fill: true }],
  high: [{ d: 'M-22 -2H-7L0 -13L7 -2H22V8H-22Z', fill: true }],
  low: [{ d: 'M-22 2H-7L0 13L7 2H22V-8H-22Z', fill: true }],
  // The post is broken: drawn at its top.
  open: [thick('M-14 6L-5 -4L4 6L14 -5')],
  // The post has a foot: drawn at its bottom.
  short: [
    { d: 'M-20 2H20V12H-20Z', fill: true },
    { d: 'M-5 -10H5V4H-5Z', fill: true },
  ],
  unsteady: [thick('M-14 -12H-21V12H-14'), thick('M14 -12H21V12H14'), { d: 'M-10 -3H10V3H-10Z', fill: true }],
  odd: [{ d: 'M-6 -5H34V5H-6Z', fill: true }],
  undecided: [
    { d: BAR, width: 2 },
    { d: 'M-18 5L-10 -5M-10 5L-2 -5M-2 5L6 -5M6 5L14 -5M14 5L21 -4', width: 2 },
  ],
  // A bar struck through: seen, and not good.
  failed: [{ d: BAR, fill: true }, thick('M-13 12L13 -12')],
  recheck: [{ d: 'M-22 0H22', width: 9, dash: '8 5' }],
  // The outline of a bar: read, and nothing to hold it against.
  'no-limit': [{ d: BAR, width: 2.5 }],
  'not-measured': [{ d: 'M-8 0A8 8 0 1 0 8 0A8 8 0 1 0 -8 0Z', width: 2.5 }],
};

/** CSS colour names of a severity; a verdict is never told by colour alone. */
export const TONE: Readonly<Record<Severity, 'eelgrass' | 'ochre' | 'rust' | 'estuary' | 'socket'>> = {
  pass: 'eelgrass',
  attention: 'ochre',
  fail: 'rust',
  undecided: 'ochre',
  none: 'socket',
};
