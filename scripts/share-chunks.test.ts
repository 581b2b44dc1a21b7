import { createRequire } from 'node:module';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { shareChunks } from './share-chunks';

let dist: string;
beforeEach(() => {
  dist = mkdtempSync(path.join(tmpdir(), 'build-'));
});
afterEach(() => rmSync(dist, { recursive: true }));

function file(name: string, text: string): void {
  mkdirSync(path.dirname(path.join(dist, name)), { recursive: true });
  writeFileSync(path.join(dist, name), text);
}
const run = (name: string): unknown => createRequire(path.join(dist, 'x.js'))(path.join(dist, name)) as unknown;

test('routes with an equal chunk load one, and a chunk of other content stays its own', async () => {
  file('server/chunks/[root]__a._.js', 'module.exports = () => "same";');
  file('server/chunks/[root]__b._.js', 'module.exports = () => "same";');
  file('server/chunks/c.js', 'module.exports = () => "other";');
  // A chunk that loads another one later.
  file('server/chunks/d.js', 'module.exports = () => require("../../server/chunks/[root]__b._.js")();');
  for (const [route, chunk] of [
    ['one', '[root]__a._'],
    ['two', '[root]__b._'],
    ['three', 'c'],
    ['four', 'd'],
  ] as const)
    file(`server/app/api/${route}/route.js`, `module.exports = require("../../../../server/chunks/${chunk}.js")();`);
  file('server/app/api/two/route.js.nft.json', '{"files":["../../../../server/chunks/[root]__b._.js"]}');
  file('static/chunks/b.js', 'server/chunks/[root]__b._.js');

  expect(await shareChunks(dist)).toBe(1);
  expect(readdirSync(path.join(dist, 'server/chunks'))).toEqual(['[root]__a._.js', 'c.js', 'd.js']);
  expect(['one', 'two', 'three', 'four'].map((r) => run(`server/app/api/${r}/route.js`))).toEqual([
    'same',
    'same',
    'other',
    'same',
  ]);
  expect(readFileSync(path.join(dist, 'server/app/api/two/route.js.nft.json'), 'utf8')).toContain('__a');
  // What a browser loads is left alone.
  expect(readFileSync(path.join(dist, 'static/chunks/b.js'), 'utf8')).toContain('__b');
});

test('twice does nothing more, and without a build it fails', async () => {
  file('server/chunks/a.js', '1');
  file('server/chunks/b.js', '1');
  expect(await shareChunks(dist)).toBe(1);
  expect(await shareChunks(dist)).toBe(0);
  expect(existsSync(path.join(dist, 'server/chunks/a.js'))).toBe(true);
  await expect(shareChunks(path.join(dist, 'nowhere'))).rejects.toThrow('ENOENT');
});
