import { type BodyOf } from './common';

/** What a device has saved when it was wiped or given up: sealed with the key that the server has for it. */
export const OPEN_WAITING = {
  type: 'object',
  additionalProperties: false,
  required: ['format', 'version', 'device', 'items'],
  properties: {
    format: { const: 'mudflat/sealed-waiting' },
    version: { const: 1 },
    // Empty: over plain HTTP a device has no key, and nothing is sealed.
    device: { type: 'string', pattern: '^([0-9a-f]{32})?$' },
    items: { type: 'array', maxItems: 5000, items: { type: 'object' } },
  },
} as const;
export type OpenWaiting = BodyOf<typeof OPEN_WAITING, object>;
