import type { ReactNode } from 'react';
import { currentReader, type Translation } from '../../core/locale/locale';
import { withMark } from '../../core/locale/numbers';
import { word } from '../../core/locale/translate';

/**
 * What React draws, in the reader's language: texts between tags and the attributes that people read. A
 * sentence with values and elements in it is one text, `Press {0} to save`, so that a translation can put
 * them elsewhere.
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

/** Texts with places in them, by their first fixed part, without the space around it. */
interface Sentences {
  readonly of: Translation;
  readonly byFirst: ReadonlyMap<string, readonly Sentence[]>;
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

/** Fixed parts with a letter are looked for; a bracket alone is in too many texts. */
const isFixed = (part: unknown): part is string => typeof part === 'string' && /\p{L}/u.test(part);

function sentencesOf(words: Translation): Sentences {
  if (known?.of === words) return known;
  const byFirst = new Map<string, Sentence[]>();
  for (const [text, translation] of Object.entries(words)) {
    const parts = partsOf(text);
    const first = parts.find(isFixed)?.trim();
    if (first === undefined || parts.length < 2) continue;
    const same = byFirst.get(first);
    if (same) same.push({ parts, translation });
    else byFirst.set(first, [{ parts, translation }]);
  }
  return (known = { of: words, byFirst });
}

/**
 * What stands at the places of a sentence, if these children are it; `null`: they are another. A fixed part
 * may have come as several children, since space beside an element is one of its own.
 */
function placesOf(parts: readonly (string | null)[], children: readonly unknown[]): unknown[] | null {
  const places: unknown[] = [];
  let at = 0;
  for (const part of parts) {
    if (part === null) {
      if (at >= children.length) return null;
      places.push(children[at++]);
      continue;
    }
    let text = '';
    while (text !== part) {
      const child = children[at++];
      if (typeof child !== 'string' || !part.startsWith(text + child)) return null;
      text += child;
    }
  }
  return at === children.length ? places : null;
}

/**
 * The children of an element, put where the translation of their sentence has them; `null`: it is none that
 * is known.
 */
function asSentence(children: readonly unknown[], words: Translation): ReactNode[] | null {
  const { byFirst } = sentencesOf(words);
  for (const child of children) {
    if (!isFixed(child)) continue;
    for (const { parts, translation } of byFirst.get(child.trim()) ?? []) {
      const places = placesOf(parts, children);
      if (places) return put(translation, places);
    }
  }
  return null;
}

const put = (translation: string, places: readonly unknown[]): ReactNode[] =>
  translation
    .split(/(\{\d+\})/)
    .flatMap((part, i) =>
      i % 2 ? [shownChild(places[Number(part.slice(1, -1))] ?? null) as ReactNode] : part === '' ? [] : [part],
    );

/** One child: a text is looked up, a number gets the reader's mark, all else stays. */
function shownChild(child: unknown): unknown {
  if (typeof child === 'string') return word(child);
  return typeof child === 'number' ? withMark(String(child)) : child;
}

/**
 * A component may need a number as it is; a text it gets in the reader's language, since it may hand it to a
 * library.
 */
function shownChildren(children: unknown, isHost: boolean, words: Translation | null): unknown {
  if (!Array.isArray(children)) return isHost || typeof children === 'string' ? shownChild(children) : children;
  const sentence = words && asSentence(children, words);
  if (sentence) return sentence;
  return children.map((c: unknown) =>
    Array.isArray(c) ? shownChildren(c, isHost, words) : isHost || typeof c === 'string' ? shownChild(c) : c,
  );
}

/**
 * The properties of an element as the reader sees them.
 */
export function translated(type: unknown, props: Props, isFragment: boolean): Props {
  const { locale, words } = currentReader();
  const isHost = typeof type === 'string' || isFragment;
  if (words === null && (locale.decimal === 'point' || !isHost)) return props;
  if (typeof type === 'string' && AS_IT_IS.has(type)) return props;
  let changed: Record<string, unknown> | null = null;
  const children = shownChildren(props.children, isHost, words);
  if (children !== props.children) changed = { ...props, children };
  // An option without a value of its own is chosen by its text: by that of the sources, whatever is shown.
  if (changed && type === 'option' && props.value === undefined) changed.value = props.children;
  if (words !== null)
    for (const name of READ_BY_PEOPLE) {
      const value = props[name];
      const shown = typeof value === 'string' ? word(value) : value;
      if (shown !== value) (changed ??= { ...props })[name] = shown;
    }
  return changed ?? props;
}
