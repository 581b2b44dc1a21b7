import { createHash } from 'node:crypto';
import { encodeBlock } from '../../core/signal/block-codec';
import { simulateLogger } from '../../core/simulate/logger';
import { readTrace } from '../../formats/trace/read';
import type { ReadRecording } from '../../formats/trace/types';
import { writeSimulated } from '../../formats/trace/write-simulated';
import { toStored } from './stored';
import { columnNames, type DrivePart, filesOf, proposedShift, together, wholeOf } from './together';

const sha256 = (content: Uint8Array | string): string => createHash('sha256').update(content).digest('hex');
const SETTINGS = {
  seconds: 300,
  rate_Hz: 50,
  seed: 3,
  noise_V: 0.004,
  step_V: 0.001,
  faults: [],
  scan: { rate_Hz: 4, delay_s: 0.3 },
};
const drive = simulateLogger(SETTINGS);
const pins = readTrace(writeSimulated(drive, 'plain'));
/** A scan tool's table of the same drive, begun `late` seconds later by a clock of its own. */
function scanned(late: number): ReadRecording {
  const text = new TextDecoder().decode(writeSimulated(drive, 'scan'));
  const [head = '', ...rows] = text.trim().split(/\r?\n/);
  const cells = rows.map((r) => r.split(','));
  const own = cells
    .filter((c) => Number(c[0]) >= late && c[2] !== '')
    .map((c) => [(Number(c[0]) - late).toFixed(3), c[2]].join(','));
  const names = head.split(',');
  return readTrace(Buffer.from([`${names[0]},${names[2]}`, ...own].join('\n')));
}
const part = (name: string, read: ReadRecording, shift_s: number, how: DrivePart['how']): DrivePart => ({
  file: { name, size: 10, sha256: sha256(name) },
  read,
  shift_s,
  how,
});

it('lays a scan tool’s file on the clock of the pins by what moves in both', () => {
  const late = 41.5;
  const proposed = proposedShift(pins, scanned(late));
  expect(proposed.how).toBe('common movement');
  // The scan tool shows it 0.3 s late by itself: the sum cannot be told apart.
  expect(Math.abs(proposed.shift_s - late + 0.3)).toBeLessThan(0.4);
});

it('asks a person where nothing tells', () => {
  const text = (seed: number): ReadRecording =>
    readTrace(
      Buffer.from(['t,x', ...Array.from({ length: 900 }, (_, i) => `${i / 10},${((i * seed) % 7) / 1000}`)].join('\n')),
    );
  expect(proposedShift(text(3), text(5))).toMatchObject({ how: 'by hand', shift_s: 0 });
});

it('makes one recording of them: moved clocks, names of their own, files in the head', () => {
  const scan = scanned(41.5);
  const parts = [
    part('pins.csv', pins, 0, 'first'),
    part('scan.csv', scan, 41.2, 'by hand'),
    part('again.csv', scan, 0, 'by hand'),
  ];
  const whole = together(parts);
  expect(whole.columns).toHaveLength(pins.columns.length + 2);
  const [one, two] = whole.columns.slice(-2);
  expect(two?.name).toBe(`${one?.name} (3)`);
  expect(one?.clock.at(7)).toBeCloseTo((scan.columns[0]?.clock.at(7) ?? NaN) + 41.2, 9);
  const choices = whole.columns
    .slice(0, -1)
    .map((c) => ({ column: c.name, name: c.name, unit: 'V', role: 'sensor' as const, factor: 1 }));
  const original = wholeOf(parts, sha256);
  const { head } = toStored(whole, choices, original, (b) => sha256(encodeBlock(b)), undefined, filesOf(parts));
  expect(head.files?.map((f) => [f.name, f.shift_s, f.how])).toEqual([
    ['pins.csv', 0, 'first'],
    ['scan.csv', 41.2, 'by hand'],
    ['again.csv', 0, 'by hand'],
  ]);
  expect(head).toMatchObject({ file: 'pins.csv + scan.csv + again.csv', size: 30 });
  // Laid otherwise it is another recording.
  const [a = part('', pins, 0, 'first'), b = a] = parts;
  expect(wholeOf([a, { ...b, shift_s: 41.3 }], sha256).sha256).not.toBe(wholeOf([a, b], sha256).sha256);
  expect(together([a])).toBe(pins);
});

it('names columns so that each is there once', () => {
  const of = (...names: string[]) => ({ columns: names.map((name) => ({ name })) });
  expect(columnNames([of('a', 'b'), of('a'), of('a', 'a (2)')])).toEqual([
    ['a', 'b'],
    ['a (2)'],
    ['a (3)', 'a (2) (3)'],
  ]);
});
