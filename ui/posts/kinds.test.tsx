import { renderToStaticMarkup } from 'react-dom/server';
import { findTest } from '../../core/catalogue/catalogue';
import type { TestDefinition } from '../../core/catalogue/types';
import { judgeShipped } from '../../core/judge/shipped';
import type { Limits, ReadingIn } from '../../core/judge/types';
import { MiniPosts } from './mini-posts';
import { PostRow, postName } from './post-row';
import { rowsOf } from '../../application/posts/rows';
import { scaleFor } from '../../application/posts/scale';

const ENGINE = { layout: 'inline' as const, cylinders: 4 };
function judged(limits: Limits, readings: readonly ReadingIn[]) {
  const result = judgeShipped({ test: 'x', engine: null, condition: {}, instrument: null, limits, readings });
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}
function draw(limits: Limits, readings: readonly ReadingIn[]): string {
  const j = judged(limits, readings);
  return renderToStaticMarkup(
    <PostRow
      title="t"
      positions={j.readings.map((r) => r.position)}
      readings={new Map(j.readings.map((r) => [r.position, r]))}
      limits={limits}
      scale={scaleFor(limits)}
      active={null}
    />,
  );
}
const channels = (html: string): number => (html.match(/bg-channel/g) ?? []).length;

const PINS: Limits = {
  quantity: 'voltage',
  unit: 'V',
  lower: 11,
  upper: 15,
  byPosition: { ground: { lower: null, upper: 0.2 }, spare: { lower: null, upper: null } },
};
const GAUGE: Limits = {
  quantity: 'voltage',
  unit: 'V',
  transfer: {
    kind: 'table',
    stimulus: { quantity: 'pressure', unit: 'kPa' },
    points: [
      [0, 0.5],
      [200, 4.5],
    ],
  },
  tolerance: { absolute: 0.1 },
};
const SEEN: Limits = { quantity: 'observation', unit: 'seen' };

test('one channel across the row; one for each post where they differ, none where there is none', () => {
  expect(
    channels(
      draw({ quantity: 'voltage', unit: 'V', lower: 11, upper: 15 }, [
        { position: 'a', entry: '12' },
        { position: 'b', entry: '12' },
      ]),
    ),
  ).toBe(1);
  expect(
    channels(
      draw(PINS, [
        { position: 'feed', entry: '12.1' },
        { position: 'ground', entry: '0.1' },
        { position: 'spare', entry: '3' },
      ]),
    ),
  ).toBe(2);
  expect(
    channels(
      draw(GAUGE, [
        { position: 'low', entry: '1.3 @ 40' },
        { position: 'high', entry: '' },
      ]),
    ),
  ).toBe(1);
  expect(channels(draw(SEEN, [{ position: 1, entry: 'p' }]))).toBe(0);
});
test('what is only seen: pass and fail, the note beneath', () => {
  const html = draw(SEEN, [
    { position: 1, entry: 'ok' },
    { position: 2, entry: 'f no click' },
  ]);
  for (const said of ['pass', 'passed', 'fail', 'failed', 'no click']) expect(html).toContain(said);
});
test('the volts are large, what the gauge showed stands beneath', () => {
  const html = draw(GAUGE, [{ position: 'low', entry: '1.3 @ 40 kPa' }]);
  expect(html).toContain('>1.3<');
  expect(html).toContain('V at 40 kPa');
});
test('a clamp’s millivolts keep their unit; amperes stand with what they come to', () => {
  const limits: Limits = { quantity: 'current', unit: 'A', lower: 8 };
  const result = judgeShipped({
    test: 'x',
    engine: null,
    condition: {},
    limits,
    instrument: { kind: 'clamp', leadZero_ohm: null, leadZeroResolution_ohm: 0, accuracy: [], clamp_mVperA: 10 },
    readings: [{ position: 1, entry: '131 mV' }],
  });
  if (!result.ok) throw new Error('not judged');
  const html = renderToStaticMarkup(
    <PostRow
      title="t"
      positions={[1]}
      readings={new Map(result.value.readings.map((r) => [r.position, r]))}
      limits={limits}
      scale={scaleFor(limits)}
      active={null}
    />,
  );
  expect(html).toContain('131 mV');
  expect(html).toMatch(/13\.1 ± 0\.\d A/);
});
test('a post is named with its own limit', () => {
  const j = judged(PINS, [{ position: 'ground', entry: '0.9' }]);
  expect(postName('ground', j.readings[0], PINS, null)).toBe('ground, 0.9 V, too high, limit 0.2');
});

describe('scales', () => {
  test('reach from the lowest to the highest limit of any position', () => {
    const scale = scaleFor(PINS);
    expect([0.2, 11, 15].map((v) => scale.height(v) > 0 && scale.height(v) < 1)).toEqual([true, true, true]);
    expect(scale.height(15)).toBeGreaterThan(scale.height(0.2));
  });
  test('of a function: what it can show at all', () =>
    expect([scaleFor(GAUGE).height(0.5), scaleFor(GAUGE).height(4.5)].every((h) => h > 0 && h < 1)).toBe(true));
  test('without any limit: what was read', () => {
    const scale = scaleFor({ quantity: 'volume', unit: 'mL' }, [30, 55]);
    expect(scale.height(55)).toBeGreaterThan(scale.height(30));
    expect(scale.height(55)).toBeLessThan(1);
  });
  test('a pass stands above a fail', () => expect(scaleFor(SEEN).height(1)).toBeGreaterThan(scaleFor(SEEN).height(0)));
});

test('rows: pins in rows of nearly equal length, each named for what it is', () => {
  const nine = {
    ...(findTest('harness-pins') as TestDefinition),
    positions: Array.from({ length: 9 }, (_, i) => `pin ${i + 1}`),
  };
  expect(rowsOf(ENGINE, nine).map((r) => [r.title, r.positions.length])).toEqual([
    ['Pins, 1 of 2', 5],
    ['Pins, 2 of 2', 4],
  ]);
  expect(rowsOf(ENGINE, findTest('battery-cranking')).map((r) => r.title)).toEqual(['States']);
  expect(rowsOf(ENGINE, findTest('harness-visual')).map((r) => r.title)).toEqual(['Harness']);
});
test('the small posts say what stands on them', () => {
  const html = renderToStaticMarkup(
    <MiniPosts
      judgement={judged(SEEN, [
        { position: 1, entry: 'p' },
        { position: 2, entry: 'f' },
      ])}
    />,
  );
  expect(html).toContain('aria-label="1 passed, 2 failed"');
});
