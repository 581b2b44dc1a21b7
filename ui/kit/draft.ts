import { currentLocale } from '../../core/locale/locale';
import { entryShown, withMark } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import type { Problem } from '../../core/foundation/result';

/** What stands in the fields of a form, as typed. */
export type Draft = Readonly<Record<string, string>>;

/** A number as it stands in a field, with the reader's mark; of nothing nothing. */
export const numberShown = (value: number | null | undefined): string =>
  value === undefined || value === null ? '' : withMark(String(value));

/**
 * One to three digits and three more behind the mark that is not the reader's decimal one: "1,250", "12.500".
 */
const TWO_WAYS = { point: /^-?[1-9]\d{0,2},\d{3}$/, comma: /^-?[1-9]\d{0,2}\.\d{3}$/ };

/** Reads fields one by one and collects what is wrong, by the path that the server would name. */
export class DraftReader {
  readonly problems: Problem[] = [];
  constructor(private readonly draft: Draft) {}

  text(field: string): string | undefined {
    return this.draft[field]?.trim() || undefined;
  }

  /**
   * A number with point or comma; `undefined` where nothing stands there. What can be thousands in the other
   * mark is not guessed at.
   */
  number(field: string, path: string): number | undefined {
    const typed = this.text(field);
    if (typed === undefined) return undefined;
    const value = Number(typed.replace(/\s/g, '').replace(',', '.'));
    if (TWO_WAYS[currentLocale().decimal].test(typed)) {
      const message = tr`"${typed}" can be read in two ways: write ${typed.replace(/[.,]/, '')} or ${entryShown(typed)}.`;
      this.problems.push({ path, message });
      return undefined;
    }
    if (!Number.isFinite(value)) this.problems.push({ path, message: tr`"${typed}" is no number.` });
    return Number.isFinite(value) ? value : undefined;
  }

  /** One item per line. */
  lines(field: string): string[] {
    return (this.draft[field] ?? '')
      .split('\n')
      .map((l) => l.trim())
      .filter(Boolean);
  }

  /** An object typed as JSON; empty for nothing. */
  json(field: string, path: string): Record<string, unknown> {
    const typed = this.text(field);
    if (typed === undefined) return {};
    try {
      const read = JSON.parse(typed) as unknown;
      if (read !== null && typeof read === 'object' && !Array.isArray(read)) return read as Record<string, unknown>;
    } catch {
      /* said below */
    }
    this.problems.push({ path, message: 'This is not JSON: an object in braces.' });
    return {};
  }
}

/** Without what is undefined. */
export const pruned = <T extends object>(o: T): T =>
  Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined)) as T;

/** The message for a field: of the problem whose path is it, or lies below it. */
export const errorAt = (problems: readonly Problem[], path: string): string | undefined =>
  problems.find((p) => p.path === path || p.path.startsWith(`${path}/`))?.message;
