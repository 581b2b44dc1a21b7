import { drive } from '../../core/signal/testing';
import { checkFindings } from '../../formats/trace-question';
import { answerTraceText } from './answer';

const values = drive(6000, 3);
for (let i = 3000; i < 3005; i++) values[i] = 0.02;
const file = new TextEncoder().encode(
  `time (s),a (V)\n${Array.from(values, (v, i) => `${(i / 100).toFixed(2)},${v.toFixed(3)}\n`).join('')}`,
);
const ask = (more: object, load = (): Uint8Array => file) =>
  answerTraceText(
    JSON.stringify({
      format: 'mudflat/trace-question',
      version: 1,
      data: 'a.csv',
      channels: [{ column: 'a', role: 'sensor' }],
      ask: ['search'],
      ...more,
    }),
    load,
  );

it('answers by its own schema, alike from a file and from columns', () => {
  const fromFile = ask({});
  const columns = { t: Array.from(values, (_, i) => i / 100), a: Array.from(values) };
  const inline = ask({ data: { columns }, time: { column: 't' } });
  if (!fromFile.ok || !inline.ok) throw new Error('no answer');
  expect(checkFindings(JSON.parse(JSON.stringify(fromFile.value)))).toBe(true);
  expect(fromFile.value.findings).toMatchObject([{ kind: 'dropout', channel: 'a', from_s: 30, samples: 5 }]);
  expect(inline.value.findings).toMatchObject([{ kind: 'dropout', channel: 'a', samples: 5 }]);
  expect(inline.value.searched[0]!.wouldFind).toEqual(fromFile.value.searched[0]!.wouldFind);
});

it('scales a clamp', () => {
  const answer = ask({ channels: [{ column: 'a', unit: 'A', perVolt: 100 }] });
  if (!answer.ok) throw new Error('no answer');
  const [found] = answer.value.findings;
  expect(found).toMatchObject({ kind: 'dropout' });
  expect(answer.value.searched[0]!.wouldFind!.depth).toBeGreaterThan(1);
});

it.each([
  [{ channels: [{ column: 'b' }] }, '/channels/0/column'],
  [{ channels: [{ column: 'a' }, { column: 'a' }] }, '/channels/1/column'],
  [{ channels: [{ column: 'a', perVolt: 0 }] }, '/channels/0/perVolt'],
  [{ time: { column: 'x' } }, '/time/column'],
  [{ ask: ['agreement'] }, '/ask/0'],
  [{ ask: ['search', 'order'] }, '/ask/1'],
  [{ ask: ['snap'] }, '/ask/0'],
  [{ ask: ['timing'] }, '/ask/0'],
  [{ data: { columns: { a: [1, 2], b: [1] } }, time: { rate_Hz: 1 } }, '/data/columns'],
  [{ data: { columns: { a: [1, 2] } } }, '/time'],
  [{ more: 1 }, '/more'],
])('refuses %j at its path', (more, path) => {
  const answer = ask(more);
  if (answer.ok) throw new Error('an answer');
  expect(answer.error.map((e) => e.path)).toContain(path);
});

it('says when the file is not there, or is no table', () => {
  const gone = ask({}, () => {
    throw new Error('no such file');
  });
  expect(gone).toMatchObject({ ok: false, error: [{ path: '/data', message: 'a.csv cannot be read: no such file' }] });
  expect(ask({}, () => new TextEncoder().encode('hello'))).toMatchObject({ ok: false, error: [{ path: '/data' }] });
});
