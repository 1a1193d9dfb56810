/** The lines of a text that stand in a language, each with its place, and putting other words into one. */
import { readInline, Reading, writeWording } from '../formats/markdown/index.js';
import { plainWords, type Inline, type Node, type TextDocument } from '../template/document.js';
import { normalise } from '../template/normalise.js';
import type { Option, Variable } from '../template/variable.js';
import { childrenOf, nodeAt, visit } from '../template/walk.js';

/** Where a line stands: the text's title, a node of its document, or a word of a declaration by the way to it. */
export type LinePlace =
  | { readonly in: 'title' }
  | { readonly in: 'node' | 'alt'; readonly path: readonly number[] }
  | { readonly in: 'variable'; readonly key: string; readonly way: readonly string[] };

/** A line of a text. */
export interface LanguageLine {
  readonly place: LinePlace;
  /** What it is: a node's type, `alt`, `title`, or the attribute of a declaration. */
  readonly what: string;
  readonly content: readonly Inline[];
  /** Whether it is words alone, without placeholders and emphasis. */
  readonly plain: boolean;
}

/** Nodes whose content is a line in a language; addresses, moments and lengths are in none. */
const LINES: ReadonlySet<string> = new Set(['paragraph', 'heading', 'button', 'subject', 'place', 'attachment']);

/** A line with its tags and marks, as its file has it: equal for equal lines. */
export function writtenLine({ content }: Pick<LanguageLine, 'content'>): string {
  const known = written.get(content);
  if (known !== undefined) return known;
  const made = writeWording(content);
  written.set(content, made);
  return made;
}
/** Lines are written once: all of them are asked for at each keystroke. */
const written = new WeakMap<readonly Inline[], string>();

/** A line from what its file has: the inverse of `writtenLine`. */
export const lineFrom = (written: string): Inline[] => readInline(written, new Reading(new Set()));

/** Whether a line says anything in a language: letters that are words, not tags. */
export const saysWords = (content: readonly Inline[]): boolean =>
  content.some((node) => node.type === 'text' && /\p{L}{2}/u.test(node.text));

const plainLine = (words: string): readonly Inline[] => (words === '' ? [] : [{ type: 'text', text: words }]);

/** The line of a node, if it has one of its own. */
export function lineOfNode(node: Node, path: readonly number[]): LanguageLine | undefined {
  if (!LINES.has(node.type)) return undefined;
  const content = childrenOf(node) as readonly Inline[];
  return { place: { in: 'node', path }, what: node.type, content, plain: false };
}

/** The lines inside a node beside its own: alternative texts of images. */
export function altsOfNode(node: Node, path: readonly number[]): LanguageLine[] {
  return childrenOf(node).flatMap((child, index) =>
    child.type === 'image'
      ? [{ place: { in: 'alt', path: [...path, index] }, what: 'alt', content: child.attrs.alt, plain: true } as const]
      : [],
  );
}

/** Attributes of a declaration that are words for people, as far as they stand in it. */
const WORDS = ['label', 'help', 'example', 'fallback', 'unit'] as const;

/** The lines of a declaration. */
export function linesOfVariable(
  variable: Variable,
  prefix: readonly string[] = [],
  key = variable.key,
): LanguageLine[] {
  const lines: LanguageLine[] = [];
  const add = (way: readonly string[], words: string | undefined): void => {
    if (words === undefined) return;
    const what = [...way].findLast((part) => !/^\d/.test(part)) ?? '';
    lines.push({
      place: { in: 'variable', key, way: [...prefix, ...way] },
      what,
      content: plainLine(words),
      plain: true,
    });
  };
  for (const name of WORDS) add([name], variable[name]);
  if (typeof variable.default === 'string' && (variable.type === 'text' || variable.type === 'paragraphs'))
    add(['default'], variable.default);
  for (const [category, words] of Object.entries(variable.plural ?? {})) add(['plural', category], words);
  for (const [name, forms] of Object.entries(variable.forms ?? {}))
    for (const [category, words] of Object.entries(forms)) add(['forms', name, category], words);
  add(['words', 'yes'], variable.words?.yes);
  add(['words', 'no'], variable.words?.no);
  for (const option of variable.options ?? []) {
    add(['options', option.key, 'label'], option.label);
    if (option.wording)
      lines.push({
        place: { in: 'variable', key, way: [...prefix, 'options', option.key, 'wording'] },
        what: 'wording',
        content: option.wording,
        plain: false,
      });
  }
  for (const column of variable.columns ?? [])
    lines.push(...linesOfVariable(column, [...prefix, 'columns', column.key], key));
  return lines;
}

/** The line of a text's title. */
export const titleLine = ({ attrs: { front } }: TextDocument): LanguageLine => ({
  place: { in: 'title' },
  what: 'title',
  content: plainLine(front.title),
  plain: true,
});

/** All lines of a text in reading order: title, envelope, body, declarations. */
export function languageLines(document: TextDocument): LanguageLine[] {
  const { variables } = document.attrs;
  const lines = [titleLine(document)];
  visit(document, (node, path) => {
    const line = lineOfNode(node, path);
    if (line) lines.push(line, ...altsOfNode(node, path));
  });
  return [...lines, ...variables.flatMap((variable) => linesOfVariable(variable))];
}

/** A declaration with other words at the end of a way; where the way leads nowhere, it stays as it is. */
export function withWords(variable: Variable, way: readonly string[], content: readonly Inline[]): Variable {
  const [name = '', key = '', ...rest] = way;
  const words = plainWords(content);
  if (name === 'options')
    return {
      ...variable,
      options: variable.options?.map((option): Option =>
        option.key !== key
          ? option
          : rest[0] === 'wording'
            ? { ...option, wording: content }
            : { ...option, label: words },
      ),
    } as Variable;
  if (name === 'columns')
    return {
      ...variable,
      columns: variable.columns?.map((column) => (column.key === key ? withWords(column, rest, content) : column)),
    } as Variable;
  if (name === 'forms') {
    const forms = { ...variable.forms, [key]: { ...variable.forms?.[key], [rest[0] ?? '']: words } };
    return { ...variable, forms };
  }
  if (name === 'plural') return { ...variable, plural: { ...variable.plural, [key]: words } };
  if (name === 'words') return { ...variable, words: { ...variable.words, [key]: words } };
  return { ...variable, [name]: words };
}

/** The text with another line at a place; as it is where there is no such place. */
export function withLine(document: TextDocument, place: LinePlace, content: readonly Inline[]): TextDocument {
  const { front, variables } = document.attrs;
  if (place.in === 'title') {
    const title = plainWords(content).trim();
    if (title === '') return document;
    return { ...document, attrs: { ...document.attrs, front: { ...front, title } } };
  }
  if (place.in === 'variable') {
    const changed = variables.map((each) => (each.key === place.key ? withWords(each, place.way, content) : each));
    return normalise({ ...document, attrs: { ...document.attrs, variables: changed } });
  }
  const node = nodeAt(document, place.path);
  if (!node) return document;
  const next =
    place.in === 'alt' && node.type === 'image'
      ? { ...node, attrs: { ...node.attrs, alt: content } }
      : ({ ...node, content } as Node);
  return normalise(replaced(document, place.path, next) as TextDocument);
}

function replaced(node: Node, [index, ...rest]: readonly number[], next: Node): Node {
  if (index === undefined) return next;
  const content = childrenOf(node).map((child, at) => (at === index ? replaced(child, rest, next) : child));
  return { ...node, content } as Node;
}
