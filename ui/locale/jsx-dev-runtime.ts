import { Fragment, jsxDEV as reactJsxDEV } from 'react/jsx-dev-runtime';
import { translated } from './translate-jsx';

export { Fragment };
export type { JSX } from 'react/jsx-runtime';

/** As jsx and jsxs of `jsx-runtime.ts`, while the application is being worked on and in tests. */
export const jsxDEV: typeof reactJsxDEV = (type, props, key, isStatic, source, self) =>
  reactJsxDEV(
    type,
    translated(type, props as object as Record<string, unknown>, type === Fragment),
    key,
    isStatic,
    source,
    self,
  );
