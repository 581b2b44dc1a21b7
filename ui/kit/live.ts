'use client';
import { useEffect, useRef } from 'react';
import { useIsOnDevice } from './router';

/** What is told of a write by anybody: which kind of row, of which run. */
export interface Heard {
  readonly kind: string;
  readonly run: string | null;
  readonly row: string;
}

/** Many writes at one moment are looked at once. */
const CALM_ms = 150;
/** Something may have been missed: look again. */
const MISSED: Heard = { kind: 'reconnected', run: null, row: '' };

/**
 * Calls back soon after anybody wrote into the job. The connection mends itself. A page that nobody sees does
 * not follow: a browser holds few connections to one server, and many tabs would use them up.
 */
export function useLive(jobId: string, onHeard: (heard: readonly Heard[]) => void): void {
  const isOnDevice = useIsOnDevice();
  const latest = useRef(onHeard);
  useEffect(() => {
    latest.current = onHeard;
  });
  useEffect(() => {
    if (isOnDevice || typeof EventSource === 'undefined') return undefined;
    let source: EventSource | null = null;
    let timer: ReturnType<typeof setTimeout> | null = null;
    let heard: Heard[] = [];
    const hear = (one: Heard): void => {
      heard.push(one);
      timer ??= setTimeout(() => {
        timer = null;
        const all = heard;
        heard = [];
        latest.current(all);
      }, CALM_ms);
    };
    const follow = (): void => {
      source = new EventSource(`/api/jobs/${jobId}/live`);
      source.onmessage = ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as Heard);
    };
    const stop = (): void => {
      source?.close();
      source = null;
    };
    const onVisibility = (): void => {
      if (document.visibilityState === 'hidden') return stop();
      if (source === null) {
        follow();
        hear(MISSED);
      }
    };
    document.addEventListener('visibilitychange', onVisibility);
    follow();
    return () => {
      document.removeEventListener('visibilitychange', onVisibility);
      if (timer) clearTimeout(timer);
      stop();
    };
  }, [jobId, isOnDevice]);
}
