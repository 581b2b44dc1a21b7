/** @jest-environment jsdom */
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { HeldForms, useBegun, useHeld } from './begun';

afterEach(cleanup);

function Form({ name }: { name: string }) {
  const [text, setText] = useState('');
  useBegun(text !== '');
  return (
    <>
      <input aria-label={name} value={text} onChange={(e) => setText(e.target.value)} />
      <button onClick={() => setText('')}>Keep</button>
    </>
  );
}
function Screen({ wanted }: { wanted: string }) {
  const { shown, isLeft, leave, count } = useHeld(wanted);
  return (
    <HeldForms count={count}>
      {isLeft && <button onClick={leave}>Leave it</button>}
      <Form key={shown} name={shown} />
      {shown === 'two forms' && <Form name="other" />}
    </HeldForms>
  );
}
const fields = () =>
  screen.getAllByRole('textbox').map((f) => [f.getAttribute('aria-label'), (f as HTMLInputElement).value]);

test('nothing begun: what is wanted is shown', () => {
  const { rerender } = render(<Screen wanted="codes" />);
  rerender(<Screen wanted="repair" />);
  expect(fields()).toEqual([['repair', '']]);
});

test('what is begun stays with all that was typed, until it is kept', async () => {
  const { rerender } = render(<Screen wanted="codes" />);
  await userEvent.type(screen.getByLabelText('codes'), 'P0203');
  rerender(<Screen wanted="repair" />);
  rerender(<Screen wanted="proof" />);
  expect(fields()).toEqual([['codes', 'P0203']]);
  await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
  expect(fields()).toEqual([['proof', '']]);
});

test('what is begun can be left, and what comes then is free to go', async () => {
  const { rerender } = render(<Screen wanted="codes" />);
  await userEvent.type(screen.getByLabelText('codes'), 'P0203');
  rerender(<Screen wanted="repair" />);
  await userEvent.click(screen.getByRole('button', { name: 'Leave it' }));
  expect(fields()).toEqual([['repair', '']]);
  rerender(<Screen wanted="proof" />);
  expect(fields()).toEqual([['proof', '']]);
});

test('of two forms the one that is kept first does not take the other one away', async () => {
  const { rerender } = render(<Screen wanted="two forms" />);
  await userEvent.type(screen.getByLabelText('two forms'), 'a');
  await userEvent.type(screen.getByLabelText('other'), 'b');
  rerender(<Screen wanted="repair" />);
  const [first] = screen.getAllByRole('button', { name: 'Keep' });
  act(() => first?.click());
  expect(fields()).toEqual([
    ['two forms', ''],
    ['other', 'b'],
  ]);
});
