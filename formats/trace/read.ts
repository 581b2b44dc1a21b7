import { tr } from '../../core/locale/translate';
import { CanReader } from './can-reader';
import { CsvReader, type CsvWishes } from './csv-reader';
import { type ReadRecording, TraceProblem, type TraceReader } from './types';
import { WavReader } from './wav-reader';

/** The reader for a file, told by its first bytes: never by its name. */
export function readerFor(head: Uint8Array, wishes: CsvWishes = {}): TraceReader {
  const start = new TextDecoder('latin1').decode(head.subarray(0, 512));
  if (start.startsWith('RIFF')) return new WavReader();
  if (start.startsWith('RF64')) throw new TraceProblem('', () => tr`WAV files of more than 4 GB (RF64) are not read.`);
  if (start.startsWith('PK'))
    throw new TraceProblem('', () => tr`This is a ZIP or a spreadsheet: unpack it, or save it as CSV.`);
  if (/^\s*\(\d{1,12}\.\d{1,9}\)\s+\S+\s+[0-9A-Fa-f]{3,8}#/.test(start)) return new CanReader();
  return new CsvReader(wishes);
}

/** Reads a whole file. Throws `TraceProblem`. */
export function readTrace(bytes: Uint8Array, wishes: CsvWishes = {}, piece = 4 << 20): ReadRecording {
  if (bytes.length === 0) throw new TraceProblem('', () => tr`The file is empty.`);
  const reader = readerFor(bytes, wishes);
  for (let at = 0; at < bytes.length; at += piece) reader.push(bytes.subarray(at, at + piece));
  return reader.end();
}
