/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import type { StageId } from '../../core/job/progress';
import { useOpenWork } from './begun-work';

function open(first: StageId | null) {
  let props: { own: StageId | null; seen: number } = { own: first, seen: 0 };
  const { result, rerender } = renderHook(({ own, seen }) => useOpenWork(own, seen), { initialProps: props });
  return {
    now: () => [result.current.id, result.current.isLeft],
    /** The server sends the job again, at this stage. */
    moves: (own: StageId | null) => rerender((props = { own, seen: props.seen + 1 })),
    type: () => act(() => result.current.watch.onInput()),
    submit: () => act(() => result.current.watch.onSubmit()),
    leave: () => act(() => result.current.leave()),
  };
}

test('the work of the stage that is next stands open, and follows the job while nothing is begun', () => {
  const work = open('codes');
  expect(work.now()).toEqual(['codes', false]);
  work.moves('repair');
  expect(work.now()).toEqual(['repair', false]);
  work.moves(null);
  expect(work.now()).toEqual([null, false]);
});

test('what has been begun stays when the job moves on, until it is kept', () => {
  const work = open('codes');
  work.type();
  work.moves('repair');
  work.moves(null);
  expect(work.now()).toEqual(['codes', true]);
  work.submit();
  // Not before the server has answered: it may have refused it.
  expect(work.now()).toEqual(['codes', true]);
  work.moves('repair');
  expect(work.now()).toEqual(['repair', false]);
});

test('what the server refused can be typed on', () => {
  const work = open('codes');
  work.type();
  work.submit();
  work.type();
  work.moves('repair');
  expect(work.now()).toEqual(['codes', true]);
});

test('what was begun can be left', () => {
  const work = open('codes');
  work.type();
  work.moves('proof');
  work.leave();
  expect(work.now()).toEqual(['proof', false]);
});
