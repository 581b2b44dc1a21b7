/**
 * Builds what a device needs to go on without the server, beside the application's own build: the server's
 * rooms as one worker, the database that it starts with, and the service worker that keeps all of it on the
 * device.
 *
 *   tsx scripts/build-device.ts [DIST]
 */
import { createHash } from 'node:crypto';
import { copyFile, mkdir, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { build, type Plugin } from 'esbuild';

const dist = process.argv[2] ?? '.next';
const out = path.join(dist, 'device');
const MIGRATIONS = 'server/db/migrations';
const PGLITE = 'node_modules/@electric-sql/pglite/dist';

/** What a device has another way for. Everything else of the server runs there as it is. */
const STAND_INS: Readonly<Record<string, string>> = {
  'server/db/connection': 'device/connection.ts',
  'server/people/sign-in': 'device/who.ts',
  'server/evidence/draw-photo': 'device/draw-photo.ts',
  'server/journal/made-at': 'device/made-at.ts',
  'node:crypto': 'device/hash.ts',
};

/** Asked for by packages that run in Node as well, and by nobody in a browser. */
const NODE_ONLY = /^(?:node:.*|fs|path|url|module|crypto|stream|zlib|worker_threads)$/;

const standIns: Plugin = {
  name: 'stand-ins',
  setup: (its) => {
    its.onResolve({ filter: NODE_ONLY }, ({ path: wanted }) =>
      STAND_INS[wanted] ? undefined : { path: wanted, namespace: 'nothing' },
    );
    its.onLoad({ filter: /.*/, namespace: 'nothing' }, () => ({ contents: 'module.exports = {};', loader: 'js' }));
    its.onResolve({ filter: /.*/ }, ({ path: wanted, resolveDir, importer }) => {
      const whole = wanted.startsWith('@/')
        ? wanted.slice(2)
        : wanted.startsWith('.')
          ? path.relative(process.cwd(), path.resolve(resolveDir, wanted))
          : wanted;
      const other = STAND_INS[whole];
      return other && !importer.includes('node_modules') ? { path: path.resolve(other) } : undefined;
    });
  },
};

async function bundle(from: string, to: string, define: Readonly<Record<string, string>> = {}): Promise<void> {
  await build({
    entryPoints: [from],
    outfile: path.join(out, to),
    bundle: true,
    minify: true,
    format: 'esm',
    platform: 'browser',
    target: 'es2023',
    inject: ['device/globals.ts'],
    plugins: [standIns],
    define: { 'process.env.DATABASE_URL': '""', 'process.env.MUDFLAT_URL': '""', ...define },
    logLevel: 'warning',
  });
}

/** A database of the newest schema, empty, as PostgreSQL keeps it: a device need not make one. */
async function makeDatabase(): Promise<void> {
  const pg = await PGlite.create();
  for (const file of (await readdir(MIGRATIONS)).filter((f) => f.endsWith('.sql')).toSorted())
    await pg.exec((await readFile(path.join(MIGRATIONS, file), 'utf8')).replaceAll('--> statement-breakpoint', ''));
  await pg.exec('checkpoint');
  const dump = await pg.dumpDataDir('gzip');
  await writeFile(path.join(out, 'database.tar'), Buffer.from(await dump.arrayBuffer()));
  await pg.close();
}

/**
 * Everything that the application is made of in a browser: its own files by name, what changes by content.
 */
async function manifest(): Promise<{ url: string; revision: string | null }[]> {
  const hashed = async (folder: string, url: string): Promise<{ url: string; revision: string | null }[]> => {
    const entries = await readdir(folder, { withFileTypes: true });
    const found = await Promise.all(
      entries.map((e) =>
        e.isDirectory()
          ? hashed(path.join(folder, e.name), `${url}${e.name}/`)
          : Promise.resolve([{ url: `${url}${encodeURIComponent(e.name)}`, revision: null }]),
      ),
    );
    return found.flat();
  };
  const own = await Promise.all(
    (await readdir(out)).map(async (name) => ({
      url: `/device/${name}`,
      revision: createHash('sha256')
        .update(await readFile(path.join(out, name)))
        .digest('hex')
        .slice(0, 20),
    })),
  );
  const id = (await readFile(path.join(dist, 'BUILD_ID'), 'utf8')).trim();
  return [
    ...(await hashed(path.join(dist, 'static'), '/_next/static/')),
    ...own,
    { url: '/without-server', revision: id },
  ];
}

async function main(): Promise<void> {
  await rm(out, { recursive: true, force: true });
  await mkdir(out, { recursive: true });
  await bundle('device/worker.ts', 'worker.js');
  for (const file of ['pglite.wasm', 'initdb.wasm', 'pglite.data'])
    await copyFile(path.join(PGLITE, file), path.join(out, file));
  await makeDatabase();
  const files = await manifest();
  await bundle('device/service-worker.ts', 'service-worker.js', { 'self.__SW_MANIFEST': JSON.stringify(files) });
  const sizes = await Promise.all(
    (await readdir(out)).map(async (f) => `${f} ${Math.round((await stat(path.join(out, f))).size / 1000)} kB`),
  );
  process.stdout.write(`${sizes.join(', ')}; ${files.length} files kept on a device\n`);
}

void main();
