/** Stands in for `node:crypto` on a device: what the bundled commands use of it. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

export function createHash(name: string) {
  if (name !== 'sha256') throw new Error(`no ${name} on this device`);
  const hash = sha256.create();
  const chain = {
    update: (part: string | Uint8Array) => {
      hash.update(typeof part === 'string' ? utf8ToBytes(part) : part);
      return chain;
    },
    digest: (as: 'hex' | 'base64'): string => {
      if (as !== 'hex') throw new Error('only hex on this device');
      return bytesToHex(hash.digest());
    },
  };
  return chain;
}
