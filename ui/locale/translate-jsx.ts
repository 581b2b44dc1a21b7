import type { ReactNode } from 'react';
import { currentReader, type Translation } from '../../core/locale/locale';
import { withMark } from '../../core/locale/numbers';
import { word } from '../../core/locale/translate';

/**
 * What React draws, in the reader's language: texts between tags and the attributes that people read. A sentence with
 * values and elements in it is one text, `Press {0} to save`, so that a translation can put them elsewhere.
 */

/** Attributes of which the value is read by a person, also through a screen reader. */
const READ_BY_PEOPLE = [
  'aria-label',
  'aria-description',
  'aria-roledescription',
  'aria-valuetext',
  'alt',
  'title',
  'placeholder',
  'label',
] as const;
/** What stands in these is not language, or is somebody's own. */
const AS_IT_IS = new Set(['script', 'style', 'textarea', 'code', 'pre', 'path']);

type Props = Readonly<Record<string, unknown>>;

/** Texts with places in them, by how many children they stand among and where their first fixed part is. */
interface Sentences {
  readonly of: Translation;
  readonly byShape: ReadonlyMap<string, readonly Sentence[]>;
}
interface Sentence {
  /** As children: fixed parts, and `null` where something is put in. */
  readonly parts: readonly (string | null)[];
  readonly translation: string;
}

let known: Sentences | null = null;

/** "Press {0} to save" as children: "Press ", place, " to save". */
export const partsOf = (text: string): (string | null)[] =>
  text.split(/(\{\d+\})/).flatMap((part, i) => (i % 2 ? [null] : part === '' ? [] : [part]));

function sentencesOf(words: Translation): Sentences {
  if (known?.of === words) return known;
  const byShape = new Map<string, Sentence[]>();
  for (const [text, translation] of Object.entries(words)) {
    const parts = partsOf(text);
    const shape = shapeOf(parts);
    if (shape === null || parts.length < 2) continue;
    const same = byShape.get(shape);
    if (same) same.push({ parts, translation });
    else byShape.set(shape, [{ parts, translation }]);
  }
  return (known = { of: words, byShape });
}

/** Fixed parts with a letter are looked for; a bracket alone is in too many texts. */
const isFixed = (part: unknown): part is string => typeof part === 'string' && /\p{L}/u.test(part);
function shapeOf(parts: readonly unknown[]): string | null {
  const at = parts.findIndex(isFixed);
  return at < 0 ? null : `${parts.length} ${at} ${String(parts[at])}`;
}

/** The children of an element, put where the translation of their sentence has them; `null`: it is none that is known. */
function asSentence(children: readonly unknown[], words: Translation): ReactNode[] | null {
  const { byShape } = sentencesOf(words);
  for (let at = 0; at < children.length; at++) {
    if (!isFixed(children[at])) continue;
    const candidates = byShape.get(`${children.length} ${at} ${String(children[at])}`);
    const sentence = candidates?.find((c) => c.parts.every((part, i) => part === null || part === children[i]));
    if (sentence) return put(sentence, children);
  }
  return null;
}

function put({ parts, translation }: Sentence, children: readonly unknown[]): ReactNode[] {
  const places = parts.flatMap((part, i) => (part === null ? [shownChild(children[i])] : []));
  return translation
    .split(/(\{\d+\})/)
    .flatMap((part, i) =>
      i % 2 ? [(places[Number(part.slice(1, -1))] ?? null) as ReactNode] : part === '' ? [] : [part],
    );
}

/** One child: a text is looked up, a number gets the reader's mark, all else stays. */
function shownChild(child: unknown): unknown {
  if (typeof child === 'string') return word(child);
  return typeof child === 'number' ? withMark(String(child)) : child;
}

function shownChildren(children: unknown, isHost: boolean, words: Translation | null): unknown {
  if (!Array.isArray(children)) return isHost ? shownChild(children) : children;
  const sentence = words && asSentence(children, words);
  if (sentence) return sentence;
  return isHost
    ? children.map((c: unknown) => (Array.isArray(c) ? shownChildren(c, true, words) : shownChild(c)))
    : children;
}

/**
 * The properties of an element as the reader sees them. `isHost`: an element of the page; a component gets its texts as
 * they are, but for a sentence, of which it would not see the whole.
 */
export function translated(type: unknown, props: Props, isFragment: boolean): Props {
  const { locale, words } = currentReader();
  const isHost = typeof type === 'string' || isFragment;
  if (words === null && (locale.decimal === 'point' || !isHost)) return props;
  if (typeof type === 'string' && AS_IT_IS.has(type)) return props;
  let changed: Record<string, unknown> | null = null;
  const children = shownChildren(props.children, isHost, words);
  if (children !== props.children) changed = { ...props, children };
  if (words !== null && typeof type === 'string')
    for (const name of READ_BY_PEOPLE) {
      const value = props[name];
      const shown = typeof value === 'string' ? word(value) : value;
      if (shown !== value) (changed ??= { ...props })[name] = shown;
    }
  return changed ?? props;
}
