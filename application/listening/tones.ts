/** Notes of a signal: pitch in hertz (0 is a rest) and seconds. */
export type Tone = readonly (readonly [pitch_Hz: number, seconds: number])[];

/**
 * What the bench says without words. Told apart by rhythm and direction as well as by pitch, so that they are
 * told apart by whoever hears high notes badly, and beside an engine. Own choice, no source.
 */
export const TONES = {
  /** Taken; the verdict follows. */
  captured: [[880, 0.06]],
  in: [
    [660, 0.09],
    [880, 0.14],
  ],
  out: [
    [440, 0.14],
    [294, 0.34],
  ],
  open: [
    [330, 0.12],
    [0, 0.08],
    [330, 0.12],
    [0, 0.08],
    [330, 0.12],
  ],
  wanders: [
    [520, 0.07],
    [620, 0.07],
    [520, 0.07],
    [620, 0.07],
    [520, 0.07],
    [620, 0.07],
  ],
  question: [
    [520, 0.1],
    [0, 0.05],
    [520, 0.1],
    [780, 0.2],
  ],
  back: [
    [880, 0.09],
    [660, 0.09],
    [440, 0.09],
  ],
  done: [
    [523, 0.11],
    [659, 0.11],
    [784, 0.11],
    [1047, 0.3],
  ],
  lost: [[196, 0.6]],
} as const satisfies Readonly<Record<string, Tone>>;
export type ToneName = keyof typeof TONES;
