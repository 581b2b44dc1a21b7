import { type Said, sayerOf, sayingOf } from '../../core/locale/said';

/** A note that the program writes into a job's record. */
export interface NoteWords {
  readonly title: string;
  readonly lines: readonly string[];
}

/**
 * As it is kept: in plain words, with what its sentences are made of. Notes of an earlier version have only
 * their words.
 */
export interface NoteBody extends NoteWords {
  readonly said?: Said;
}

/** A note to be kept. `words` makes its texts with `tr`, and must not wait for anything. */
export function writtenNote(words: () => NoteWords): NoteBody {
  const { result, said } = sayingOf(words, ({ title, lines }) => [title, ...lines]);
  return Object.keys(said).length ? { ...result, said } : result;
}

/** A kept note in the words of whoever reads it. */
export function noteForReader({ title, lines, said = {} }: NoteBody): NoteWords {
  const say = sayerOf(said);
  return { title: say(title), lines: lines.map(say) };
}
