/** @jest-environment jsdom */
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ComponentProps } from 'react';
import type { RepairRecord } from '../../core/repair/types';
import { ValueTick } from './tick';

const mockWritten: RepairRecord[] = [];
let mockTaken = true;
jest.mock('./use-record', () => ({
  useRecord: () => ({
    busy: false,
    problems: mockTaken ? [] : [{ path: '/record/value', message: 'This is no torque.' }],
    write: (record: RepairRecord) => {
      mockWritten.push(record);
      return Promise.resolve(mockTaken);
    },
  }),
}));

type Props = ComponentProps<typeof ValueTick>;
const step = {
  id: 'torque',
  text: 'Tighten',
  value: { what: 'torque', quantity: 'torque' },
} as unknown as Props['step'];
const at = (...positions: number[]): Props['open'] => positions.map((position) => ({ step, position }));
let done = 0;
const show = (open: Props['open'], written: readonly string[] = []) =>
  render(
    <ValueTick
      view={
        {
          job: { id: 'job' },
          repair: { records: written.map((value) => ({ body: { kind: 'step', step: 'x', value } })) },
        } as unknown as Props['view']
      }
      finding={{ id: 'finding' } as Props['finding']}
      sequence={{ id: 'glow-plugs' } as Props['sequence']}
      step={step}
      open={open}
      tool="wrench 3"
      onDone={() => {
        done += 1;
      }}
    />,
  );

beforeEach(() => {
  mockWritten.length = 0;
  mockTaken = true;
  done = 0;
});
afterEach(cleanup);

const positions = (): unknown => mockWritten.map((r) => ('ticks' in r ? r.ticks.map((t) => t.position) : null));

test('one value goes to all positions that are left, with its unit and the tool', async () => {
  const user = userEvent.setup();
  show(at(2, 3, 5));
  await user.type(screen.getByRole('textbox', { name: /torque, all/ }), '18{Enter}');
  expect(mockWritten).toMatchObject([{ kind: 'ticks', value: '18 Nm', tool: 'wrench 3' }]);
  expect([positions(), done]).toEqual([[[2, 3, 5]], 1]);
});

test('one by one it goes to the next position only', async () => {
  const user = userEvent.setup();
  show(at(2, 3));
  await user.click(screen.getByRole('checkbox', { name: 'one by one' }));
  await user.type(screen.getByRole('textbox', { name: /torque, cylinder 2/ }), '17.5{Enter}');
  expect([positions(), mockWritten]).toMatchObject([[[2]], [{ value: '17.5 Nm' }]]);
});

test('a bare number has the unit in which a torque was written last, whatever else was written since', async () => {
  const user = userEvent.setup();
  show(at(4), ['20 Nm', '22.1 lbf ft', '90°', '0.3 mm']);
  await user.type(screen.getByRole('textbox'), '28{Enter}');
  expect(mockWritten).toMatchObject([{ value: '28 lbf ft' }]);
});

test('what was left out says why, and names neither value nor tool', async () => {
  const user = userEvent.setup();
  show(at(4));
  expect(screen.queryByRole('checkbox')).toBeNull();
  await user.type(screen.getByRole('textbox'), '18');
  await user.click(screen.getByRole('button', { name: 'torque: not measured' }));
  expect(mockWritten).toMatchObject([{ left: 'not measured' }]);
  expect(mockWritten[0]).not.toHaveProperty('value');
  expect(mockWritten[0]).not.toHaveProperty('tool');
});

test('a value that is refused stays in its field, with what is wrong beside it', async () => {
  mockTaken = false;
  const user = userEvent.setup();
  show(at(4));
  await user.type(screen.getByRole('textbox'), '18 V{Enter}');
  expect([screen.getByRole<HTMLInputElement>('textbox').value, done]).toEqual(['18 V', 0]);
  expect(screen.getByRole('alert').textContent).toBe('This is no torque.');
});
