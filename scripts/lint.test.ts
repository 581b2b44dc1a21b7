import { execFile } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

// A linter that is not set up finds nothing either: one mistake of each kind is planted, and each must be
// found.

const MISTAKES: Readonly<Record<string, string>> = {
  'typescript(TS2322)': `export const count: number = 'three';`,
  'typescript(TS6133)': `export const f = (): void => { const unused = 1; };`,
  'typescript(no-floating-promises)': `export function f(): void { fetch('/'); }`,
  'typescript(no-misused-promises)': `export const f = (): void => void [1].forEach(async () => { await Promise.resolve(); });`,
  'typescript(no-unsafe-assignment)': `export const f = (text: string): unknown => { const x = JSON.parse(text); return x; };`,
  'typescript(no-unsafe-member-access)': `export const f = (text: string): unknown => JSON.parse(text).a as unknown;`,
  'typescript(no-explicit-any)': `export const f = (x: any): void => void x;`,
  'typescript(no-unnecessary-condition)': `export const f = (x: string): string => x ?? 'none';`,
  'typescript(no-non-null-assertion)': `export const f = (x: string | null): string => x!;`,
  'typescript(no-deprecated)': `/** @deprecated gone */ export function old(): number { return 1; }\nexport const f = (): number => old();`,
  'typescript(switch-exhaustiveness-check)': `export function f(x: 'a' | 'b'): number { switch (x) { case 'a': return 1; } return 2; }`,
  'typescript(restrict-template-expressions)': 'export const f = (x: object): string => `${x}`;',
  'mudflat(no-enums)': `export enum Colour { Red }`,
  'mudflat(comment-width)': `/** ${'word '.repeat(25)}*/\nexport const colour = 'red';`,
};
/** In a component. */
const MISTAKES_ON_SCREEN: Readonly<Record<string, string>> = {
  'react-hooks(rules-of-hooks)': `import { useState } from 'react'; export function A({ is }: { is: boolean }) { if (is) useState(1); return null; }`,
  'react-hooks(exhaustive-deps)': `import { useEffect } from 'react'; export function A({ x }: { x: string }) { useEffect(() => { document.title = x; }, []); return null; }`,
  'react(set-state-in-effect)': `import { useEffect, useState } from 'react'; export function A() { const [x, setX] = useState(0); useEffect(() => { setX(1); }, []); return <p>{x}</p>; }`,
  'react(jsx-key)': `export const A = () => <ul>{[1, 2].map((x) => <li>{x}</li>)}</ul>;`,
  'next(no-img-element)': `export const A = () => <img src="/a.png" alt="" />;`,
  'next-js(no-location-assign-relative-destination)': `export const f = (): void => window.location.assign('/people');`,
  'eslint(no-restricted-imports)': `import Link from 'next/link'; export { Link };`,
};

/**
 * What the linter says, with this project's settings, of sources in a tree of their own: code of each by its
 * file.
 */
async function findings(sources: Readonly<Record<string, string>>): Promise<readonly { file: string; code: string }[]> {
  const tree = mkdtempSync(path.join(tmpdir(), 'mudflat-lint-'));
  try {
    for (const settings of ['.oxlintrc.json', 'tsconfig.json']) copyFileSync(settings, path.join(tree, settings));
    for (const folder of ['node_modules', 'scripts']) symlinkSync(path.resolve(folder), path.join(tree, folder));
    for (const [file, text] of Object.entries(sources)) {
      mkdirSync(path.dirname(path.join(tree, file)), { recursive: true });
      writeFileSync(path.join(tree, file), text);
    }
    const said = await new Promise<string>((resolve) => {
      execFile(path.resolve('node_modules/.bin/oxlint'), ['-f', 'json', 'core', 'ui'], { cwd: tree }, (_, out) =>
        resolve(out),
      );
    });
    const { diagnostics } = JSON.parse(said) as { diagnostics: { code: string; filename: string }[] };
    return diagnostics.map((d) => ({ file: path.relative(tree, path.resolve(tree, d.filename)), code: d.code }));
  } finally {
    rmSync(tree, { recursive: true });
  }
}

test('each planted mistake is found, and what has none is left alone', async () => {
  const files = [
    ...Object.entries(MISTAKES).map(([code, text], i) => ({ code, text, file: `core/${i}.ts` })),
    ...Object.entries(MISTAKES_ON_SCREEN).map(([code, text], i) => ({ code, text, file: `ui/${i}.tsx` })),
  ];
  const good = { 'core/good.ts': `export const double = (x: number): number => 2 * x;\n` };
  const found = await findings({ ...Object.fromEntries(files.map((f) => [f.file, f.text])), ...good });
  const missed = files.filter((f) => !found.some((d) => d.file === f.file && d.code === f.code)).map((f) => f.code);
  expect(missed).toEqual([]);
  expect(found.filter((d) => d.file in good)).toEqual([]);
});
