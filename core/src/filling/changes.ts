/**
 * What somebody changes in one message beside its answers: other texts stitched to it, and words reworded. Both are kept
 * apart from the template, and made into documents that are compiled in its place; so a value never becomes structure,
 * clean joins go on working, and an answer that changes later is rendered into reworded lines as into any other.
 */
import { sameValue } from '../words/same.js';
import { bodyOf, part, type Block, type Inline, type NamedDocument } from '../template/document.js';
import { nodeAt } from '../template/walk.js';
import type { Attachment, Body, Node, TextDocument } from '../template/document.js';
import { normaliseInline } from '../template/normalise.js';
import { replaceAt } from './replace.js';

/** A text stitched to a message. */
export interface StitchedPart {
  readonly name: string;
  /** Behind how many blocks of the template's own body it stands: 0 is before all of them. */
  readonly at: number;
}

/** A line of a text, in words other than the text's own. */
export interface Rewording {
  readonly text: string;
  /** Of the line in the text's document. */
  readonly path: readonly number[];
  /** What the text says there, by which it is found again in another version. */
  readonly before: readonly Inline[];
  /** What stands there instead; null where the line is taken out. */
  readonly after: readonly Inline[] | null;
  /** The values of what was written over, as they were then, by name: it is asked again when they change. */
  readonly over: Readonly<Record<string, string>>;
}

/** What was changed by hand in a filled message: texts stitched to it, and lines reworded. */
export interface FillChanges {
  readonly parts: readonly StitchedPart[];
  readonly reworded: readonly Rewording[];
}
/** Nothing was changed. */
export const NO_CHANGES: FillChanges = { parts: [], reworded: [] };

const samePlace = (a: Rewording, b: Rewording): boolean => a.text === b.text && sameValue(a.path, b.path);
/** Whether a rewording says what the text says by itself: something was put back. */
const isPutBack = ({ before, after }: Rewording): boolean => sameValue(before, after);

/** The changes of one message of many: those made for all, and its own in their place. What was put back is none. */
export const mergedChanges = (shared: FillChanges, own: FillChanges): FillChanges => ({
  parts: shared.parts,
  reworded: [
    ...shared.reworded.filter((each) => !own.reworded.some((mine) => samePlace(each, mine))),
    ...own.reworded,
  ].filter((each) => !isPutBack(each)),
});

/**
 * The own changes by which one message of many comes to say what it says: `mergedChanges(shared, ownChanges(shared, whole))`
 * is `whole`. A line that was reworded for all and is not here was put back for this one.
 */
export const ownChanges = (shared: FillChanges, whole: FillChanges): FillChanges => ({
  parts: [],
  reworded: [
    ...whole.reworded.filter((each) => !shared.reworded.some((other) => sameValue(each, other))),
    ...shared.reworded
      .filter((each) => !whole.reworded.some((mine) => samePlace(each, mine)))
      .map((each) => ({ ...each, after: each.before, over: {} })),
  ],
});

/** The texts of a message with its changes in them, in the same order; untouched ones are the same objects. */
export function composed<N extends NamedDocument>(texts: readonly N[], { parts, reworded }: FillChanges): readonly N[] {
  if (parts.length === 0 && reworded.length === 0) return texts;
  return texts.map((each, index) => {
    const own = reworded.filter(({ text, path, before }) => text === each.name && says(each.document, path, before));
    let { document } = each;
    for (const { path, after } of own) document = replaceAt(document, path, (node) => withWords(node, after));
    if (index === 0) document = stitched(document, parts, texts);
    return document === each.document ? each : { ...each, document };
  });
}

/** True while a text says at a place what it said when it was reworded. */
export function says(document: TextDocument, path: readonly number[], before: readonly Inline[]): boolean {
  const node = nodeAt(document, path);
  return node !== undefined && JSON.stringify(inlineOf(node)) === JSON.stringify(before);
}

/** The inline content of a line; none for what is no line. */
export const inlineOf = (node: Node): readonly Inline[] =>
  node.type === 'paragraph' || node.type === 'heading' || node.type === 'button' ? (node.content ?? []) : [];

/** A line in other words. What is taken out becomes a note, so that its neighbours keep their places. */
function withWords<N extends Node>(node: N, after: readonly Inline[] | null): Node {
  if (after === null) return { type: 'comment', attrs: { text: TAKEN_OUT } };
  const content = normaliseInline(after);
  const { content: _old, ...rest } = node as N & { content?: unknown };
  return (content.length > 0 ? { ...rest, content } : rest) as unknown as Node;
}
/** What a proof says where a line was taken out. */
const TAKEN_OUT = 'taken out of this message';

/** Includes the parts where they stand, and brings their attachments along. */
function stitched(
  document: TextDocument,
  parts: readonly StitchedPart[],
  texts: readonly NamedDocument[],
): TextDocument {
  if (parts.length === 0) return document;
  const body = bodyOf(document);
  const included = (at: number): Block[] =>
    parts
      .filter((each) => placed(each, body.length) === at)
      .map(({ name }) => ({ type: 'inclusion', attrs: { name } }));
  const blocks = body.flatMap((block, at) => [...included(at), block]);
  const whole: Body = { type: 'body', content: [...blocks, ...included(body.length)] };
  const brought = parts.flatMap(({ name }) => {
    const text = texts.find((each) => each.name === name);
    return text ? (part(text.document, 'attachments').content ?? []) : [];
  });
  const own = part(document, 'attachments').content ?? [];
  const more = brought.filter((file) => !own.some((each) => each.attrs.file === file.attrs.file));
  return {
    ...document,
    content: document.content.map((each) => {
      if (each.type === 'body') return whole;
      if (each.type !== 'attachments' || more.length === 0) return each;
      return { ...each, content: [...own, ...distinctFiles(more)] };
    }),
  };
}

const distinctFiles = (files: readonly Attachment[]): Attachment[] =>
  files.filter((file, index) => files.findIndex((each) => each.attrs.file === file.attrs.file) === index);

const placed = ({ at }: StitchedPart, length: number): number => Math.min(Math.max(0, at), length);

/**
 * The path in the template's own document of what stands at a path of the composed one; undefined for a stitched part
 * itself.
 */
export function ownPath(
  document: TextDocument,
  { parts }: Pick<FillChanges, 'parts'>,
  path: readonly number[],
): readonly number[] | undefined {
  const [of, block, ...rest] = path;
  if (parts.length === 0 || of === undefined || block === undefined || document.content[of]?.type !== 'body')
    return path;
  const body = bodyOf(document);
  let composedAt = 0;
  for (let at = 0; at <= body.length; at += 1) {
    const before = parts.filter((each) => placed(each, body.length) === at).length;
    if (block < composedAt + before) return undefined;
    composedAt += before;
    if (block === composedAt) return [of, at, ...rest];
    composedAt += 1;
  }
  return undefined;
}
