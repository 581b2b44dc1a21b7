/** @jest-environment jsdom */
import { bringIntoView } from './bring-into-view';

type Seen = Pick<IntersectionObserverEntry, 'intersectionRatio'> & { readonly top: number; readonly bottom: number };

let tell: (seen: Seen) => void;
let isObserving: boolean;
beforeEach(() => {
  isObserving = false;
  Object.assign(globalThis, {
    IntersectionObserver: class {
      constructor(private readonly callback: (entries: object[]) => void) {}
      observe(target: Element) {
        isObserving = true;
        tell = ({ intersectionRatio, top, bottom }) => {
          if (isObserving)
            this.callback([
              { target, intersectionRatio, boundingClientRect: { top, bottom }, rootBounds: { top: 0, bottom: 800 } },
            ]);
        };
      }
      disconnect() {
        isObserving = false;
      }
    },
  });
});

/** How often it was scrolled to, once the observer has told where it is. */
function scrolls(seen: Seen, margin = '0px', isCalledOff = false): number {
  const element = document.createElement('div');
  element.style.setProperty('scroll-margin-top', margin);
  element.style.setProperty('scroll-margin-bottom', margin);
  document.body.append(element);
  let times = 0;
  element.scrollIntoView = () => (times += 1);
  const callOff = bringIntoView(element);
  if (isCalledOff) callOff();
  tell(seen);
  return times;
}

it.each([
  ['all of it is in view', { intersectionRatio: 1, top: 100, bottom: 300 }, '0px', 0],
  ['it is cut off', { intersectionRatio: 0.6, top: 700, bottom: 900 }, '0px', 1],
  ['it is out of view', { intersectionRatio: 0, top: 900, bottom: 1100 }, '0px', 1],
  ['its margin above is covered', { intersectionRatio: 1, top: 40, bottom: 300 }, '64px', 1],
  ['its margin below is covered', { intersectionRatio: 1, top: 500, bottom: 760 }, '64px', 1],
  ['it is clear of its margins', { intersectionRatio: 1, top: 64, bottom: 736 }, '64px', 0],
] as const)('scrolls only where it must: %s', (_, seen, margin, times) => {
  expect(scrolls(seen, margin)).toBe(times);
});

it('looks once, and does nothing once it was called off', () => {
  scrolls({ intersectionRatio: 1, top: 100, bottom: 300 });
  expect(isObserving).toBe(false);
  expect(scrolls({ intersectionRatio: 0, top: 900, bottom: 1100 }, '0px', true)).toBe(0);
});
