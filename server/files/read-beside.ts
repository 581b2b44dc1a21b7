import { type FileKind, FILES, type Given, type WasRead } from '../../formats/files';
import { fail } from '../../core/foundation/result';
import { currentReader, type Reader } from '../../core/locale/locale';

/** A file to be read, for whoever reads the answer. Plain data: it travels to a thread. */
export interface ReadingQuestion {
  readonly kind: FileKind;
  readonly given: Given<FileKind>;
  readonly reader: Reader;
}
/** What was read; or why the thread was ended before it was done. */
export type ReadingAnswer = { readonly read: WasRead<FileKind> } | { readonly ended: 'time' | 'memory' };

/** Of a web server: web/reading.mjs sets it. Elsewhere, as on a device, it is not there. */
const shared = globalThis as { mudflatRead?: (question: ReadingQuestion) => Promise<ReadingAnswer> };

/** Less is read at once: nobody notices. */
const SMALL_chars = 64_000;

/**
 * Reads a file: a large one in a thread beside what answers, where there is one. Reading eight megabytes
 * takes up to seconds, of a file that is made to take long many, and meanwhile others are answered. One that
 * takes too long or too much memory is refused.
 */
export async function readBeside<K extends FileKind>(kind: K, ...given: Given<K>): Promise<WasRead<K>> {
  if (!shared.mudflatRead || given[0].length < SMALL_chars) return readHere(kind, given);
  const answer = await shared.mudflatRead({ kind, given, reader: currentReader() });
  if ('read' in answer) return answer.read as WasRead<K>;
  return fail([{ path: '', message: WORDS[answer.ended] }]) as WasRead<K>;
}

const WORDS = {
  time: 'Reading this file takes too long: is it what it should be? If so, take it in parts.',
  memory: 'Reading this file takes too much memory: is it what it should be? If so, take it in parts.',
} as const;

const readHere = <K extends FileKind>(kind: K, given: Given<K>): WasRead<K> =>
  (FILES[kind] as unknown as (...given: Given<K>) => WasRead<K>)(...given);
