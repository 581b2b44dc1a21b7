import type { FieldValues, Path, UseFormSetError } from 'react-hook-form';
import type { Sent } from './send';

type Failure = Extract<Sent<never>, { ok: false }>['error'];

/** Shows the server's problem details at their fields; what belongs to no field stands above the button. */
export function showRefusal<T extends FieldValues>(
  failure: Failure,
  setError: UseFormSetError<T>,
  fields: readonly Path<T>[],
): void {
  if (failure.kind === 'unreachable') {
    setError('root', { message: 'No server. What you typed is still here; try again.' });
    return;
  }
  if (failure.kind === 'signed-out') {
    setError('root', { message: failure.message });
    return;
  }
  for (const { path, message } of failure.problem.errors) {
    const field = fields.find((f) => path.split('/').includes(f));
    setError(field ?? 'root', { message });
  }
}
