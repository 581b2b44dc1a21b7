/** @jest-environment jsdom */
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { NextStep } from '../../core/job/next-step';
import type { ProposedFinding } from '../../core/evidence/finding';
import type { JobView } from '../../application/views';
import { Instead, Now } from './now';

const mockSent: { finding: unknown }[] = [];
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: () => undefined, refresh: () => undefined }) }));
jest.mock('../kit/session', () => ({ usePerson: () => 'Ines', useMay: () => true }));
jest.mock('../kit/use-send', () => ({
  useSend: () => ({
    busy: false,
    problems: [],
    setProblems: () => undefined,
    post: (_: string, body: { finding: unknown }) => {
      mockSent.push(body);
      return Promise.resolve(true);
    },
  }),
}));
beforeAll(() => {
  Object.assign(globalThis, {
    matchMedia: () => ({ matches: false }),
    ResizeObserver: class {
      observe = () => undefined;
      unobserve = () => undefined;
      disconnect = () => undefined;
    },
  });
});
afterEach(() => {
  cleanup();
  mockSent.length = 0;
});

const proposal = (name: string, position: number, confidence: ProposedFinding['confidence'] = 'probable') =>
  ({
    target: { kind: 'part', name, position },
    positions: [position],
    confidence,
    text: `The ${name} of cylinder ${position} is bad`,
    supports: [{ kind: 'run', id: `run of ${name} ${position}`, label: `${name} ${position}` }],
    against: [],
  }) satisfies ProposedFinding;
const [PLUG, INJECTOR] = [proposal('plug', 3), proposal('injector', 2)];

const step = (what: NextStep['act']): NextStep => ({
  act: what,
  say: what.do,
  why: '',
  tells: null,
  minutes: null,
  needs: [],
});
const SIGN = step({ do: 'sign-finding', proposal: 0 });
const at = (next: NextStep | null, proposals: readonly ProposedFinding[], instead: readonly NextStep[] = []) =>
  ({
    job: { id: 'j', closed: next === null, runs: [] },
    tests: [],
    proposals,
    ruledOut: [],
    progress: { next, now: 'finding', say: 'x', instead, waits: null },
  }) as unknown as JobView;

async function open(view: JobView, part: typeof Now | typeof Instead = Now) {
  const user = userEvent.setup();
  const Part = part;
  const { rerender } = render(<Part view={view} />);
  await user.click(screen.getByRole('button', { name: 'Sign the finding' }));
  const show = (next: JobView): void => rerender(<Part view={next} />);
  const press = (name: string | RegExp) => user.click(screen.getByRole('button', { name }));
  async function write(label: string | RegExp, text: string): Promise<void> {
    await user.clear(screen.getByLabelText(label));
    await user.type(screen.getByLabelText(label), text);
  }
  return { show, press, write };
}
const notice = (): HTMLElement | null => screen.queryByText(/The evidence has changed/);
const sentence = (): string => screen.getByLabelText<HTMLTextAreaElement>('In a sentence').value;

test('what is signed is what was read, whatever the evidence proposes meanwhile', async () => {
  const { show, press } = await open(at(SIGN, [PLUG]));
  expect(notice()).toBeNull();
  show(at(SIGN, [INJECTOR, PLUG]));
  expect(notice()).not.toBeNull();
  expect(sentence()).toBe(PLUG.text);
  await press(/^Sign as/);
  expect(mockSent).toMatchObject([
    { finding: { name: 'plug', positions: [3], text: PLUG.text, supports: PLUG.supports } },
  ]);
});

test('the newer proposals are taken when they are asked for: the same thing stays chosen, own words stay', async () => {
  const { show, press, write } = await open(at(SIGN, [PLUG]));
  await write('In a sentence', 'Plug 3 has burnt through.');
  const surer = proposal('plug', 3, 'certain');
  show(at(SIGN, [INJECTOR, surer]));
  await press('Show what it proposes now');
  expect(notice()).toBeNull();
  await press(/^Sign as/);
  expect(mockSent).toMatchObject([
    { finding: { name: 'plug', text: 'Plug 3 has burnt through.', confidence: 'certain' } },
  ]);
});

test('where what was chosen is proposed no more, the first of the newer ones stands there with its own sentence', async () => {
  const { show, press } = await open(at(SIGN, [PLUG]));
  show(at(SIGN, [INJECTOR]));
  await press('Show what it proposes now');
  expect(sentence()).toBe(INJECTOR.text);
  show(at(SIGN, []));
  await press('Show what it proposes now');
  expect(screen.getByLabelText('What to try when it returns')).toBeTruthy();
});

test('own words about what is proposed no more do not come to stand with another part', async () => {
  const { show, press, write } = await open(at(SIGN, [PLUG]));
  await write('In a sentence', 'Plug 3 has burnt through.');
  show(at(SIGN, [INJECTOR]));
  await press('Show what it proposes now');
  expect(sentence()).toBe('Plug 3 has burnt through.');
  await press(/^Sign as/);
  expect(mockSent).toEqual([]);
  expect(screen.getByRole('radio', { name: 'Another finding' }).getAttribute('aria-checked')).toBe('true');
});

test('the dialog stays, with what was written, when another step becomes next, or none', async () => {
  const { show, write } = await open(at(SIGN, [PLUG]));
  await write(/^Advised/, 'Look at the loom');
  show(at(step({ do: 'measure', test: 'battery-at-rest' }), [PLUG]));
  show(at(null, [PLUG]));
  expect(screen.getByLabelText<HTMLInputElement>(/^Advised/).value).toBe('Look at the loom');
});

test('so does one that was opened in place of what is next', async () => {
  const measure = step({ do: 'measure', test: 'battery-at-rest' });
  const { show, write } = await open(at(measure, [PLUG], [SIGN]), Instead);
  await write(/^Advised/, 'Look at the loom');
  show(at(measure, [PLUG], []));
  expect(screen.getByLabelText<HTMLInputElement>(/^Advised/).value).toBe('Look at the loom');
});
