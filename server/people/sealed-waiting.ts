import { createDecipheriv } from 'node:crypto';
import { ok, type Result } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import type { OpenWaiting } from '../../formats/requests/waiting';
import { refuse } from '../db/refusal';
import { deviceKey } from './known-device';

/** AES-GCM of Web Crypto puts its tag of 128 bits behind the text. */
const TAG_bytes = 16;

/**
 * What a device has saved, opened: the items in their order, as the outbox of a browser packs them. What was
 * not sealed is given back as it is.
 */
export function openWaiting({ device, items }: OpenWaiting): Result<{ items: readonly unknown[] }, ProblemDetails> {
  const key = deviceKey(device);
  const opened: unknown[] = [];
  for (const [i, row] of items.entries()) {
    const item = 'sealed' in row ? unseal(key, row.sealed) : row;
    if (item === null)
      return refuse('It does not open.', [
        {
          path: `/items/${i}`,
          message: 'This entry was saved by a device of another installation, or the file was changed.',
        },
      ]);
    opened.push(item);
  }
  return ok({ items: opened });
}

function unseal(key: Buffer, sealed: unknown): unknown {
  const [iv, data] = [bytesIn(sealed, 'iv'), bytesIn(sealed, 'data')];
  if (!iv || !data || data.length < TAG_bytes) return null;
  try {
    const decipher = createDecipheriv('aes-256-gcm', key, iv);
    decipher.setAuthTag(data.subarray(-TAG_bytes));
    const plain = Buffer.concat([decipher.update(data.subarray(0, -TAG_bytes)), decipher.final()]);
    return JSON.parse(plain.toString('utf8'));
  } catch {
    return null;
  }
}

function bytesIn(of: unknown, name: string): Buffer | null {
  const field = of !== null && typeof of === 'object' ? (of as Record<string, unknown>)[name] : null;
  const text = field !== null && typeof field === 'object' ? (field as { base64?: unknown }).base64 : null;
  return typeof text === 'string' ? Buffer.from(text, 'base64') : null;
}
