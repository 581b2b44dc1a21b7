/** @jest-environment jsdom */
import { act, cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { STAGE_WORDS, STAGES, type StageId, type JobProgress } from '../../core/job/progress';
import type { NextStep } from '../../core/job/next-step';
import type { PlanStep } from '../../core/plan/types';
import type { JobView } from '../../application/views';
import { PlanOfJob } from './plan';
import { Now } from './now';
import { StageList, StageRow } from './stages';

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

const MEASURE: NextStep = {
  act: { do: 'measure', test: 'battery-at-rest' },
  say: 'Measure: Battery at rest.',
  why: 'A weak battery makes every other reading doubtful.',
  tells: 'It proves: that it is charged.',
  minutes: 1,
  needs: ['key off'],
};
const standing = (now: StageId | null, next: NextStep = MEASURE): JobProgress => ({
  now,
  say: now === null ? 'Released.' : next.say,
  next: now === null ? null : next,
  instead: [],
  waits: now === null ? null : 'somebody',
  stages: STAGES.map((id) => ({
    id,
    state: now !== null && STAGES.indexOf(id) > STAGES.indexOf(now) ? 'open' : id === now ? 'now' : 'done',
  })),
});
const viewAt = (now: StageId | null, more: object = {}): JobView =>
  ({
    job: { id: 'j', runs: [], closed: now === null, complaint: 'Smokes', openedBy: 'Ines', openedAt: AT },
    unit: { timeZone: 'Etc/UTC' },
    plan: { steps: STEPS, minutes: 8, next: 'battery-at-rest' },
    tests: [{ id: 'battery-at-rest', name: 'Battery at rest' }],
    codes: [],
    evidence: [],
    findings: [],
    repair: { records: [], checks: [], pairs: [] },
    progress: standing(now),
    ...more,
  }) as unknown as JobView;
const AT = '2026-11-20T10:00:00Z';

test.each(STAGES)('at %s: every stage says how far it is, and the one that is next leads to its work', (now) => {
  const opened: string[] = [];
  render(<StageRow view={viewAt(now)} onOpen={(id) => opened.push(id)} />);
  const links = within(screen.getByRole('list')).getAllByRole('link');
  expect(links.map((l) => l.textContent.split(', ')[0])).toEqual(STAGES.map((s) => STAGE_WORDS[s]));
  const current = links.filter((l) => l.getAttribute('aria-current') === 'step');
  expect(current.map((l) => [l.textContent, l.getAttribute('href')])).toEqual([[`${STAGE_WORDS[now]}, now`, '#now']]);
});

test('a stage is a line with who and when, and opens to its work', async () => {
  const user = userEvent.setup();
  const opened: [string, boolean][] = [];
  const list = (open: readonly StageId[]) => (
    <StageList
      view={viewAt('tests')}
      opened={new Set(open)}
      onToggle={(id, isOpen) => opened.push([id, isOpen])}
      work={(id) => <p>work of {id}</p>}
      without={new Set(['codes'])}
    />
  );
  const { rerender } = render(list([]));
  expect(screen.queryByText('work of complaint')).toBeNull();
  expect(screen.getByText('Smokes').closest('summary')?.textContent).toContain('Ines, 20 Nov 2026, 10:00');
  expect(screen.queryByText('Codes')).toBeNull();
  await act(() => user.click(screen.getByText('Smokes')));
  rerender(list(['complaint']));
  expect(screen.getByRole('region', { name: 'Complaint' }).textContent).toBe('work of complaint');
});

test('now: the sentence, why, what it tells, what must be true, and one button that does it', async () => {
  const user = userEvent.setup();
  render(<Now view={viewAt('tests')} />);
  const now = screen.getByRole('region', { name: 'Now' });
  expect(within(now).getByRole('heading').textContent).toBe('Now: Measure: Battery at rest.');
  for (const said of [MEASURE.why, MEASURE.tells ?? '', 'about 1 min', 'First: key off'])
    expect(now.textContent).toContain(said);
  await act(() => user.click(within(now).getByRole('button')));
  expect(mockSent).toMatchObject([['/api/runs', { jobId: 'j', test: 'battery-at-rest', by: 'Ines' }]]);
});

test('what goes on is a link to its bench; what it waits for is said', () => {
  const going: NextStep = { ...MEASURE, act: { do: 'measure', test: 'battery-at-rest', run: 'r1' } };
  render(<Now view={viewAt('tests', { progress: { ...standing('tests', going), waits: 'a cold engine' } })} />);
  expect(screen.getByRole('link', { name: 'Go on with Battery at rest' }).getAttribute('href')).toBe('/runs/r1');
  expect(screen.getByText('Waits for a cold engine')).toBeTruthy();
});

test('released: nothing is next', () => {
  render(<Now view={viewAt(null)} />);
  expect(screen.getByText('Released.')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
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
  const next: NextStep = now === 'tests' ? MEASURE : { ...MEASURE, act: { do: 'repair' } };
  render(<PlanOfJob view={viewAt(now, { job: { id: 'j', runs }, progress: standing(now, next) })} />);
}
const steps = (): HTMLElement[] => within(screen.getByRole('region', { name: 'Plan' })).getAllByRole('listitem');

test('while it is being looked for, the plan says what is next; once it is found, it stands back', () => {
  plan('tests');
  expect(steps()[0]?.textContent).toMatch(/^Now: Battery at rest/);
  expect(steps()[1]?.textContent).toMatch(/^Glow plugs, at the plug 4 min, 2 people/);
  cleanup();
  plan('repair');
  expect(screen.getByRole('heading', { name: 'Could still be measured' }).closest('details')?.open).toBe(false);
  expect(steps()[0]?.textContent).toMatch(/^Battery at rest/);
});

test('another step is started; one that is begun is gone on with; what is next has its button elsewhere', async () => {
  const user = userEvent.setup();
  plan('tests');
  expect(screen.queryByRole('button', { name: 'Start Battery at rest' })).toBeNull();
  await act(() => user.click(screen.getByRole('button', { name: 'Start Glow plugs, at the plug' })));
  expect(mockSent).toMatchObject([['/api/runs', { jobId: 'j', test: 'glow-plug-resistance', by: 'Ines' }]]);
  expect(mockPushed).toEqual([`/runs/${(mockSent[0]?.[1] as { id: string } | undefined)?.id}`]);
  cleanup();
  plan('tests', [{ id: 'begun', test: 'glow-plug-resistance', judgement: null }]);
  await act(() => user.click(screen.getByRole('button', { name: 'Start Glow plugs, at the plug' })));
  expect(mockPushed.at(-1)).toBe('/runs/begun');
  expect(mockSent).toHaveLength(1);
});

test('steps are moved by their buttons, at the ends only inwards; why one was skipped is told', async () => {
  const user = userEvent.setup();
  plan('tests');
  expect(screen.queryByRole('button', { name: 'Battery at rest earlier' })).toBeNull();
  await act(() => user.click(screen.getByRole('button', { name: 'Change the order' })));
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Battery at rest earlier' }).disabled).toBe(true);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Glow plugs, at the plug later' }).disabled).toBe(true);
  await act(() => user.click(screen.getByRole('button', { name: 'Glow plugs, at the plug earlier' })));
  expect(mockSent).toMatchObject([
    ['/api/jobs/j/plan', { change: { kind: 'move', test: 'glow-plug-resistance', before: 'battery-at-rest' } }],
  ]);
  expect(screen.getByText(/no clamp here/)).toBeTruthy();
});
