/** @jest-environment jsdom */
import { act, cleanup, render, screen, within } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import fc from 'fast-check';
import { type RunOf, runView } from '../../application/testing';
import { Bench } from './bench';
import type { OutboxItem } from '../offline/outbox';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => undefined, push: () => undefined }) }));
jest.mock('next/dynamic', () => () => () => null);
jest.mock('../kit/live', () => ({ useLive: () => undefined }));
jest.mock('../kit/session', () => ({ usePerson: () => 'Ines', useMay: (a: string) => a !== 'run.override-state' }));
const mockKept: OutboxItem[] = [];
jest.mock('../offline/outbox', () => ({
  onOutbox: () => () => undefined,
  flush: () => Promise.resolve(),
  drop: () => Promise.resolve(),
  keep: (item: OutboxItem) => {
    mockKept.push(item);
    return Promise.resolve();
  },
}));

jest.mock('../offline/outbox-store', () => ({ readAll: () => Promise.resolve({ items: [], locked: [] }) }));

beforeAll(() => {
  Element.prototype.scrollIntoView = () => undefined;
  Object.assign(globalThis, {
    ResizeObserver: class {
      observe = () => undefined;
      disconnect = () => undefined;
    },
    IntersectionObserver: class {
      observe = () => undefined;
      disconnect = () => undefined;
    },
    CSS: { escape: (s: string) => s },
    matchMedia: () => ({ matches: false }),
  });
});
afterEach(cleanup);

interface Written {
  readonly position: unknown;
  readonly entry: string;
  readonly supersedes: string | null;
  readonly id: string;
  readonly why: string | null;
}
const readings = (): Written[] => mockKept.flatMap((i) => (i.kind === 'reading' ? [i.body as Written] : []));

async function open(of: RunOf = {}): Promise<{ user: UserEvent; field: HTMLInputElement; said: () => string }> {
  mockKept.length = 0;
  const view = runView({ engine: { layout: 'inline', cylinders: 4, systemVoltage_V: 12 }, ...of });
  // What waited in the browser is looked up while it opens.
  await act(async () => {
    render(<Bench view={view} />);
    await Promise.resolve();
  });
  return {
    user: userEvent.setup({ delay: null }),
    field: screen.getByRole('textbox', { name: /^(Cylinder|All read|Lead)/ }),
    said: () => screen.getByTestId('summary').textContent,
  };
}

test('a set by the keyboard: each entry goes to the next free cylinder, and the summary grows with it', async () => {
  const { user, said } = await open();
  await user.keyboard('0,6{Enter}');
  expect(said()).toMatch(/^1 of 4 measured/);
  await user.keyboard('o{Enter}201{Enter}0.5w0.7{Enter}');
  expect(readings().map((r) => [r.position, r.entry])).toEqual([
    [1, '0,6'],
    [2, 'OL'],
    [3, '201'],
    [4, '0.5~0.7'],
  ]);
  expect(said()).toMatch(/2 is open.*3 is too high/);
  expect(screen.getByText('All read')).toBeTruthy();
});

test('what cannot be read stays in the field, and it says so there', async () => {
  const { user, field } = await open();
  await user.keyboard('1..2{Enter}');
  expect(readings()).toEqual([]);
  expect(field.value).toBe('1..2');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  const error = document.getElementById(field.getAttribute('aria-describedby') ?? '');
  expect(error?.textContent).toMatch(/\S/);
  await user.keyboard('{Escape}0.6{Enter}');
  expect(readings().map((r) => r.entry)).toEqual(['0.6']);
  expect(field.getAttribute('aria-invalid')).not.toBe('true');
});

test('a correction says which reading it takes the place of, and why', async () => {
  const { user } = await open({ entered: [{ id: 'first', position: 1, entry: '7' }] });
  await user.click(screen.getByRole('button', { name: /^cylinder 1,/ }));
  await user.click(screen.getByRole('button', { name: 'terminal cleaned' }));
  await user.keyboard('0.7{Enter}');
  expect(readings()).toMatchObject([{ position: 1, entry: '0.7', supersedes: 'first', why: 'terminal cleaned' }]);
});

test('a slip of the prefix is asked about; Enter again means it', async () => {
  const { user, field } = await open({
    entered: [
      { id: 'a', position: 1, entry: '0.6' },
      { id: 'b', position: 2, entry: '0.7' },
    ],
  });
  await user.keyboard('0.6k{Enter}');
  expect(readings()).toEqual([]);
  expect(field.value).toBe('0.6k');
  await user.keyboard('{Enter}');
  expect(readings()).toMatchObject([{ position: 3, entry: '0.6k' }]);
});

test('the lead zero is asked for first where it matters, and can be left out', async () => {
  const { user } = await open({ circumstance: { leadZero: null } });
  await user.keyboard('0.2{Enter}');
  expect(mockKept).toMatchObject([{ kind: 'circumstance', body: { leadZero: '0.2' } }]);
  await user.keyboard('0.6{Enter}');
  expect(readings()).toMatchObject([{ position: 1, entry: '0.6' }]);
});

test('what must be true is confirmed one by one with a key, while nothing is typed', async () => {
  const { user, field } = await open();
  const states = screen.getByRole('group', { name: 'What must be true now' });
  const open_ = () => within(states).getAllByRole('button', { pressed: false }).length;
  const before = open_();
  await user.keyboard('y');
  expect(open_()).toBe(before - 1);
  await user.keyboard('0y');
  expect(open_()).toBe(before - 1);
  expect(field.value).toBe('0y');
});

test('what was seen of the engine and of the command is noted beside the readings', async () => {
  const { user } = await open();
  await user.click(screen.getByRole('button', { name: 'Note what was seen of engine and command' }));
  await user.selectOptions(screen.getByLabelText('Engine'), 'idling');
  await user.selectOptions(screen.getByLabelText('Command on the scan tool'), 'off');
  await user.selectOptions(screen.getByLabelText('Engine'), '');
  expect(mockKept.map((i) => (i.kind === 'circumstance' ? i.body.condition : null))).toEqual([
    { partTemperature_degC: 8, engineSeen: 'idling' },
    { partTemperature_degC: 8, engineSeen: 'idling', commandSeen: 'off' },
    { partTemperature_degC: 8, commandSeen: 'off' },
  ]);
});

test('every post is a button with a name that says what stands there', async () => {
  await open({ entered: [{ id: 'a', position: 2, entry: '201' }] });
  const posts = within(screen.getByRole('region', { name: 'In line' })).getAllByRole('button');
  expect(posts.map((p) => p.textContent.split(/(?<=limit 1|measured)/)[0])).toEqual([
    'cylinder 1, not measured',
    'cylinder 2, 201 ohm, too high, limit 1',
    'cylinder 3, not measured',
    'cylinder 4, not measured',
  ]);
});

const ENTRIES = ['0.6', '0,7', 'OL', '201', '0.4~0.9', '4k5', '0R6', '>20M', '1..2', 'abc', '-', '0.6 V', '∞'];
const deed = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(...ENTRIES).map((entry) => ({ entry })) },
  fc.constantFrom('{ArrowDown}', '{ArrowUp}', '{Enter}', '{Escape}').map((key) => ({ key })),
);

test('whatever is typed in whatever order: it is kept once, as it was typed, or it is still in the field', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(deed, { minLength: 1, maxLength: 12 }), async (acts) => {
      const { user, field } = await open();
      for (const a of acts) {
        const before = readings().length;
        if ('key' in a) {
          const draft = field.value;
          await user.keyboard(a.key);
          // A key alone writes nothing but what stood in the field.
          for (const r of readings().slice(before)) expect(r.entry).toBe(draft);
          expect(readings().length - before).toBeLessThanOrEqual(1);
          if (a.key === '{Enter}' && draft !== '' && readings().length === before) expect(field.value).toBe(draft);
          continue;
        }
        await user.keyboard('{Escape}');
        await user.paste(a.entry);
        const typed = field.value;
        await user.keyboard('{Enter}');
        const written = readings().slice(before);
        expect([written.map((r) => r.entry), field.value]).toEqual(written.length ? [[typed], ''] : [[], typed]);
      }
      // Each reading names the one whose place it takes: no two stand at one position beside each other.
      const standing = new Map<unknown, string>();
      for (const r of readings()) {
        expect(r.supersedes).toBe(standing.get(r.position) ?? null);
        expect(r.why === null).toBe(r.supersedes === null);
        standing.set(r.position, r.id);
      }
      cleanup();
    }),
    { numRuns: 25, seed: 20261126 },
  );
});
