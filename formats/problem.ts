import { tr } from '../core/locale/translate';
import type { Problem } from '../core/foundation/result';

/** Problem details after RFC 9457, with the list of fields that are wrong. */
export interface ProblemDetails {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly errors: readonly Problem[];
}

/** Nobody mends more of them before trying again. */
const MOST_TOLD = 200;

/**
 * Problem details for input that is wrong; `status` 422 unless another fits better. Of very many the first
 * are told.
 */
export function problemDetails(title: string, all: readonly Problem[], status = 422): ProblemDetails {
  const left = all.length - MOST_TOLD;
  const errors = left > 0 ? [...all.slice(0, MOST_TOLD), { path: '', message: tr`And ${left} more.` }] : all;
  const detail = errors.map((e) => (e.path ? `${e.path}: ${e.message}` : e.message)).join(' ');
  return { type: 'about:blank', title, status, detail, errors };
}

/** The same problems under their place in a file: `/line 3`. `fieldOf`: what a field is called there. */
export const problemsAt = (
  place: string,
  { title, errors, status }: ProblemDetails,
  fieldOf = (path: string): string => path,
): ProblemDetails =>
  problemDetails(
    title,
    errors.map((p) => ({ ...p, path: `${place}${fieldOf(p.path)}` })),
    status,
  );
