import { areasFor, compareCodes, type Observed, type Phase } from './phases';

const seen = (...pairs: [string, Phase][]): Observed[] => pairs.map(([code, phase]) => ({ code, phase }));
const fates = (observed: Observed[], ...alsoLooked: Phase[]) =>
  Object.fromEntries(
    compareCodes(observed, new Set([...observed.map((o) => o.phase), ...alsoLooked])).map((c) => [c.code, c.fate]),
  );

test('what came back, what did not, what is new', () => {
  expect(fates(seen(['A', 'as-found'], ['B', 'as-found'], ['A', 'after-clearing'], ['C', 'after-road-test']))).toEqual({
    A: 'came back',
    B: 'gone',
    C: 'new',
  });
});
test('without a later look nobody knows whether it is gone', () =>
  expect(fates(seen(['A', 'as-found']))).toEqual({ A: 'as found' }));
test('a later look that found nothing says that it is gone', () =>
  expect(fates(seen(['A', 'as-found']), 'after-clearing')).toEqual({ A: 'gone' }));
test('what the testing set is kept apart, unless it was there before or stays', () => {
  expect(
    fates(
      seen(
        ['A', 'caused-by-testing'],
        ['B', 'as-found'],
        ['B', 'caused-by-testing'],
        ['C', 'caused-by-testing'],
        ['C', 'after-road-test'],
      ),
    ),
  ).toEqual({ A: 'caused by testing', B: 'gone', C: 'new' });
});
test('phases stand in the order of the work, each once', () => {
  expect(
    compareCodes(
      seen(['A', 'after-road-test'], ['A', 'as-found'], ['A', 'as-found']),
      new Set(['as-found', 'after-road-test']),
    )[0]?.phases,
  ).toEqual(['as-found', 'after-road-test']);
});
test('codes point at areas; those of the testing and those that are gone point nowhere', () => {
  expect(
    areasFor([
      { system: 'glow plugs', fate: 'as found' },
      { system: 'injectors', fate: 'gone' },
      { system: 'pressure sensors', fate: 'caused by testing' },
      { system: 'misfire', fate: 'came back' },
    ]),
  ).toEqual(['Glow plugs', 'Injectors', 'Harness', 'Air and fuel']);
  expect(areasFor([{ system: 'brakes', fate: 'new' }])).toEqual([]);
});
