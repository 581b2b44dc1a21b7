import type { ReactNode } from 'react';

export const inputLook =
  'mt-1 block min-h-12 w-full rounded-lg border-2 border-line bg-card px-3 aria-invalid:border-rust';

/**
 * A labelled field with its error beneath it. The control gets `id` and, on error, `aria-describedby` of
 * `${id}-error`.
 */
export function Field({
  id,
  label,
  error,
  hint,
  children,
}: {
  id: string;
  label: string;
  error?: string | undefined;
  hint?: string;
  children: ReactNode;
}) {
  return (
    <div className="mb-4">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      {hint && <span className="ml-2 text-sm text-soft">{hint}</span>}
      {children}
      {error && (
        <p id={`${id}-error`} role="alert" className="mt-1 font-semibold text-rust">
          {error}
        </p>
      )}
    </div>
  );
}

/** Attributes that tie a control to its field. */
export const tie = (id: string, error: string | undefined) => ({
  id,
  'aria-invalid': error !== undefined,
  ...(error ? { 'aria-describedby': `${id}-error` } : {}),
});
