import { type Lead, leadsOfColumns, pinsToRecord, roleNamed, whereWords } from './lead-map';

const lead = (name: string, signal: string): Lead => ({
  lead: name,
  signal,
  role: roleNamed(signal),
  connector: 'K1',
  pin: '26',
  colour: 'brown',
});
const COLOURS = [lead('green', 'rail sensor signal'), lead('red', 'sensor reference'), lead('blue', 'air flow signal')];
const NUMBERS = [lead('1', 'rail sensor signal'), lead('2', 'sensor reference'), lead('3', 'air flow signal')];
const names = (columns: readonly string[], leads: readonly Lead[]) =>
  leadsOfColumns(columns, leads).map((l) => l?.lead ?? null);

describe('which lead a column is', () => {
  it('goes by the name of the lead or of the signal', () => {
    expect(names(['Blue [V]', 'Green [V]', 'Red [V]'], COLOURS)).toEqual(['blue', 'green', 'red']);
    expect(names(['Air flow signal', 'something'], COLOURS)).toEqual(['blue', null]);
  });
  it('goes by the number, however the recorder writes it', () => {
    expect(names(['CH3', 'CH1'], NUMBERS)).toEqual(['3', '1']);
    expect(names(['Channel 02', 'Channel 01'], NUMBERS)).toEqual(['2', '1']);
    // A number that stands for something else is no lead.
    expect(names(['Column 13', 'Column 12'], NUMBERS)).toEqual([null, null]);
  });
  it('goes by order only where nothing else says anything and the numbers fit', () => {
    expect(names(['A', 'B', 'C'], COLOURS)).toEqual(['green', 'red', 'blue']);
    expect(names(['A', 'B'], COLOURS)).toEqual([null, null]);
    expect(names(['A', 'blue', 'C'], COLOURS)).toEqual([null, 'blue', null]);
  });
  it('gives no lead to two columns', () => {
    expect(names(['green', 'green copy', 'x'], COLOURS)).toEqual(['green', null, null]);
  });
});

it('offers pins that carry something, with what their words say', () => {
  const pins = [
    { pin: '1', signal: '', colour: '', to: '', cylinder: null },
    { pin: '26', signal: 'Boost sensor signal', colour: 'brown', to: 'sensor', cylinder: null },
  ];
  const offered = pinsToRecord([{ name: 'K1', place: 'left', seenFrom: 'wire side', rows: [2], pins }]);
  expect(offered).toEqual([
    { signal: 'Boost sensor signal', role: 'boost', connector: 'K1', pin: '26', colour: 'brown' },
  ]);
  expect(whereWords({ lead: '1', ...offered[0] } as Lead)).toBe('K1, pin 26, brown');
  expect(whereWords({ ...lead('1', 'x'), connector: '', pin: '', colour: '' })).toBe('');
});
