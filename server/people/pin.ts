import { hash, verify } from '@node-rs/argon2';

/** OWASP's first choice for argon2id (19 MiB, 2 passes, 1 lane), written from memory. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** A PIN or password as it is kept: argon2id with a salt of its own. */
export const hashPin = (pin: string): Promise<string> => hash(pin, COST);

export const checkPin = (hashed: string, pin: string): Promise<boolean> => verify(hashed, pin).catch(() => false);

/** Those that anybody tries first; a PIN is short, so it may not be one of them. */
export function weakPin(pin: string): string | null {
  if (/^(.)\1*$/.test(pin)) return 'All the same is too easy to guess.';
  if (/^(.{2,4})\1+$/.test(pin)) return 'The same again and again is too easy to guess.';
  if (/^\d+$/.test(pin) && new Set(pin).size < 3) return 'Two digits alone are too easy to guess.';
  if ('01234567890123456789'.includes(pin) || '98765432109876543210'.includes(pin))
    return 'Digits in a row are too easy to guess.';
  return null;
}
