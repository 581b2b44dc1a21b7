'use client';
import { useEffect, useRef } from 'react';

/** What is told of a write by anybody: which kind of row, of which run. */
export interface Heard {
  readonly kind: string;
  readonly run: string | null;
  readonly row: string;
}

/** Many writes at one moment are looked at once. */
const CALM_ms = 150;

/** Calls back soon after anybody wrote into the job. The connection mends itself. */
export function useLive(jobId: string, onHeard: (heard: readonly Heard[]) => void): void {
  const latest = useRef(onHeard);
  useEffect(() => { latest.current = onHeard; });
  useEffect(() => {
    if (typeof EventSource === 'undefined') return undefined;
    const source = new EventSource(`/api/jobs/${jobId}/live`);
    let timer: ReturnType<typeof setTimeout> | null = null;
    let heard: Heard[] = [];
    source.onmessage = ({ data }: MessageEvent<string>) => {
      heard.push(JSON.parse(data) as Heard);
      timer ??= setTimeout(() => {
        timer = null;
        const all = heard;
        heard = [];
        latest.current(all);
      }, CALM_ms);
    };
    return () => {
      if (timer) clearTimeout(timer);
      source.close();
    };
  }, [jobId]);
}
