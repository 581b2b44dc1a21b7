import { type Tone, TONES } from './tones';

const sounding = (tone: Tone) => tone.filter(([pitch]) => pitch > 0);
const seconds = (tone: Tone) => tone.reduce((n, [, s]) => n + s, 0);
/** Up, down or the same, from note to note. */
const melody = (tone: Tone): string =>
  sounding(tone)
    .slice(1)
    .map(([p], i) => Math.sign(p - (sounding(tone)[i]?.[0] ?? p)))
    .join();

it('no two are alike in rhythm and direction; single notes differ by an octave and in length', () => {
  const all = Object.entries<Tone>(TONES);
  for (const [a, one] of all)
    for (const [b, other] of all) {
      if (a >= b) continue;
      const isOther =
        sounding(one).length !== sounding(other).length ||
        melody(one) !== melody(other) ||
        (Math.abs(Math.log2((one[0]?.[0] ?? 1) / (other[0]?.[0] ?? 1))) >= 1 &&
          Math.max(seconds(one), seconds(other)) >= 2 * Math.min(seconds(one), seconds(other)));
      expect([a, b, isOther]).toEqual([a, b, true]);
    }
});

it('can be heard in a workshop: neither too low nor too high, and none holds up the next touch', () => {
  for (const tone of Object.values<Tone>(TONES)) {
    for (const [pitch] of sounding(tone)) {
      expect(pitch).toBeGreaterThanOrEqual(190);
      expect(pitch).toBeLessThanOrEqual(2000);
    }
    expect(seconds(tone)).toBeLessThanOrEqual(0.7);
  }
});
