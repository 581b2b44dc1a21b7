import { tr } from '../../core/locale/translate';
import { createHash } from 'node:crypto';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import yazl from 'yazl';
import { fail, ok, type Result } from '../../core/foundation/result';
import { MOST_ENTRIES, MOST_FILE_BYTES, MOST_UNPACKED_BYTES } from './limits';

/** What a bundle may hold: names are known, nothing else is unpacked. */
const NAMES =
  /^(manifest\.json|job\.json|readings\.csv|photos\/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}\.jpg|traces\/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}\/\d{1,3}-\d{1,5}\.bin)$/;

export const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** Packs files; names in the order given. */
export function packZip(files: ReadonlyMap<string, Buffer>): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  // Photos and blocks of recordings are packed already.
  for (const [name, bytes] of files)
    zip.addBuffer(bytes, name, { compress: !/\.(jpg|bin)$/.test(name), mtime: new Date('2020-01-01T00:00:00Z') });
  zip.end();
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    zip.outputStream
      .on('data', (c: Buffer) => chunks.push(c))
      .on('end', () => {
        resolve(Buffer.concat(chunks));
      })
      .on('error', reject);
  });
}

/**
 * Unpacks a bundle that anybody may have made: sizes are checked before and while it is unpacked, names
 * before anything is done with them.
 */
export async function unpackZip(bytes: Buffer): Promise<Result<Map<string, Buffer>, string>> {
  let zip: ZipFile;
  try {
    zip = await open(bytes);
  } catch {
    return fail('This is no zip file, or it is damaged.');
  }
  try {
    return await readAll(zip);
  } catch (error) {
    return fail(
      tr`The file is damaged or does not keep to its own sizes: ${error instanceof Error ? error.message : 'unreadable'}.`,
    );
  } finally {
    zip.close();
  }
}

const open = (bytes: Buffer): Promise<ZipFile> =>
  new Promise((resolve, reject) => {
    yauzl.fromBuffer(bytes, { lazyEntries: true, strictFileNames: true, validateEntrySizes: true }, (error, zip) => {
      if (error) reject(error);
      else resolve(zip);
    });
  });

async function readAll(zip: ZipFile): Promise<Result<Map<string, Buffer>, string>> {
  if (zip.entryCount > MOST_ENTRIES)
    return fail(tr`It holds ${zip.entryCount} files; a bundle has at most ${MOST_ENTRIES}.`);
  const files = new Map<string, Buffer>();
  let total = 0;
  for (let entry = await nextEntry(zip); entry; entry = await nextEntry(zip)) {
    const name = entry.fileName;
    const shown = name.replace(/[^\w./-]/g, '?').slice(0, 80);
    if (!NAMES.test(name)) return fail(tr`"${shown}" does not belong in a bundle.`);
    if (files.has(name)) return fail(tr`"${shown}" is in it twice.`);
    if (entry.isEncrypted()) return fail(tr`"${shown}" is encrypted.`);
    const most = MOST_FILE_BYTES[kindOf(name)];
    total += entry.uncompressedSize;
    if (entry.uncompressedSize > most || total > MOST_UNPACKED_BYTES)
      return fail(
        tr`"${shown}" would unpack to ${Math.round(entry.uncompressedSize / 1e6)} MB: more than a bundle can hold.`,
      );
    files.set(name, await readEntry(zip, entry, most));
  }
  return ok(files);
}

const kindOf = (name: string): keyof typeof MOST_FILE_BYTES =>
  name === 'manifest.json' ? 'manifest' : name.endsWith('.jpg') ? 'photo' : name.endsWith('.bin') ? 'block' : 'json';

const nextEntry = (zip: ZipFile): Promise<Entry | null> =>
  new Promise((resolve, reject) => {
    zip.removeAllListeners('entry').removeAllListeners('end').removeAllListeners('error');
    zip
      .once('entry', resolve)
      .once('end', () => {
        resolve(null);
      })
      .once('error', reject);
    zip.readEntry();
  });

const readEntry = (zip: ZipFile, entry: Entry, most: number): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) {
        reject(error);
        return;
      }
      const chunks: Buffer[] = [];
      let size = 0;
      stream
        .on('data', (c: Buffer) => {
          size += c.length;
          if (size > most) stream.destroy(new Error('more is packed than is said'));
          else chunks.push(c);
        })
        .on('end', () => {
          resolve(Buffer.concat(chunks));
        })
        .on('error', reject);
    });
  });
