'use client';
import { useState } from 'react';
import type { Problem } from '../../core/foundation/result';
import { problemsOf, send } from './send';

export interface Sender {
  readonly busy: boolean;
  readonly problems: readonly Problem[];
  readonly setProblems: (problems: readonly Problem[]) => void;
  /** The answer, or `null` where it was refused: the problems say why. */
  readonly post: <T>(url: string, body: unknown) => Promise<T | null>;
}

/** Sends a form and keeps what the server said of its fields. */
export function useSend(): Sender {
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  async function post<T>(url: string, body: unknown): Promise<T | null> {
    setBusy(true);
    const sent = await send<T>(url, body);
    setBusy(false);
    setProblems(sent.ok ? [] : problemsOf(sent.error));
    return sent.ok ? sent.value : null;
  }
  return { busy, problems, setProblems, post };
}
