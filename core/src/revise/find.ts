/** Finding words wherever a text has them, and putting something in their place. */
import { placeholderTag } from '../formats/markdown/tags.js';
import type { Inline, Mark, Node, Placeholder, TextDocument } from '../template/document.js';
import { childrenOf, walk } from '../template/walk.js';
import { normaliseInline, sameMark } from '../template/normalise.js';
import { sentenceSegmenter } from '../values/intl.js';

/**
 * A line of a text: the content of the node at a path, the alternative text of an image or the target of a link or
 * button there, or an option's wording.
 */
export type LineRef =
  | { readonly kind: 'line' | 'alt' | 'target'; readonly path: readonly number[] }
  | { readonly kind: 'wording'; readonly variable: string; readonly option: string };

/** Words that were found, with the rest of their sentence. Offsets count whatever is no text as one unit. */
export interface Match {
  readonly line: LineRef;
  readonly start: number;
  readonly end: number;
  readonly before: string;
  readonly words: string;
  readonly after: string;
}

/** What stands in a line for everything that is no text. */
const OBJECT = '\uFFFC';
const LINES: ReadonlySet<string> = new Set([
  'paragraph',
  'heading',
  'button',
  'subject',
  'start',
  'length',
  'place',
  'address',
  'attachment',
]);
/** The longest stretch of a line that is shown before and after what was found. */
const AROUND = 60;

/** How words are searched for. */
export interface FindOptions {
  /** Only these letters, capital or small. */
  readonly exact?: boolean;
  /** Only as whole words. */
  readonly whole?: boolean;
}

/** A pattern for words, with any white space between them; undefined where there are none. */
export function patternFor(words: string, { exact = false, whole = false }: FindOptions = {}): RegExp | undefined {
  const parts = words.trim().split(/\s+/);
  if (parts[0] === '') return undefined;
  const body = parts.map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('(?:\\s|%20|\\+)+');
  // Where the words begin or end with a letter, another beside it would make them part of a longer one.
  const edge = (at: string, test: string): string => (whole && /[\p{L}\p{N}]/u.test(at) ? test : '');
  const [first = '', last = ''] = [[...words.trim()].at(0), [...words.trim()].at(-1)];
  return new RegExp(
    `${edge(first, '(?<![\\p{L}\\p{N}])')}${body}${edge(last, '(?![\\p{L}\\p{N}])')}`,
    exact ? 'gu' : 'giu',
  );
}

/** Every match of a global pattern in reading order: envelope, body, then wordings. */
export function findMatches(document: TextDocument, pattern: RegExp, locale = 'en-GB'): Match[] {
  const matches: Match[] = [];
  const search = (line: LineRef, text: string, shown: (from: number, to: number) => string): void => {
    for (const found of text.matchAll(pattern)) {
      const start = found.index;
      const end = start + found[0].length;
      if (end === start) continue;
      const sentence = sentenceAround(text, start, end, locale);
      matches.push({
        line,
        start,
        end,
        before: shown(sentence.from, start),
        words: shown(start, end),
        after: shown(end, sentence.to),
      });
    }
  };
  const inLine = (line: LineRef, nodes: readonly Inline[]): void =>
    search(line, textOf(nodes), (from, to) => shownBetween(nodes, from, to));
  const inTarget = (path: readonly number[], href: string): void =>
    search({ kind: 'target', path }, href, (from, to) => href.slice(from, to));
  walk(document, ({ node, path, before }) => {
    if (LINES.has(node.type)) inLine({ kind: 'line', path }, childrenOf(node) as readonly Inline[]);
    if (node.type === 'button') inTarget(path, node.attrs.href);
    if (node.type === 'image') inLine({ kind: 'alt', path }, node.attrs.alt);
    const link = linkOf(node);
    if (link && !(before && linkOf(before) === link)) inTarget(path, link);
  });
  for (const { key: variable, options = [] } of document.attrs.variables)
    for (const { key: option, wording = [] } of options) inLine({ kind: 'wording', variable, option }, wording);
  return matches;
}

/** What stands in place of a match: words, or a placeholder. */
export type Replacement = string | Placeholder['attrs'];

/** The text with something else in place of each match; matches must be from the text as it is. */
export function replaceMatches(
  document: TextDocument,
  matches: readonly Match[],
  by: (match: Match) => Replacement,
): TextDocument {
  const at = new Map<string, Match[]>();
  for (const match of matches) {
    const id = lineId(match.line);
    at.set(id, [...(at.get(id) ?? []), match]);
  }
  const inLine = (line: LineRef, nodes: readonly Inline[]): readonly Inline[] => {
    const here = at.get(lineId(line));
    if (!here) return nodes;
    return normaliseInline(
      here.toSorted((a, b) => b.start - a.start).reduce((all, match) => put(all, match, by(match)), nodes),
    );
  };
  const inTarget = (path: readonly number[], href: string): string =>
    (at.get(lineId({ kind: 'target', path })) ?? [])
      .toSorted((a, b) => b.start - a.start)
      .reduce((text, match) => {
        const what = by(match);
        return (
          text.slice(0, match.start) + (typeof what === 'string' ? what : placeholderTag(what)) + text.slice(match.end)
        );
      }, href);
  const replaced = (node: Node, path: readonly number[]): Node => {
    let content: readonly Node[] = childrenOf(node).map((child, index) => replaced(child, [...path, index]));
    // A link goes on over its neighbours, which lead where it leads.
    content = content.map((child, index) => {
      const href = firstOfLink(childrenOf(node), index, (first, link) => inTarget([...path, first], link));
      return href === undefined ? child : withLink(child as Inline, href);
    });
    if (LINES.has(node.type)) content = inLine({ kind: 'line', path }, content as readonly Inline[]);
    const whole = 'content' in node && node.content ? ({ ...node, content } as Node) : node;
    if (whole.type === 'button') return { ...whole, attrs: { ...whole.attrs, href: inTarget(path, whole.attrs.href) } };
    if (whole.type === 'image')
      return { ...whole, attrs: { ...whole.attrs, alt: inLine({ kind: 'alt', path }, whole.attrs.alt) } };
    return whole;
  };
  const whole = replaced(document, []) as TextDocument;
  const variables = document.attrs.variables.map((variable) =>
    variable.options
      ? {
          ...variable,
          options: variable.options.map((option) =>
            option.wording
              ? {
                  ...option,
                  wording: inLine({ kind: 'wording', variable: variable.key, option: option.key }, option.wording),
                }
              : option,
          ),
        }
      : variable,
  );
  return { ...whole, attrs: { ...whole.attrs, variables } };
}

const lineId = (line: LineRef): string =>
  line.kind === 'wording' ? `wording ${line.variable} ${line.option}` : `${line.kind} ${line.path.join('.')}`;

const linkOf = (node: Node): string | undefined =>
  'marks' in node ? node.marks?.flatMap((mark) => (mark.type === 'link' ? [mark.attrs.href] : []))[0] : undefined;

/** The new target of a node's link, which is that of the first node the link is on; undefined where nothing changes. */
function firstOfLink(
  nodes: readonly Node[],
  index: number,
  target: (first: number, link: string) => string,
): string | undefined {
  const link = linkOf(nodes[index] as Node);
  if (link === undefined) return undefined;
  let first = index;
  while (first > 0 && linkOf(nodes[first - 1] as Node) === link) first -= 1;
  const next = target(first, link);
  return next === link ? undefined : next;
}

const withLink = (node: Inline, href: string): Inline => ({
  ...node,
  marks: (node.marks ?? []).map((mark): Mark => (mark.type === 'link' ? { type: 'link', attrs: { href } } : mark)),
});

/** The units of a node in its line's text. */
const unitsOf = (node: Inline): string =>
  node.type === 'text' ? node.text : node.type === 'hardBreak' ? '\n' : OBJECT;
const textOf = (nodes: readonly Inline[]): string => nodes.map(unitsOf).join('');

/** A stretch of a line as an author reads it: placeholders by their names. */
function shownBetween(nodes: readonly Inline[], from: number, to: number): string {
  let at = 0;
  let out = '';
  for (const node of nodes) {
    const units = unitsOf(node);
    const [start, end] = [Math.max(from, at) - at, Math.min(to, at + units.length) - at];
    if (end > start)
      out += node.type === 'placeholder' ? `[${node.attrs.name}]` : units.slice(start, end).replace(OBJECT, '');
    at += units.length;
  }
  return out;
}

/** The sentence around a stretch, or as much of it as can be shown. */
function sentenceAround(text: string, start: number, end: number, locale: string): { from: number; to: number } {
  let [from, to] = [0, text.length];
  for (const { index, segment } of sentenceSegmenter(locale).segment(text)) {
    if (index <= start) from = index;
    if (index + segment.length >= end) {
      to = index + segment.length;
      break;
    }
  }
  return { from: Math.max(from, start - AROUND), to: Math.min(to, end + AROUND) };
}

/** A line with something in place of a stretch: it carries the marks that all it replaces had. */
function put(nodes: readonly Inline[], { start, end }: Match, what: Replacement): Inline[] {
  const before: Inline[] = [];
  const after: Inline[] = [];
  let shared: readonly Mark[] | undefined;
  let at = 0;
  for (const node of nodes) {
    const { length } = unitsOf(node);
    const [from, to] = [Math.max(0, start - at), Math.min(length, end - at)];
    if (at + length <= start) before.push(node);
    else if (at >= end) after.push(node);
    else {
      const marks = node.marks ?? [];
      shared = shared === undefined ? marks : shared.filter((mark) => marks.some((each) => sameMark(mark, each)));
      if (node.type === 'text') {
        if (from > 0) before.push({ ...node, text: node.text.slice(0, from) });
        if (to < length) after.push({ ...node, text: node.text.slice(to) });
      }
    }
    at += length;
  }
  const marks = (shared ?? []).filter((mark) => typeof what === 'string' || mark.type !== 'code');
  const carried = marks.length > 0 ? { marks } : {};
  if (typeof what === 'string')
    return [...before, ...(what === '' ? [] : [{ type: 'text' as const, text: what, ...carried }]), ...after];
  return [...before, { type: 'placeholder', attrs: what, ...carried }, ...after];
}
