import type { Engine } from '../core/engine/layout';
import type { Fault } from '../core/solver/types';

/** What is typed wrong. */
export class UsageError extends Error {}

/** A whole number above 0. */
export function whole(text: string, what: string): number {
  const n = Number(text);
  if (!Number.isInteger(n) || n < 1) throw new UsageError(`--${what} is a whole number above 0.`);
  return n;
}

/** "plug 4 open", "plug 4 series 500". */
export function readFault(text: string): Fault {
  const [, element = '', kind = '', ohms = ''] =
    /^(.+?) (open|short|series|resistance)(?: (\S+))?$/.exec(text.trim()) ?? [];
  if (kind === 'open' || kind === 'short') return { element, kind };
  const value = Number(ohms);
  if (!element || ohms === '' || !Number.isFinite(value) || value < 0)
    throw new UsageError(`--fault "${text}": write "plug 4 open" or "plug 4 series 500".`);
  return { element, kind: kind as 'series' | 'resistance', ohms: value };
}

export const engineOf = ({ vee, cylinders }: { readonly vee: boolean; readonly cylinders: string }): Engine => ({
  layout: vee ? 'vee' : 'inline',
  cylinders: whole(cylinders, 'cylinders'),
});

/** Runs a simulated device with what was typed; what is wrong is said with how it is used. */
export function runUntilStopped(main: (args: readonly string[]) => void, usage: string): void {
  try {
    main(process.argv.slice(2));
  } catch (error) {
    const isTyped = error instanceof UsageError || (error instanceof Error && 'code' in error);
    process.stderr.write(`${isTyped ? `${error.message}\n${usage}` : String(error)}\n`);
    // What has been started already must not keep it running.
    process.exit(2);
  }
}
