/**
 * What lies on this device is encrypted with a key that is only in memory: AES-GCM of Web Crypto, a fresh
 * 96-bit nonce for each message (NIST SP 800-38D).
 */
export interface Sealed {
  readonly iv: Uint8Array<ArrayBuffer>;
  readonly data: ArrayBuffer;
}

const NONCE_bytes = 12;

let key: CryptoKey | null = null;

export const isUnlocked = (): boolean => key !== null;
export const currentKey = (): CryptoKey | null => key;
export function holdKey(next: CryptoKey | null): void {
  key = next;
}

/** Web Crypto is there in a secure context only. */
export const canSeal = (): boolean => typeof crypto !== 'undefined' && 'subtle' in crypto;

export const importKey = (raw: BufferSource): Promise<CryptoKey> =>
  crypto.subtle.importKey('raw', raw, 'AES-GCM', true, ['encrypt', 'decrypt']);

export async function sealWith(with_: CryptoKey, plain: BufferSource): Promise<Sealed> {
  const iv = crypto.getRandomValues(new Uint8Array(NONCE_bytes));
  return { iv, data: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, with_, plain) };
}

/** Rejects where it was not sealed with this key. */
export const openWith = (with_: CryptoKey, { iv, data }: Sealed): Promise<ArrayBuffer> =>
  crypto.subtle.decrypt({ name: 'AES-GCM', iv }, with_, data);
