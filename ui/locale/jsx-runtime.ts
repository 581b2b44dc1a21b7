/**
 * React's way to make elements, with texts in the reader's language: `jsxImportSource` in tsconfig.json names
 * this folder, so that everything that is drawn passes here and no screen has to think of it.
 */
import { Fragment, jsx as reactJsx, jsxs as reactJsxs } from 'react/jsx-runtime';
import { translated } from './translate-jsx';

export { Fragment };
export type { JSX } from 'react/jsx-runtime';

export const jsx: typeof reactJsx = (type, props, key) =>
  reactJsx(type, translated(type, props as object as Record<string, unknown>, type === Fragment), key);
export const jsxs: typeof reactJsxs = (type, props, key) =>
  reactJsxs(type, translated(type, props as object as Record<string, unknown>, type === Fragment), key);
