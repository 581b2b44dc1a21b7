import { renderToStaticMarkup } from 'react-dom/server';
import { judgeShipped } from '../../core/judge/shipped';
import type { Limits } from '../../core/judge/types';
import { PostRow, postName } from './post-row';
import { scaleFor } from '../../application/posts/scale';

const limits: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
const judged = judgeShipped({
  test: 'x',
  engine: { layout: 'inline', cylinders: 4 },
  condition: {},
  limits,
  readings: [
    { position: 1, entry: '0.6' },
    { position: 2, entry: 'OL' },
    { position: 3, entry: '201' },
  ],
  instrument: { kind: 'm', leadZero_ohm: 0.1, leadZeroResolution_ohm: 0.1, accuracy: [] },
});
if (!judged.ok) throw new Error('not judged');
const readings = new Map(judged.value.readings.map((r) => [r.position, r]));
const draw = (onPick?: () => void, states: Readonly<Record<number, string>> = { 3: 'queued' }) =>
  renderToStaticMarkup(
    <PostRow
      title="In line"
      positions={[1, 2, 3, 4]}
      readings={readings}
      limits={limits}
      scale={scaleFor(limits)}
      active={4}
      {...(onPick ? { onPick } : {})}
      saved={(p) => states[Number(p)] ?? 'saved'}
    />,
  );

test('names for people who cannot see the posts', () => {
  expect(postName(3, readings.get(3), limits, 'queued')).toBe('cylinder 3, 201 ohm, too high, limit 1, queued');
  expect(postName(2, readings.get(2), limits, null)).toBe('cylinder 2, OL (open), open');
  expect(postName(4, readings.get(4), limits, null)).toBe('cylinder 4, not measured');
});
test('what is typed is what stands there, with a word beside every mark', () => {
  const html = draw();
  for (const said of ['0.6', 'OL', '201', 'too high', 'open', 'probe here', '0.5 ± 0.1']) expect(html).toContain(said);
  expect(html).not.toContain('<button');
});
test('on the bench the posts are buttons, the active one says so', () => {
  const html = draw(() => undefined);
  expect(html.match(/<button/g)).toHaveLength(4);
  expect(html.match(/aria-current="step"/g)).toHaveLength(1);
  expect(html).toContain('title="queued"');
});

test('what is just being kept looks as saved; what waits, or was refused, is seen', () => {
  const dots = (states: Readonly<Record<number, string>>): string[] =>
    [...draw(undefined, states).matchAll(/title="([\w ]+)" class="[^"]*?(invisible|bg-ochre|bg-rust)/g)].map(
      ([, state, look]) => `${state} ${look}`,
    );
  expect(dots({ 1: 'keeping', 2: 'queued', 3: 'refused' })).toEqual([
    'keeping invisible',
    'queued bg-ochre',
    'refused bg-rust',
    'saved invisible',
  ]);
});
