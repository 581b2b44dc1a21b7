import { type RefObject, useCallback, useRef } from 'react';

/**
 * What is picked in a list stands beside it, and on a narrow screen far beneath it: then it is brought into
 * view, and read out from its head.
 */
export function useDetail<T extends HTMLElement>(): [RefObject<T | null>, () => void] {
  const detail = useRef<T>(null);
  const show = useCallback(
    () =>
      requestAnimationFrame(() => {
        const at = detail.current;
        if (!at || at.getBoundingClientRect().top < window.innerHeight / 2) return;
        at.focus({ preventScroll: true });
        at.scrollIntoView({ block: 'start' });
      }),
    [],
  );
  return [detail, show];
}
