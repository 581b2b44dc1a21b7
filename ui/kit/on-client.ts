'use client';
import { useSyncExternalStore } from 'react';

const never = () => () => undefined;
/** False on the server and for the first paint, so that both draw the same. */
export const useOnClient = () => useSyncExternalStore(never, () => true, () => false);
