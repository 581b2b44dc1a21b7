'use client';
import { useRouter as useNextRouter } from 'next/navigation';
import { createContext, useContext, useMemo } from 'react';

/** Where a screen can go: over the server's pages, or over the device's own while there is no server. */
export interface Router {
  readonly push: (address: string) => void;
  /** Without a new entry in the history, and without scrolling. */
  readonly replace: (address: string) => void;
  /** Draws the page anew with what is there now. */
  readonly refresh: () => void;
}

/** Set by the page that draws from the device. */
export const DeviceRouter = createContext<Router | null>(null);

export function useRouter(): Router {
  const server = useNextRouter();
  const device = useContext(DeviceRouter);
  return useMemo(
    () =>
      device ?? {
        push: (address) => server.push(address),
        replace: (address) => server.replace(address, { scroll: false }),
        refresh: () => server.refresh(),
      },
    [device, server],
  );
}

/** Whether this page is drawn from the device. */
export const useIsOnDevice = (): boolean => useContext(DeviceRouter) !== null;
