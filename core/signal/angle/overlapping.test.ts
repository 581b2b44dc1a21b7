import { normalFrom, seededRandom } from '../../numerics/random';
import { givenOf } from './overlapping';

/** Eight places whose firings leave what is said, with noise. */
function eight(means: readonly number[], noise: number, share = 1, cycles = 25): number[][] {
  const random = seededRandom(7);
  return means.map((m) =>
    Array.from({ length: cycles }, () => (random() < share ? m : 0) + noise * normalFrom(random)),
  );
}

describe('what each gives where pushes overlap', () => {
  test('one that is dead stands far outside of what the others differ', () => {
    const given = givenOf(eight([0.02, 0, -1, 0.01, -0.01, 0.02, 0, 0.01], 0.1), 0.05);
    expect(given.map((g) => g.isLow)).toEqual([false, false, true, false, false, false, false, false]);
    expect(given[2]).toMatchObject({ misfires: 1 });
    expect(given[2]?.relative).toBeLessThan(0.2);
    expect(given[0]?.relative).toBeGreaterThan(1);
  });
  test('misfires in half of its cycles are counted as a half', () => {
    const given = givenOf(eight([0, 0, 0, 0, 0, -1, 0, 0], 0.05, 0.5, 200), 0.05);
    expect(given[5]?.isLow).toBe(true);
    expect(given[5]?.misfires).toBeGreaterThan(0.4);
    expect(given[5]?.misfires).toBeLessThan(0.6);
  });
  test('places that differ as much as the low one accuse nobody', () => {
    const given = givenOf(eight([0.3, 0, -0.5, 0.4, -0.3, 0.2, -0.1, 0.1], 0.1), 0.05);
    expect(given.some((g) => g.isLow)).toBe(false);
    expect(given.every((g) => g.misfires === 0)).toBe(true);
  });
  test('of 400 alike sets of eight at most 4 have a low one', () => {
    const random = seededRandom(3);
    let low = 0;
    for (let i = 0; i < 400; i++) {
      const means = Array.from({ length: 8 }, () => 0.02 * normalFrom(random));
      const slots = means.map((m) => Array.from({ length: 25 }, () => m + 0.05 * normalFrom(random)));
      low += Number(givenOf(slots, 0.05).some((g) => g.isLow));
    }
    expect(low).toBeLessThanOrEqual(4);
  });
});
