'use client';
import { useTheme } from 'next-themes';
import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import type { TraceView } from '../../application/views';
import type { TraceChart } from './draw';
import type { Marked, Window_s } from './scene';
import type { TraceData } from './trace-data';

/** Closer than this no recording is looked at. */
const CLOSEST_s = 1e-5;

export interface Shown {
  readonly data: TraceData | null;
  readonly failed: string | null;
  readonly window_s: Window_s | null;
  readonly move: (change: (now: Window_s, whole: Window_s) => Window_s) => void;
  readonly at: (x: number, y: number) => { readonly t_s: number; readonly onStrip: boolean } | null;
}

/**
 * The chart of a recording in an element: opened once, drawn at most once a frame. The drawing library comes
 * with the first recording that is opened, not before.
 */
export function useChart(view: TraceView, element: RefObject<HTMLDivElement | null>, marked: Marked): Shown {
  const { theme } = useTheme();
  const chart = useRef<TraceChart | null>(null);
  const [data, setData] = useState<TraceData | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [window_s, setWindow] = useState<Window_s | null>(null);
  const latest = useRef({ window_s, marked });
  const frame = useRef(0);
  const [, setArrived] = useState(0);
  const draw = useCallback(() => {
    frame.current ||= requestAnimationFrame(() => {
      frame.current = 0;
      const now = latest.current;
      if (chart.current && now.window_s) chart.current.show(now.window_s, now.marked);
    });
  }, []);
  useEffect(() => {
    latest.current = { window_s, marked };
    draw();
  });
  useEffect(() => {
    let isGone = false;
    const resized = new ResizeObserver(() => {
      chart.current?.resize();
      draw();
    });
    async function open(): Promise<void> {
      const [{ TraceChart: Chart }, { TraceData: Data }] = await Promise.all([
        import('./draw'),
        import('./trace-data'),
      ]);
      const opened = await Data.open(view, () => {
        // What the cursor reads is drawn by the page, the lanes by the chart.
        setArrived((n) => n + 1);
        draw();
      });
      if (isGone || !element.current) return;
      chart.current = new Chart(element.current, opened);
      resized.observe(element.current);
      setData(opened);
      setWindow({ from_s: opened.from_s, to_s: opened.to_s });
    }
    open().catch((error: unknown) => {
      if (!isGone) setFailed(error instanceof Error ? error.message : String(error));
    });
    return () => {
      isGone = true;
      resized.disconnect();
      chart.current?.dispose();
      chart.current = null;
    };
    // A mark of somebody changes the view and nothing of the samples.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [view.id]);
  useEffect(() => {
    chart.current?.recolour();
    draw();
  }, [theme, draw]);

  const move = useCallback<Shown['move']>(
    (change) => {
      if (!data) return;
      const whole = { from_s: data.from_s, to_s: data.to_s };
      setWindow((now) => within(change(now ?? whole, whole), whole));
    },
    [data],
  );
  return { data, failed, window_s, move, at: (x, y) => chart.current?.at(x, y) ?? null };
}

/** A window that lies in the recording and is neither too narrow nor turned round. */
function within({ from_s, to_s }: Window_s, whole: Window_s): Window_s {
  const span = Math.min(whole.to_s - whole.from_s, Math.max(CLOSEST_s, to_s - from_s));
  const from = Math.min(whole.to_s - span, Math.max(whole.from_s, from_s));
  return { from_s: from, to_s: from + span };
}

/** A window about a moment, `share` as wide as it was. */
export const zoomed = ({ from_s, to_s }: Window_s, about_s: number, share: number): Window_s => ({
  from_s: about_s - (about_s - from_s) * share,
  to_s: about_s + (to_s - about_s) * share,
});

export const shifted = ({ from_s, to_s }: Window_s, by: number): Window_s => ({
  from_s: from_s + by * (to_s - from_s),
  to_s: to_s + by * (to_s - from_s),
});

/** Wide enough to see a finding and what was around it. */
export function around(from_s: number, to_s: number): Window_s {
  const span = Math.max(8 * (to_s - from_s), 2);
  const middle = (from_s + to_s) / 2;
  return { from_s: middle - span / 2, to_s: middle + span / 2 };
}
