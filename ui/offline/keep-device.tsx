'use client';
import { useEffect } from 'react';
import { answerWithoutServer, onAccepted } from '../kit/send';
import { usePerson } from '../kit/session';
import { answerOnDevice, noteAccepted, openAfterLoss, refreshCopy } from './device';
import { keptCopy, setPersonAtBench } from './device-store';
import { unlocked } from './outbox';
import { keepAwake, unlockByServer } from './vault';

/** A copy that is younger is good enough to begin with. */
const FRESH_ms = 2 * 60_000;
const EVERY_ms = 5 * 60_000;

/** The page itself goes before. */
const idle = (): Promise<void> =>
  new Promise((done) => {
    setTimeout(done, 500);
  });

/**
 * On every page that comes from the server: keeps the application and the day's work on this device, so that
 * it goes on when the server is gone. Only in a secure context: elsewhere a browser keeps no application.
 */
export function KeepDevice() {
  const person = usePerson();
  useEffect(() => {
    if (person === '' || !('serviceWorker' in navigator) || !window.isSecureContext) return undefined;
    let isGone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const renew = async (): Promise<void> => {
      const copy = await keptCopy();
      const age_ms = Date.now() - (copy?.fetchedAt ?? 0);
      if (document.visibilityState === 'visible' && age_ms > FRESH_ms) await refreshCopy();
      if (!isGone) timer = setTimeout(() => void renew(), EVERY_ms);
    };
    const begin = async (): Promise<void> => {
      if (!(await unlockByServer()) || isGone) return;
      void unlocked();
      await setPersonAtBench(person);
      answerWithoutServer(async (request) => ((await openAfterLoss()) ? answerOnDevice(request, person) : null));
      await idle();
      // Not thrown away when the device runs out of room, where the browser agrees.
      if ('storage' in navigator) void navigator.storage.persist().catch(() => false);
      await navigator.serviceWorker.register('/device/service-worker.js', { scope: '/' });
      await renew();
    };
    void begin().catch(() => undefined);
    const stopNoting = onAccepted((request) => void noteAccepted(request, person));
    const sleep = keepAwake();
    return () => {
      isGone = true;
      clearTimeout(timer);
      stopNoting();
      sleep();
      answerWithoutServer(null);
    };
  }, [person]);
  return null;
}
