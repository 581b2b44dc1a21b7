'use client';
import { type CSSProperties, type ReactNode, useEffect, useRef, useState } from 'react';

/** Below this there is no room beside the channel for more than entry and verdict. */
const TALL_PX = 200;

/** A post narrower than this has its mark drawn smaller, so that it stays clear of the words beside it. */
const FULL_MARK_PX = 112;
const markScale = (post_px: number): number => Math.min(1, Math.max(0.6, post_px / FULL_MARK_PX));

interface Size {
  readonly isTall: boolean;
  /** How wide one post is, in pixels. */
  readonly post: number;
}

/**
 * The box of a row of posts: it says how wide one post is (`--post-width`), and when there is the height for
 * all that they can say. Not by container queries: the size is found in more than one pass, and with each of
 * them the words of all posts were styled anew, put in and taken out, at every key.
 */
export function RowBox({ scale, posts, children }: { scale: ReactNode; posts: number; children: ReactNode }) {
  const row = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<Size | null>(null);
  useEffect(() => {
    const box = row.current;
    if (!box) return undefined;
    const watcher = new ResizeObserver(() => {
      const now = { isTall: box.clientHeight >= TALL_PX, post: box.clientWidth / Math.max(1, posts) };
      setSize((before) => (before?.isTall === now.isTall && before.post === now.post ? before : now));
    });
    watcher.observe(box);
    return () => watcher.disconnect();
  }, [posts]);
  return (
    <div data-tall={size?.isTall || undefined} className="post-row relative mt-1 flex min-h-44 flex-1 md:min-h-32">
      {scale}
      <div
        ref={row}
        className="relative flex min-w-0 flex-1"
        style={
          size ? ({ '--post-width': `${size.post}px`, '--mark': markScale(size.post) } as CSSProperties) : undefined
        }
      >
        {children}
      </div>
    </div>
  );
}
