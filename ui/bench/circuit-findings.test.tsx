/** @jest-environment jsdom */
import { act, cleanup, render, screen } from '@testing-library/react';
import { CIRCUITS } from '../../core/circuits/library';
import type { Case, WeighedCircuit } from '../../core/diagnosis/case';
import type { Diagnosis, DiagnosticReading } from '../../core/diagnosis/types';
import { runView } from '../../application/testing';
import { CircuitFindings } from './circuit-findings';

const mockAsked: { read: readonly DiagnosticReading[]; answer: (found: readonly WeighedCircuit[] | null) => void }[] =
  [];
let mockCancelled = 0;
jest.mock('../kit/session', () => ({ usePerson: () => 'Ines', useMay: () => true }));
jest.mock('../kit/use-send', () => ({
  useSend: () => ({ busy: false, problems: [], post: () => Promise.resolve(true) }),
}));
jest.mock('../kit/weigher', () => ({
  weigher: () => ({
    cancel: () => {
      mockCancelled += 1;
    },
  }),
  weighBeside: (_: Case, read: readonly DiagnosticReading[]) =>
    new Promise<readonly WeighedCircuit[] | null>((answer) => {
      mockAsked.push({ read, answer });
    }),
}));

beforeEach(() => {
  mockAsked.length = 0;
  mockCancelled = 0;
  Object.assign(globalThis, { fetch: () => Promise.resolve({ ok: true, json: () => Promise.resolve({}) }) });
});
afterEach(cleanup);

const [circuit] = CIRCUITS;
const found = (diagnosis: Partial<Diagnosis>): readonly WeighedCircuit[] =>
  [
    {
      circuit,
      diagnosis: {
        suspects: [],
        unexplained: 0.1,
        next: [],
        decided: false,
        notes: [],
        ...diagnosis,
      },
    },
  ] as unknown as readonly WeighedCircuit[];
const suspect = (words: string, probability: number) =>
  ({ key: words, words, probability, supports: [], contradicts: [] }) as unknown as Diagnosis['suspects'][number];
const next = (test: string, position: number | string) =>
  ({ test, position, expectedInformation_bits: 0.5, minutes: 4, why: 'Separates plug 2 from its wire.' }) as const;

const at = (...entries: string[]) =>
  runView({
    engine: { layout: 'inline', cylinders: 4, systemVoltage_V: 12 },
    entered: entries.map((entry, i) => ({ id: `r${i}`, position: i + 1, entry })),
  });

/** The verdict is drawn first: the circuits are asked a moment later. */
const asked = (): Promise<void> => new Promise((go) => setTimeout(go, 60));

async function open(...entries: string[]) {
  const view = at(...entries);
  const shown = render(<CircuitFindings view={view} judgement={view.judgement} />);
  await act(() => Promise.resolve());
  await act(asked);
  const answer = (n: number, with_: readonly WeighedCircuit[] | null): Promise<void> =>
    act(async () => {
      mockAsked[n]?.answer(with_);
      await Promise.resolve();
    });
  const show = (...now: string[]): void => {
    const again = at(...now);
    shown.rerender(<CircuitFindings view={view} judgement={again.judgement} />);
  };
  async function rerender(...now: string[]): Promise<void> {
    show(...now);
    await act(asked);
  }
  return { answer, rerender, show, said: () => document.body.textContent };
}

test('nothing read, nothing asked and nothing said', async () => {
  const { said } = await open();
  expect([mockAsked.length, said()]).toEqual([0, '']);
});

test('a reading that another follows at once asks nothing: the verdict goes first', async () => {
  const { rerender, show } = await open();
  show('0.6');
  await rerender('0.6', '201');
  expect(mockAsked.map((a) => a.read.length)).toEqual([2]);
  expect(mockCancelled).toBe(0);
});

test('each reading asks again, with all that stands; an older question is cancelled and its answer is not shown', async () => {
  const { answer, rerender, said } = await open('0.6');
  await rerender('0.6', '201');
  expect(mockAsked.map((a) => a.read.length)).toEqual([1, 2]);
  expect(mockCancelled).toBe(1);
  await answer(0, found({ suspects: [suspect('plug 1 is open', 0.9)] }));
  expect(said()).not.toContain('plug 1');
  await answer(1, found({ suspects: [suspect('plug 2 has gone high', 0.93)] }));
  expect(said()).toContain('93 % plug 2 has gone high');
});

test('what was answered is not cancelled', async () => {
  const { answer, rerender } = await open('0.6');
  await answer(0, found({}));
  await rerender('0.6', '201');
  expect([mockAsked.length, mockCancelled]).toEqual([2, 0]);
});

test('what nobody answers keeps what was said before', async () => {
  const { answer, rerender, said } = await open('201');
  await answer(0, found({ suspects: [suspect('plug 1 has gone high', 1)] }));
  expect(said()).toContain('nearly certain: plug 1 has gone high');
  await rerender('201', '0.6');
  await answer(1, null);
  expect(said()).toContain('nearly certain: plug 1 has gone high');
});

test('where in this test it tells most is said while the set is open; which test comes next says the job', async () => {
  const { answer, rerender, said } = await open('201');
  const suspects = [suspect('plug 1 has gone high', 0.6)];
  await answer(0, found({ suspects, next: [next('glow-plug-through-harness', 1)] }));
  expect(said()).not.toContain('through the harness');
  await rerender('201', '0.6');
  await answer(1, found({ suspects, next: [next('glow-plug-resistance', 3)] }));
  expect(said()).toContain('Tells most here: cylinder 3.');
  expect(screen.queryByRole('button')).toBeNull();
});

test('decided is said; what no test tells apart is said, and not called decided', async () => {
  const { answer, rerender, said } = await open('201');
  await answer(0, found({ suspects: [suspect('plug 1 has gone high', 0.99)], decided: true }));
  expect(said()).toContain('Decided');
  await rerender('201', '0.6');
  const note = 'No further test of this circuit tells apart what is left: wire and plug.';
  await answer(1, found({ suspects: [suspect('plug 1 has gone high', 0.5)], notes: [note] }));
  expect(said()).toContain(note);
  expect(said()).not.toContain('Decided');
});
