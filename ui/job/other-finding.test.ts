import { foundOf, NO_OTHER } from './other-finding';

test.each([
  [{ kind: 'part', name: 'plug', positions: '2, 4' }, [2, 4], 'The plugs of cylinders 2 and 4 are bad'],
  [{ kind: 'part', name: 'relay', positions: '' }, [], 'The relay is bad'],
  [{ kind: 'path', name: 'injector', positions: '3' }, [3], 'The wire to the injector of cylinder 3 is bad'],
  [{ kind: 'mechanics', name: 'pump drive', positions: '' }, [], 'Pump drive is bad'],
  [{ kind: 'part', name: ' plug ', positions: '4 and 4; pin 26' }, [4, 'pin 26'], 'The plugs at 4 and pin 26 are bad'],
] as const)('%j is a finding in a sentence', (draft, positions, text) =>
  expect(foundOf(draft)).toMatchObject({ positions, text }),
);
test('nothing said is no sentence', () => expect(foundOf(NO_OTHER).text).toBe(''));
