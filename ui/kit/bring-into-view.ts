/**
 * Scrolls to an element that is not clear in view: on a phone the entry bar covers the lower half of the
 * page, and the element's scroll margin says so. Where it is, is told by an observer after the next frame: to
 * ask for it at once would have the page laid out twice for each entry. Answers how to call it off.
 */
export function bringIntoView(element: Element): () => void {
  const observer = new IntersectionObserver((seen) => {
    observer.disconnect();
    if (seen.some((s) => !isClear(s))) element.scrollIntoView({ block: 'nearest' });
  });
  observer.observe(element);
  return () => observer.disconnect();
}

function isClear({
  target,
  intersectionRatio,
  boundingClientRect: box,
  rootBounds,
}: IntersectionObserverEntry): boolean {
  // A box that is cut off by a hundredth of a pixel is in view.
  if (intersectionRatio < 0.99 || rootBounds === null) return false;
  const { scrollMarginTop, scrollMarginBottom } = getComputedStyle(target);
  return (
    box.top >= rootBounds.top + Number.parseFloat(scrollMarginTop) &&
    box.bottom <= rootBounds.bottom - Number.parseFloat(scrollMarginBottom)
  );
}
