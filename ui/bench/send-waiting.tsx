'use client';
import { useEffect } from 'react';
import { flush } from './outbox';

/** On every page: what the bench has kept in this browser goes to the server, whichever page is open. */
export function SendWaiting() {
  useEffect(() => void flush().catch(() => undefined), []);
  return null;
}
