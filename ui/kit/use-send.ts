'use client';
import { useState } from 'react';
import type { Problem } from '../../core/result';
import { send, type Sent } from './send';

export interface Sender {
  readonly busy: boolean;
  readonly problems: readonly Problem[];
  readonly setProblems: (problems: readonly Problem[]) => void;
  /** The answer, or `null` where it was refused: the problems say why. */
  readonly post: <T>(url: string, body: unknown) => Promise<T | null>;
}

const UNREACHABLE: readonly Problem[] = [{ path: '', message: 'No server. What you typed is still here; try again.' }];

/** What a failed sending says at the form. */
const problemsIn = (error: Extract<Sent<never>, { ok: false }>['error']): readonly Problem[] =>
  error.kind === 'refused'
    ? error.problem.errors
    : error.kind === 'unreachable'
      ? UNREACHABLE
      : [{ path: '', message: error.message }];

/** Sends a form and keeps what the server said of its fields. */
export function useSend(): Sender {
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  async function post<T>(url: string, body: unknown): Promise<T | null> {
    setBusy(true);
    const sent = await send<T>(url, body);
    setBusy(false);
    setProblems(sent.ok ? [] : problemsIn(sent.error));
    return sent.ok ? sent.value : null;
  }
  return { busy, problems, setProblems, post };
}
