/**
 * Does it in the first task behind the next frame, when what has changed is on the screen and laid out. Answers how to
 * call it off. In a page that nobody sees there are no frames: it is done when the page is seen again.
 */
export function afterNextFrame(action: () => void): () => void {
  let task: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => {
    task = setTimeout(action);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(task);
  };
}
