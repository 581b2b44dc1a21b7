import fc from 'fast-check';
import { checkConnector, type Connector, type ConnectorPin, pinLines, pinsAt, readPins, readRows } from './connector';

const pin = (name: string, more: Partial<ConnectorPin> = {}): ConnectorPin => ({
  pin: name,
  signal: '',
  colour: '',
  to: '',
  cylinder: null,
  ...more,
});
const connector = (pins: readonly ConnectorPin[], rows: readonly number[]): Connector => ({
  name: 'Cover',
  place: 'on the cover',
  seenFrom: 'wire side',
  rows,
  pins,
});

test('pins are read as a person lists them, and come back as they were', () => {
  const text = '1; injector 1, low; red/white; module A3; 1\n2\n3; common; black; module A1\nA4; plug 2;;; cyl 2';
  const { pins, problems } = readPins(text);
  expect(problems).toEqual([]);
  expect(pins.map((p) => [p.pin, p.signal, p.colour, p.to, p.cylinder])).toEqual([
    ['1', 'injector 1, low', 'red/white', 'module A3', 1],
    ['2', '', '', '', null],
    ['3', 'common', 'black', 'module A1', null],
    ['A4', 'plug 2', '', '', 2],
  ]);
  expect(readPins(pinLines(pins))).toEqual({ pins, problems: [] });
});

test('whatever is listed survives being shown for changing', () => {
  const word = fc.string({ unit: fc.constantFrom('a', 'B', '1', '/', ' ', '.'), maxLength: 8 }).map((s) => s.trim());
  const aPin = fc.record({
    pin: word.filter((w) => w !== ''),
    signal: word,
    colour: word,
    to: word,
    cylinder: fc.option(fc.integer({ min: 1, max: 16 })),
  });
  fc.assert(fc.property(fc.array(aPin), (pins) => expect(readPins(pinLines(pins)).pins).toEqual(pins)));
});

test.each([
  ['; no pin', 'the pin is missing'],
  ['1; a; b; c; 2; more', 'more than five'],
  ['1; a; b; c; first', 'no cylinder'],
  ['1; a; b; c; 0', 'no cylinder'],
])('%s is said with its line', (line, why) => {
  const { problems } = readPins(`2; good\n${line}`);
  expect(problems).toHaveLength(1);
  expect(problems[0]?.message).toContain(`Line 2: `);
  expect(problems[0]?.message).toContain(why);
});

test('rows that do not fit, pins twice and cylinders that there are not', () => {
  expect(checkConnector(connector([pin('1'), pin('2')], [2]), '/body', 4)).toEqual([]);
  const wrong = connector([pin('1'), pin('a', { cylinder: 5 }), pin('A')], [1, 1]);
  expect(checkConnector(wrong, '/body', 4).map((p) => p.path)).toEqual([
    '/body/rows',
    '/body/pins/1/cylinder',
    '/body/pins/2/pin',
  ]);
  expect(checkConnector(wrong, '/body', null).map((p) => p.path)).not.toContain('/body/pins/1/cylinder');
  expect(readRows('4, 4 + 2')).toEqual([4, 4, 2]);
  expect(readRows('four')).toEqual([0]);
});

test('at a cylinder: its own pins; at a pin: that one', () => {
  const c = connector(
    [
      pin('1', { signal: 'injector', cylinder: 1 }),
      pin('2', { signal: 'injector', cylinder: 2 }),
      pin('3', { cylinder: 1 }),
    ],
    [3],
  );
  expect(pinsAt(c, 1).map((p) => p.pin)).toEqual(['1']);
  expect(pinsAt(c, 'Pin 3').map((p) => p.pin)).toEqual(['3']);
  expect(pinsAt(c, 'common')).toEqual([]);
  expect(pinsAt(c, null)).toEqual([]);
});
