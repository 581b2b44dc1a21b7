import { tr } from '../../core/locale/translate';
import type { Problem } from '../../core/foundation/result';

/** What stands in the fields of a form, as typed. */
export type Draft = Readonly<Record<string, string>>;

/** Reads fields one by one and collects what is wrong, by the path that the server would name. */
export class DraftReader {
  readonly problems: Problem[] = [];
  constructor(private readonly draft: Draft) {}

  text(field: string): string | undefined {
    return this.draft[field]?.trim() || undefined;
  }

  /** A number with point or comma; `undefined` where nothing stands there. */
  number(field: string, path: string): number | undefined {
    const typed = this.text(field);
    if (typed === undefined) return undefined;
    const value = Number(typed.replace(/\s/g, '').replace(',', '.'));
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
