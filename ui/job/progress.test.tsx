/** @jest-environment jsdom */
import { act, cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { STAGE_WORDS, STAGES, type StageId, type JobProgress } from '../../core/job/progress';
import type { PlanStep } from '../../core/plan/types';
import type { JobView } from '../../application/views';
import { PlanOfJob } from './plan';
import { Progress } from './progress';

const mockPushed: string[] = [];
const mockSent: [string, unknown][] = [];
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: (to: string) => mockPushed.push(to), refresh: () => undefined }),
}));
jest.mock('../kit/session', () => ({ usePerson: () => 'Ines', useMay: () => true }));
jest.mock('../kit/use-send', () => ({
  useSend: () => ({
    busy: false,
    problems: [],
    post: (to: string, body: unknown) => {
      mockSent.push([to, body]);
      return Promise.resolve(true);
    },
  }),
}));
afterEach(() => {
  cleanup();
  mockPushed.length = 0;
  mockSent.length = 0;
});

const standing = (now: StageId | null): JobProgress => ({
  now,
  say: now === null ? 'Released.' : 'Write the finding.',
  stages: STAGES.map((id) => ({
    id,
    state: now !== null && STAGES.indexOf(id) > STAGES.indexOf(now) ? 'open' : id === now ? 'now' : 'done',
  })),
});

test.each(STAGES)('at %s: every stage says how far it is, and the sentence leads to where it is worked on', (now) => {
  render(<Progress stands={standing(now)} />);
  const links = within(screen.getByRole('list')).getAllByRole('link');
  expect(links.map((l) => l.textContent.split(', ')[0])).toEqual(STAGES.map((s) => STAGE_WORDS[s]));
  const current = links.filter((l) => l.getAttribute('aria-current') === 'step');
  expect(current.map((l) => l.textContent)).toEqual([`${STAGE_WORDS[now]}, next`]);
  expect(screen.getByRole('link', { name: 'Write the finding.' }).getAttribute('href')).toBe(
    current[0]?.getAttribute('href'),
  );
});

test('released: nothing is next', () => {
  render(<Progress stands={standing(null)} />);
  expect(screen.getByText('Released.')).toBeTruthy();
  expect(screen.queryByText('Now:')).toBeNull();
});

const step = (test: string, name: string, more: Partial<PlanStep> = {}): PlanStep => ({
  test,
  name,
  area: 'Glow plugs',
  minutes: 4,
  people: 1,
  why: 'The complaint points here.',
  with: null,
  state: 'to do',
  because: null,
  ...more,
});
const STEPS = [
  step('battery-at-rest', 'Battery at rest'),
  step('glow-plug-resistance', 'Glow plugs, at the plug', { people: 2 }),
  step('glow-plug-current', 'Glow plugs, current', { state: 'skipped', because: 'no clamp here' }),
];

function plan(now: StageId | null, runs: object[] = []): void {
  const view = {
    job: { id: 'j', runs },
    plan: { steps: STEPS, minutes: 8, next: 'battery-at-rest' },
    tests: [],
    progress: standing(now),
  } as unknown as JobView;
  render(<PlanOfJob view={view} />);
}
const steps = (): HTMLElement[] => within(screen.getByRole('region', { name: 'Plan' })).getAllByRole('listitem');

test('while it is being looked for, the plan says what is next; once it is found, it stands back', () => {
  plan('tests');
  expect(steps()[0]?.textContent).toMatch(/^Next: Battery at rest/);
  expect(steps()[1]?.textContent).toMatch(/^Glow plugs, at the plug 4 min, 2 people/);
  cleanup();
  plan('repair');
  expect(screen.getByRole('heading', { name: 'Could still be measured' })).toBeTruthy();
  expect(steps()[0]?.textContent).toMatch(/^Battery at rest/);
});

test('a step is started; one that is begun is gone on with', async () => {
  const user = userEvent.setup();
  plan('tests');
  await act(() => user.click(screen.getByRole('button', { name: 'Start Battery at rest' })));
  expect(mockSent).toMatchObject([['/api/runs', { jobId: 'j', test: 'battery-at-rest', by: 'Ines' }]]);
  expect(mockPushed).toEqual([`/runs/${(mockSent[0]?.[1] as { id: string }).id}`]);
  cleanup();
  plan('tests', [{ id: 'begun', test: 'battery-at-rest', judgement: null }]);
  await act(() => user.click(screen.getByRole('button', { name: 'Start Battery at rest' })));
  expect(mockPushed.at(-1)).toBe('/runs/begun');
  expect(mockSent).toHaveLength(1);
});

test('steps are moved by their buttons, at the ends only inwards; why one was skipped is told', async () => {
  const user = userEvent.setup();
  plan('tests');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Battery at rest earlier' }).disabled).toBe(true);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Glow plugs, at the plug later' }).disabled).toBe(true);
  await act(() => user.click(screen.getByRole('button', { name: 'Glow plugs, at the plug earlier' })));
  expect(mockSent).toMatchObject([
    ['/api/jobs/j/plan', { change: { kind: 'move', test: 'glow-plug-resistance', before: 'battery-at-rest' } }],
  ]);
  expect(screen.getByText(/no clamp here/)).toBeTruthy();
});
