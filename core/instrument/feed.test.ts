import { feedLine, misfit, NO_FEED } from './feed';
import { touchRules } from './rules';
import { readUnasked } from './unasked';

const valueOf = (line: string) => {
  const read = readUnasked(line);
  if (!read.ok) throw new Error(read.why);
  return read.value;
};

describe('a value that does not fit the test', () => {
  it.each([
    ['0.61 OHM', 'resistance', null],
    ['12.1 V DC', 'resistance', /needs resistance/],
    ['12.1 V AC', 'voltage', /alternating/],
    ['0.61 OHM HOLD', 'resistance', /hold/],
    ['0.61 OHM REL', 'resistance', /difference/],
    ['12.1', 'voltage', null],
  ] as const)('%s for %s', (line, quantity, expected) => {
    const why = misfit(valueOf(line), quantity);
    if (expected === null) expect(why).toBeNull();
    else expect(why).toMatch(expected);
  });
});

it('says once that lines cannot be read, and again after one that could', () => {
  let state = NO_FEED;
  const said: (string | null)[] = [];
  for (const line of ['xx', 'xx', 'xx', 'xx', 'xx', '0.6 OHM', 'yy', 'yy', 'yy']) {
    const fed = feedLine(state, line, readUnasked);
    state = fed.state;
    said.push(fed.complaint);
  }
  expect(said.map((s) => s !== null)).toEqual([false, false, true, false, false, false, false, false, true]);
  expect(said[2]).toContain('no number');
});

describe('rules from the card', () => {
  const card = {
    quantity: 'resistance' as const,
    accuracy: [
      { quantity: 'resistance' as const, upTo: 6, percentOfReading: 0.8, counts: 5, resolution: 0.001 },
      { quantity: 'resistance' as const, upTo: 600, percentOfReading: 0.8, counts: 3, resolution: 0.1 },
    ],
    leadZero_ohm: 0.2,
    lower: null,
    upper: 2,
    isLeadZero: false,
  };
  it('a value may stand as the accuracy of its range lets it', () => {
    const { band, isCoarse } = touchRules(card);
    expect(band(1, 0.001)).toBeCloseTo((0.008 + 0.005) / 2.8, 6);
    expect(band(1, 0.1)).toBeCloseTo(0.2, 6);
    // More digits than the range of the card has.
    expect(band(100, 0.01)).toBeCloseTo((0.8 + 3 * 0.01) / 2.8, 6);
    expect(isCoarse(1, 0.1)).toBe(true);
    expect(isCoarse(1, 0.001)).toBe(false);
    expect(isCoarse(100, 0.1)).toBe(false);
  });
  it('knows a tap only where a good part reads more than the leads', () => {
    expect(touchRules(card).shortBelow).toBeCloseTo(0.28, 6);
    expect(touchRules({ ...card, upper: 0.3 }).shortBelow).toBeNull();
    expect(touchRules({ ...card, isLeadZero: true }).shortBelow).toBeNull();
    expect(touchRules({ ...card, quantity: 'voltage' }).shortBelow).toBeNull();
  });
  it('takes what floats for nothing', () => {
    expect(touchRules({ ...card, quantity: 'voltage' }).isOff(0.01)).toBe(true);
    expect(touchRules({ ...card, quantity: 'voltage' }).isOff(-11.8)).toBe(false);
    expect(touchRules(card).isOff(0)).toBe(false);
  });
});
