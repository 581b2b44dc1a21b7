import type { Element } from './types';

/**
 * A part of a netlist that is there once per copy: `{}` in ids and nodes stands for the copy's name, as in
 * `plug {}`.
 */
export interface CopiedElements {
  readonly copies: readonly (number | string)[];
  readonly elements: readonly Element[];
}

/** Plain elements and copied ones as one list. */
export function expandElements(elements: readonly Element[], groups: readonly CopiedElements[] = []): Element[] {
  const named = (text: string, copy: number | string): string => text.replaceAll('{}', String(copy));
  return [
    ...elements,
    ...groups.flatMap((g) =>
      g.copies.flatMap((c) =>
        g.elements.map((e) => ({ ...e, id: named(e.id, c), from: named(e.from, c), to: named(e.to, c) })),
      ),
    ),
  ];
}
