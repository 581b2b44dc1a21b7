/**
 * After `next build`: where several routes have a chunk of the same content under a name of its own, all of
 * them load one. Each route's part of the server is written anew otherwise, and every process reads and keeps
 * some sixty copies of it. See docs/decisions/0024-many-people-at-once.md.
 *
 *   tsx scripts/share-chunks.ts [DIST]
 */
import { createHash } from 'node:crypto';
import { readdir, readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';

const NAME = /server\/chunks\/[^"'\s]+?\.js/g;

/**
 * Makes the server of a build load one of equal chunks, and removes the others; returns how many those were.
 */
export async function shareChunks(dist: string): Promise<number> {
  const files = (await readdir(path.join(dist, 'server'), { recursive: true }))
    .map((name) => `server/${name}`)
    .filter((name) => /\.(?:js|json)$/.test(name))
    .toSorted();
  const instead = await equalChunks(
    dist,
    files.filter((name) => name.startsWith('server/chunks/') && name.endsWith('.js')),
  );
  for (const name of files) {
    if (instead.has(name)) continue;
    const text = await readFile(path.join(dist, name), 'utf8');
    const shared = text.replace(NAME, (chunk) => instead.get(chunk) ?? chunk);
    if (shared !== text) await writeFile(path.join(dist, name), shared);
  }
  for (const name of instead.keys()) await rm(path.join(dist, name));
  return instead.size;
}

/** By name of a chunk the one to load instead: the first of the same content. */
async function equalChunks(dist: string, names: readonly string[]): Promise<Map<string, string>> {
  const first = new Map<string, string>();
  const instead = new Map<string, string>();
  for (const name of names) {
    const hash = createHash('sha256')
      .update(await readFile(path.join(dist, name)))
      .digest('hex');
    const same = first.get(hash);
    if (same === undefined) first.set(hash, name);
    else instead.set(name, same);
  }
  return instead;
}

if (process.argv[1]?.endsWith('scripts/share-chunks.ts')) void shareChunks(process.argv[2] ?? '.next');
