/** @jest-environment jsdom */
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { runView } from '../../application/testing';
import type { JudgedAgain } from '../../application/judging/difference';
import { CORE_VERSION } from '../../core/foundation/version';

const refreshed = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: refreshed }) }));
jest.mock('../kit/session', () => ({ usePerson: () => 'Ines', useMay: () => true }));

import { OtherVersion } from './other-version';

const own = runView({ entered: [{ id: 'a', position: 1, entry: '0.6' }] });
const older = { ...own, judgement: { ...own.judgement, core: '0.0.9' } };
const answers = (get: JudgedAgain | null): { posted: string[] } => {
  const posted: string[] = [];
  Object.assign(AbortSignal, { timeout: () => new AbortController().signal });
  globalThis.fetch = ((url: string, init?: { method?: string }) => {
    if (init?.method === 'POST') posted.push(url);
    return Promise.resolve({ ok: get !== null, status: get ? 200 : 503, json: () => Promise.resolve(get) });
  }) as unknown as typeof fetch;
  return { posted };
};

test('a run of this version says nothing, nor does one without readings', () => {
  const { container, rerender } = render(<OtherVersion view={own} />);
  expect(container.textContent).toBe('');
  rerender(<OtherVersion view={{ ...older, readings: [] }} />);
  expect(container.textContent).toBe('');
});
test('one of another version: what would change is asked for, then judged again', async () => {
  const { posted } = answers({
    was: '0.0.9',
    becomes: CORE_VERSION,
    changes: [{ position: 1, entry: '0.6', was: 'high', becomes: 'within' }],
    summary: '',
  });
  render(<OtherVersion view={older} />);
  expect(screen.getByText(/Shown as it was judged, by version 0.0.9/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'What would change?' }));
  expect(await screen.findByText('1: 0.6 was too high, is in')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Judge again' }));
  await waitFor(() => expect(refreshed).toHaveBeenCalled());
  expect(posted).toEqual([`/api/runs/${older.id}/judge-again`]);
});
test('where the server does not answer, the verdicts stay and that is said', async () => {
  answers(null);
  render(<OtherVersion view={older} />);
  await userEvent.click(screen.getByRole('button', { name: 'What would change?' }));
  expect(await screen.findByRole('alert')).toBeTruthy();
});
