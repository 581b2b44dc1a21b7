/** @jest-environment jsdom */
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Chips, Choice } from './chips';
import { Dialog, FormDialog } from './dialog';
import { Field, inputLook, tie } from './field';
import { RoomLeft } from './room-left';
import { Sideways } from './sideways';

const watched: (() => void)[] = [];
beforeAll(() => {
  Object.assign(globalThis, {
    matchMedia: () => ({ matches: false }),
    ResizeObserver: class {
      constructor(tell: () => void) {
        watched.push(tell);
      }
      observe = () => undefined;
      unobserve = () => undefined;
      disconnect = () => undefined;
    },
  });
});
afterEach(cleanup);

const SEASONS = [
  ['a', 'Accepted'],
  ['d', 'Declined'],
  ['l', 'Deferred'],
] as const;

function OneOf({ tell }: { tell: (chosen: string) => void }) {
  const [value, setValue] = useState<'a' | 'd' | 'l' | null>(null);
  return (
    <Choice
      label="Answer"
      options={SEASONS}
      value={value}
      onChange={(chosen) => {
        setValue(chosen);
        tell(chosen);
      }}
    />
  );
}

test('one of a few: one stop of the Tab key, the arrows choose, the group has a name', async () => {
  const told: string[] = [];
  const user = userEvent.setup();
  render(
    <>
      <OneOf tell={(c) => told.push(c)} />
      <button type="button">after</button>
    </>,
  );
  expect(screen.getByRole('radiogroup', { name: 'Answer' })).toBeTruthy();
  await user.tab();
  expect(document.activeElement?.textContent).toBe('Accepted');
  await user.keyboard(' ');
  // Held for a moment, as a finger does: the focus follows while it is down.
  await user.keyboard('{ArrowRight>}');
  await waitFor(() => expect(document.activeElement?.textContent).toBe('Declined'));
  await user.keyboard('{/ArrowRight}');
  expect(told).toEqual(['a', 'd']);
  expect(screen.getByRole('radio', { name: 'Declined' }).getAttribute('aria-checked')).toBe('true');
  await user.tab();
  expect(document.activeElement?.textContent).toBe('after');
});

test('several of a few: each is a switch that says whether it is on', async () => {
  const user = userEvent.setup();
  function SeveralOf() {
    const [chosen, setChosen] = useState<readonly string[]>(['hot']);
    return <Chips label="When" all={['cold', 'hot']} chosen={chosen} onChange={setChosen} />;
  }
  render(<SeveralOf />);
  const pressed = (): string[] => screen.getAllByRole('button', { pressed: true }).map((b) => b.textContent);
  expect(pressed()).toEqual(['hot']);
  await user.click(screen.getByRole('button', { name: 'cold' }));
  expect(pressed()).toEqual(['cold', 'hot']);
  await user.click(screen.getByRole('button', { name: 'hot' }));
  expect(pressed()).toEqual(['cold']);
});

test('an error is told at its field, to eyes and to screen readers', () => {
  const { rerender } = render(
    <Field id="hours" label="Hours" error="Hours are a number, such as 902.">
      <input {...tie('hours', 'Hours are a number, such as 902.')} className={inputLook} />
    </Field>,
  );
  const field = screen.getByRole('textbox', { name: 'Hours' });
  const described = (): string | undefined =>
    document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent;
  expect([field.getAttribute('aria-invalid'), described()]).toEqual(['true', 'Hours are a number, such as 902.']);
  rerender(
    <Field id="hours" label="Hours">
      <input {...tie('hours', undefined)} className={inputLook} />
    </Field>,
  );
  expect([field.getAttribute('aria-invalid'), described()]).toEqual(['false', undefined]);
});

test('a dialog: its first field has the focus, Escape closes it, and the focus goes back', async () => {
  const user = userEvent.setup();
  function Asks() {
    const [open, setOpen] = useState(false);
    return (
      <>
        <button type="button" onClick={() => setOpen(true)}>
          New job
        </button>
        {open && (
          <Dialog onClose={() => setOpen(false)} title="New job" description="What brings it in?">
            <input aria-label="Complaint" />
            <button type="button">Keep</button>
          </Dialog>
        )}
      </>
    );
  }
  render(<Asks />);
  await user.click(screen.getByRole('button', { name: 'New job' }));
  expect(screen.getByRole('dialog', { name: 'New job' })).toBeTruthy();
  await user.keyboard('Slow to start');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Complaint' }).value).toBe('Slow to start');
  await user.keyboard('{Escape}');
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(document.activeElement?.textContent).toBe('New job');
});

test('a form over the page: Enter sends it, the browser neither leaves the page nor says what is wrong', async () => {
  const user = userEvent.setup();
  const sent: unknown[] = [];
  let closed = 0;
  render(
    <FormDialog
      title="New unit"
      onClose={() => {
        closed += 1;
      }}
      onSubmit={(form) => sent.push(new FormData(form).get('number'))}
    >
      <input name="number" aria-label="Fleet number" required />
    </FormDialog>,
  );
  await user.keyboard('{Enter}');
  expect(sent).toEqual(['']);
  await user.keyboard('PL-7{Enter}');
  expect([sent, closed]).toEqual([['', 'PL-7'], 0]);
  await user.click(screen.getByRole('button', { name: 'Close' }));
  expect([sent.length, closed]).toEqual([2, 1]);
});

test('what is wider than the glass is a stop of the Tab key; what is not is none', () => {
  const wide = (scroll: number, client: number): void => {
    Object.defineProperty(Element.prototype, 'scrollWidth', { value: scroll, configurable: true });
    Object.defineProperty(Element.prototype, 'clientWidth', { value: client, configurable: true });
  };
  render(<Sideways name="Drawing">{<svg />}</Sideways>);
  // Before it is measured it can be moved by the keyboard.
  expect(screen.getByRole('group', { name: 'Drawing' }).tabIndex).toBe(0);
  wide(300, 390);
  act(() => watched.at(-1)?.());
  expect(screen.queryByRole('group', { name: 'Drawing' })).toBeNull();
  wide(900, 390);
  act(() => watched.at(-1)?.());
  expect(screen.getByRole('group', { name: 'Drawing' }).tabIndex).toBe(0);
});

test('a field that takes no more says so before, and says what was cut', async () => {
  const user = userEvent.setup();
  render(
    <>
      <input aria-label="Short" maxLength={20} />
      <input aria-label="Free" />
      <RoomLeft />
    </>,
  );
  await user.type(screen.getByLabelText('Short'), 'twelve chars');
  expect(screen.queryByText(/characters left/)).toBeNull();
  await user.type(screen.getByLabelText('Short'), ' more');
  expect(screen.getByText('3 characters left.')).toBeTruthy();
  await user.paste(' than fits');
  expect(screen.getByText('It was cut: 0 characters left.')).toBeTruthy();
  await user.type(screen.getByLabelText('Free'), 'x');
  expect(screen.queryByText(/characters left/)).toBeNull();
});
