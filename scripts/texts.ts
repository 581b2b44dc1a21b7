/**
 * Finds every text for people in the sources, so that a translation is a file: templates marked with `tr`,
 * what stands between tags, and strings that are words. See docs/guide/translating.md.
 */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { keyOf } from '../core/locale/translate';

/** Where each text stands: file names, in order. */
export type Found = Map<string, Set<string>>;

/** Attributes whose value is for the machine. */
const FOR_MACHINES =
  /^(?:className|style|href|id|key|path|d|points|transform|viewBox|htmlFor|field|src|type|role|tone|aria-(?:controls|labelledby|describedby|live|current|haspopup)|data-.*|on[A-Z].*|at|test|accept|base|align|side)$/;
/** Calls whose arguments are for the machine. */
const MACHINE_CALLS =
  /(?:^|\.)(?:fetch|querySelector\w*|getElementById|setAttribute|getAttribute|addEventListener|getItem|setItem|import|require|dynamic|join|split|startsWith|endsWith|includes|replace\w*|test|exec|format|Set|Map|pgTable|text|jsonb|index|uniqueIndex|execute|query|has|get)$/;
/** Calls whose arguments are words, one alone too. */
const WORD_CALLS = /^(?:kind|counted|rule)$/;
/** Names of what holds words, where a value is one word. */
const HOLDS_WORDS =
  /(?:words|labels?|names?|titles?|options|choices|called|parts?|says?|said|shown|outcome|done|is|what|meant|verb|link|positions?|spans?|from|to|nodes?|pins?|when)$/i;

const isWord = (text: string): boolean => /^\p{L}{2,}$/u.test(text);
const isLetters = (text: string): boolean => /\p{L}{2}/u.test(text);

/** Class names of the style sheet: most of them have a dash, a colon or a bracket in them. */
function isStyle(text: string): boolean {
  const tokens = text.trim().split(/\s+/);
  const odd = tokens.filter((t) => /^[a-z!*[&][^A-Z]*[-:[][^\s]*$/.test(t) && !/[.,;:]$/.test(t)).length;
  return tokens.length > 1 && odd * 2 > tokens.length;
}

const isForMachines = (text: string): boolean =>
  /^[./@#]|^https?:|^[a-z-]+\/[a-z-]+|[{}<>=]{2}|\bselect .* from |^min\(|calc\(|var\(/.test(text) || isStyle(text);

/**
 * Whether a string of the sources is a text for people: a sentence, several words, or one that begins as a
 * label does.
 */
export const looksLikeWords = (text: string): boolean =>
  isLetters(text) &&
  !isForMachines(text) &&
  (/\S\s+\S/.test(text.trim()) || /^\p{Lu}[\p{Ll}-]+[.…?!:]?$/u.test(text.trim()));

const ENTITIES: Readonly<Record<string, string>> = {
  '&nbsp;': '\u00a0',
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&apos;': "'",
};

/** What stands between tags as React gets it: lines are trimmed and joined by one space. */
export function jsxText(raw: string): string {
  const lines = raw.split('\n').map((line) => line.replaceAll('\t', ' '));
  const kept = lines.map((line, i) => {
    const left = i === 0 ? line : line.trimStart();
    return i === lines.length - 1 ? left : left.trimEnd();
  });
  return kept
    .filter(Boolean)
    .join(' ')
    .replace(/&\w+;/g, (entity) => ENTITIES[entity] ?? entity);
}

/** The children of an element: texts, and `null` where something is put in. */
function childrenOf(children: readonly ts.JsxChild[]): (string | null)[] {
  return children.flatMap((child): (string | null)[] => {
    if (ts.isJsxText(child)) {
      const text = jsxText(child.text);
      return text === '' || (child.text.includes('\n') && text.trim() === '') ? [] : [text];
    }
    if (!ts.isJsxExpression(child)) return [null];
    if (!child.expression) return [];
    return ts.isStringLiteral(child.expression) ? [child.expression.text] : [null];
  });
}

/** As a text: places are numbered in order, texts beside each other are one. */
export function sentenceOf(children: readonly (string | null)[]): string {
  let place = 0;
  return children.map((c) => c ?? `{${place++}}`).join('');
}

class TextFinder {
  constructor(
    private readonly file: string,
    private readonly found: Found,
  ) {}

  private note(text: string): void {
    const plain = text.trim();
    if (!isLetters(plain.replace(/\{\d+\}/g, ''))) return;
    const where = this.found.get(text.includes('{0}') ? text : plain);
    if (where) where.add(this.file);
    else this.found.set(text.includes('{0}') ? text : plain, new Set([this.file]));
  }

  /** `inText`: one word alone is a word here, and no name of something. */
  visit(node: ts.Node, inText = false): void {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    // What can be one of several words may be shown as it is.
    if (ts.isLiteralTypeNode(node) && ts.isStringLiteral(node.literal)) return this.literal(node.literal.text, true);
    if (ts.isRegularExpressionLiteral(node)) return;
    // What is thrown is for the log, but for what is marked as a text.
    if (ts.isThrowStatement(node)) return this.templatesIn(node);
    if (ts.isJsxAttribute(node) && FOR_MACHINES.test(node.name.getText())) {
      if (node.initializer && /^on[A-Z]/.test(node.name.getText())) ts.forEachChild(node, (c) => this.visit(c));
      return this.templatesIn(node);
    }
    if (ts.isTaggedTemplateExpression(node)) return this.template(node);
    if (ts.isJsxElement(node) || ts.isJsxFragment(node)) this.element(node.children);
    if (ts.isCallExpression(node) && MACHINE_CALLS.test(node.expression.getText()))
      return [node.expression, ...node.arguments].forEach((a) => {
        if (!ts.isStringLiteralLike(a)) this.visit(a, inText);
      });
    if (ts.isCallExpression(node) && WORD_CALLS.test(node.expression.getText()))
      return node.arguments.forEach((a) => this.visit(a, true));
    if (ts.isBinaryExpression(node) && /^[!=]==$/.test(node.operatorToken.getText())) return;
    if (ts.isStringLiteralLike(node)) return this.literal(node.text, inText);
    if (ts.isPropertyAssignment(node)) {
      if (ts.isStringLiteral(node.name)) this.literal(node.name.text, false);
      return this.visit(node.initializer, inText || HOLDS_WORDS.test(node.name.getText()));
    }
    const holds = ts.isVariableDeclaration(node) && HOLDS_WORDS.test(node.name.getText());
    // A list of words that something can be.
    const isList =
      ts.isAsExpression(node) && ts.isConstTypeReference(node.type) && ts.isArrayLiteralExpression(node.expression);
    const isText =
      isList ||
      ts.isJsxAttribute(node) ||
      ts.isJsxExpression(node) ||
      (inText && !ts.isJsxElement(node) && !ts.isArrowFunction(node)) ||
      holds;
    ts.forEachChild(node, (child) => this.visit(child, isText));
  }

  /** What is marked as a text is one wherever it stands. */
  private templatesIn(node: ts.Node): void {
    if (ts.isTaggedTemplateExpression(node)) this.template(node);
    else ts.forEachChild(node, (c) => this.templatesIn(c));
  }

  private literal(text: string, inText: boolean): void {
    if (looksLikeWords(text) || (inText && isWord(text.trim()))) this.note(text);
  }

  private template({ tag, template }: ts.TaggedTemplateExpression): void {
    if (tag.getText() === 'tr') {
      const parts = ts.isTemplateExpression(template)
        ? [template.head.text, ...template.templateSpans.map((s) => s.literal.text)]
        : [template.text];
      this.note(keyOf(parts));
    }
    if (ts.isTemplateExpression(template))
      for (const span of template.templateSpans) this.visit(span.expression, tag.getText() === 'tr');
  }

  /** A sentence with something in it is one text; what stands alone is looked up as it is. */
  private element(children: readonly ts.JsxChild[]): void {
    const all = childrenOf(children);
    if (all.some((c) => c !== null && isLetters(c))) this.note(sentenceOf(all));
  }
}

/** Every text of the files. Throws where one cannot be read. */
export function textsIn(files: readonly string[], root = process.cwd()): Found {
  const found: Found = new Map();
  for (const file of files) {
    const source = readFileSync(path.join(root, file), 'utf8');
    new TextFinder(file, found).visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true));
  }
  return found;
}

/** Of a circuit: its drawing names each by its id. */
const NAMES_OF_POINTS = /^(?:element|reference|value)$/;

/** Texts in what ships as data, also those that code has put together. */
export function textsOfData(data: unknown, name: string, found: Found, property = 'name'): void {
  if (typeof data === 'string') {
    // "pin 4" is looked up as "pin", and so is the pattern of it.
    const text = data.replace(/ (?:\d+|\{\w*\})$/, '').trim();
    if (
      (looksLikeWords(text) || ((HOLDS_WORDS.test(property) || NAMES_OF_POINTS.test(property)) && isWord(text))) &&
      !found.has(text)
    )
      found.set(text, new Set([name]));
  } else if (Array.isArray(data)) data.forEach((d) => textsOfData(d, name, found, property));
  else if (data !== null && typeof data === 'object')
    for (const [key, value] of Object.entries(data)) {
      // Points of a circuit are named by their keys.
      if (/ /.test(key)) textsOfData(key, name, found);
      // "injector: piezo" is shown in its two parts.
      if (key === 'hardware' && typeof value === 'string') textsOfData(value.split(': '), name, found);
      textsOfData(value, name, found, key);
    }
}
