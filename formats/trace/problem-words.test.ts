import catalogue from '../../words/catalogue.json';
import { asFor, PLAIN } from '../../core/locale/locale';
import { PSEUDO, pseudo, pseudoTranslation } from '../../core/locale/pseudo';
import { sayerOf } from '../../core/locale/said';
import { readTrace } from './read';
import { placeIn, TraceProblem } from './types';

/** A WAV file whose header says this, with nothing behind it. */
function wavHeader(code: number, channels: number, rate_Hz: number, bits: number): string {
  const view = new DataView(new ArrayBuffer(36));
  [...'RIFF----WAVEfmt '].forEach((c, i) => view.setUint8(i, c.charCodeAt(0)));
  view.setUint32(16, 16, true);
  view.setUint16(20, code, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate_Hz, true);
  view.setUint16(34, bits, true);
  return String.fromCharCode(...new Uint8Array(view.buffer));
}

const READER = {
  locale: { ...PLAIN, decimal: 'comma' as const, language: PSEUDO },
  words: pseudoTranslation(Object.keys(catalogue.texts)),
};

/** Where a file is wrong and why, to whoever reads the pseudo-language. */
function saidOf(file: string): string[] {
  try {
    readTrace(Uint8Array.from(file, (c) => c.charCodeAt(0)));
    return [];
  } catch (error) {
    if (!(error instanceof TraceProblem)) throw error;
    return asFor(READER, () => [placeIn(error.path), sayerOf(error.said)(error.message)]);
  }
}

const manyColumns = Array.from({ length: 1500 }, (_, i) => i);

// Between braces: words of the reader's language. The rest is put in.
it.each([
  ['t,V\n0,1\n1,abc\n2,3\n', '{line }3{, column }2', '"abc"{ is no number.}'],
  // What stands in the file is shown as it stands there: 1.2.3 gets no comma, and "time" is no word of a
  // sentence.
  ['t,V\n0,1\n1,1.2.3\n2,3\n', '{line }3{, column }2', '"1.2.3"{ is no number.}'],
  ['t,V\n0,1\n1,time\n2,3\n', '{line }3{, column }2', '"time"{ is no number.}'],
  ['t,V\n0,1\n,1\n2,3\n', '{line }3{, column }1', '{The row has no time.}'],
  ['time,V\n08:00:00,1\n08:00:01,1\nnoon,1\n08:00:03,3\n', '{line }4{, column }1', '"noon"{ is no time.}'],
  ['', '', '{The file is empty.}'],
  [
    'one two\n',
    '',
    '{No table was found: no line consists of numbers between commas, semicolons, tabs, bars or blanks.}',
  ],
  ['t,V\0\n1,2\n', '{line }1', '{There are NUL characters: this is no text, or it was damaged.}'],
  [
    `${manyColumns.join(',')}\n`,
    '{line }1',
    '{There are }1500{ columns; }128{ is the most. A log of a few wires has fewer: leave the others out.}',
  ],
  ['PK\u0003\u0004', '', '{This is a ZIP or a spreadsheet: unpack it, or save it as CSV.}'],
  [wavHeader(1, 1, 0, 16), '', '{This WAV file states no sample rate.}'],
  [wavHeader(1, 300, 8000, 16), '', '{This WAV file says that it has }300{ channels.}'],
  [
    wavHeader(7, 1, 8000, 16),
    '',
    '{WAV of }16{ bits and code }7{ is not read: only PCM of 8 to 32 bits and floating point.}',
  ],
  ['(1.0) can0 0CF00400#FFFF\nnonsense\n', '{line }2', '"nonsense"{ is no frame of a CAN log.}'],
  ['(1.0) can0 123#FFFF\n', '', '{None of the }1{ frames holds a signal that is known.}'],
])('what is wrong with a file is said to each reader in their words (%#)', (file, place, message) => {
  const spoken = (text: string): string => text.replace(/\{([^}]*)\}/g, (_, words: string) => pseudo(words));
  expect(saidOf(file)).toEqual([spoken(place), spoken(message)]);
});
