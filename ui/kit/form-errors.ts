import type { FieldValues, Path, UseFormSetError } from 'react-hook-form';
import { problemsOf, type Sent } from './send';

type Failure = Extract<Sent<never>, { ok: false }>['error'];

/** Shows the server's problem details at their fields; what belongs to no field stands above the button. */
export function showRefusal<T extends FieldValues>(
  failure: Failure,
  setError: UseFormSetError<T>,
  fields: readonly Path<T>[],
): void {
  for (const { path, message } of problemsOf(failure)) {
    const field = fields.find((f) => path.split('/').includes(f));
    setError(field ?? 'root', { message });
  }
}
