/**
 * Brings a text and its version in another language level: which parts of them are the same. Words say nothing across
 * languages, so parts are told by their form, the tags, numbers and addresses in them, and their length (as sentences
 * are: W. A. Gale and K. W. Church 1993); sequences are aligned as those of past mails are.
 */
import { diffArrays } from 'diff';
import { align, type Likeness } from '../derive/align.js';
import { tagOf } from '../formats/markdown/line.js';
import { sharedWords } from '../insight/rewording.js';
import { openingTag } from '../template/condition.js';
import { PARTS, part, type Inline, type Node, type TextDocument } from '../template/document.js';
import { childrenOf, conditionsOf } from '../template/walk.js';
import { writtenLine } from './lines.js';

/** A line of the original and what says the same in the version, each as its file has it. */
export interface Agreed {
  readonly original: string;
  readonly version: string;
}

/** A node with its path from the document's top. */
export interface At {
  readonly node: Node;
  readonly path: readonly number[];
}

/** A part of the original, and what of the version it is; one of them is missing where only the other has it. */
export interface Pair {
  readonly original?: At;
  readonly version?: At;
  readonly children: readonly Pair[];
}

/** What of a node is the same in every language. */
interface Sketch {
  readonly kind: string;
  readonly type: string;
  /** The conditions that it carries. */
  readonly governed: string;
  readonly tags: ReadonlyMap<string, number>;
  /** Characters of words, tags not counted. */
  readonly length: number;
  readonly written: string;
}

const TEXT: ReadonlySet<string> = new Set(['paragraph', 'heading', 'button']);
/** Kinds of nodes that may stand at the same place. */
const KINDS: Readonly<Record<string, string>> = {
  paragraph: 'text',
  heading: 'text',
  button: 'text',
  bulletList: 'list',
  orderedList: 'list',
  tableCell: 'cell',
  tableHeader: 'cell',
};

/** Tags, numbers and addresses of a line, each as often as it stands there. */
export function tagsOfLine(content: readonly Inline[]): string[] {
  const tags: string[] = [];
  const open = new Set<string>();
  for (const node of content) {
    const tag = node.type === 'inlineComment' ? '' : tagOf(node);
    if (tag !== '') tags.push(tag);
    if (node.type === 'image') tags.push(`image ${node.attrs.src}`);
    const here = new Set(conditionsOf(node).map(openingTag));
    for (const each of here) if (!open.has(each)) tags.push(each);
    open.clear();
    for (const each of here) open.add(each);
  }
  return tags;
}

/** Numbers and addresses that stand in words: they are the same in most languages. */
const SAME_EVERYWHERE = /https?:\/\/[^\s)>\]]+|[^\s@<>()]+@[^\s@<>()]+|\d+/g;

/** Sketches of nodes, each made once. */
class Sketches {
  private readonly made = new WeakMap<Node, Sketch>();

  of(node: Node): Sketch {
    const known = this.made.get(node);
    if (known) return known;
    const sketch = this.make(node);
    this.made.set(node, sketch);
    return sketch;
  }

  private make(node: Node): Sketch {
    const tags = new Map<string, number>();
    const count = (tag: string, by = 1): void => void tags.set(tag, (tags.get(tag) ?? 0) + by);
    let length = 0;
    let written = '';
    if (TEXT.has(node.type)) {
      const content = childrenOf(node) as readonly Inline[];
      written = writtenLine({ content });
      tagsOfLine(content).forEach((tag) => count(tag));
      for (const each of content)
        if (each.type === 'text') {
          length += each.text.length;
          for (const [same] of each.text.matchAll(SAME_EVERYWHERE)) count(same);
        }
    } else if (node.type === 'inclusion') count(`> ${node.attrs.name}`);
    else
      for (const child of childrenOf(node)) {
        const inner = this.of(child);
        length += inner.length;
        if (inner.governed !== '') count(inner.governed);
        inner.tags.forEach((by, tag) => count(tag, by));
      }
    const governed = conditionsOf(node).map(openingTag).join('');
    return { kind: KINDS[node.type] ?? node.type, type: node.type, governed, tags, length, written };
  }
}

/** The share of tags that two have in common; 1 where neither has any. */
function inCommon(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  let [both, all] = [0, 0];
  for (const tag of new Set([...a.keys(), ...b.keys()])) {
    const [x, y] = [a.get(tag) ?? 0, b.get(tag) ?? 0];
    both += Math.min(x, y);
    all += Math.max(x, y);
  }
  return all === 0 ? 1 : both / all;
}

/** How near two lengths are; languages differ in theirs, so that half as long again is still near. */
const inLength = (a: number, b: number): number => {
  const [short, long] = [Math.min(a, b) + 8, Math.max(a, b) + 8];
  return Math.min(1, (1.4 * short) / long);
};

/**
 * What a part is found again by: its lines with all that stands around them. Of a version, lines that were said to be the
 * same as one of the original stand as that.
 */
class Anchors {
  private readonly made = new WeakMap<Node, string>();
  constructor(
    private readonly sketches: Sketches,
    private readonly originalOf: (written: string) => string,
  ) {}

  of(node: Node): string {
    const known = this.made.get(node);
    if (known !== undefined) return known;
    const { kind, governed, written } = this.sketches.of(node);
    const inside = TEXT.has(node.type)
      ? this.originalOf(written)
      : node.type === 'inclusion'
        ? node.attrs.name
        : isLine(node)
          ? ''
          : childrenOf(node)
              .map((child) => this.of(child))
              .join('\u0001');
    const anchor = `${kind} ${governed}\u0002${inside}\u0003`;
    this.made.set(node, anchor);
    return anchor;
  }
}

/** How the parts of two texts are brought level. */
interface Level {
  readonly likeness: Likeness<At>;
  readonly original: Anchors;
  readonly version: Anchors;
}

/** The likeness of nodes in two languages. */
function likenessOf(sketches: Sketches, agreed: ReadonlyMap<string, readonly string[]>): Likeness<At> {
  return {
    key: ({ path }) => path.join('.'),
    compare({ node: one }, { node: other }) {
      const [a, b] = [sketches.of(one), sketches.of(other)];
      if (a.kind !== b.kind || a.governed !== b.governed) return -1;
      if (a.kind === 'text' && a.written === b.written) return 1;
      // What was once said to be the same stays so, also where the original has changed a little since.
      const was = a.kind === 'text' ? agreed.get(b.written) : undefined;
      if (was)
        return Math.max(
          ...was.map((words) => (words === a.written ? 1 : sharedWords(partsOf(words), partsOf(a.written)))),
        );
      const same = a.type === b.type ? 1 : 0;
      const without = a.tags.size + b.tags.size === 0;
      const words = inLength(a.length, b.length);
      return without ? 0.3 * same + 0.65 * words : 0.3 * same + 0.4 * inCommon(a.tags, b.tags) + 0.25 * words;
    },
  };
}

const partsOf = (written: string): string[] => written.split(/\s+/);

/** What of the original each line of a version was said to be the same as, by the version's line. */
export function byVersion(agreed: readonly Agreed[]): Map<string, readonly string[]> {
  const map = new Map<string, readonly string[]>();
  for (const { original, version } of agreed) map.set(version, [...(map.get(version) ?? []), original]);
  return map;
}

/**
 * Pairs the parts of a text with those of its version, in reading order.
 * @param said what was said to be the same, as `byVersion` gives it
 */
export function pairParts(
  original: TextDocument,
  version: TextDocument,
  said: ReadonlyMap<string, readonly string[]>,
): Pair[] {
  const sketches = new Sketches();
  const level: Level = {
    likeness: likenessOf(sketches, said),
    original: new Anchors(sketches, (written) => written),
    version: new Anchors(sketches, (written) => said.get(written)?.at(-1) ?? written),
  };
  return PARTS.map((name, index): Pair => {
    const [a, b] = [at(part(original, name), [index]), at(part(version, name), [index])];
    return { original: a, version: b, children: name === 'body' ? sequences(a, b, level) : byPlace(a, b) };
  });
}

const at = (node: Node, path: readonly number[]): At => ({ node, path });
const within = ({ node, path }: At): At[] =>
  isLine(node) ? [] : childrenOf(node).map((child, index) => at(child, [...path, index]));
/** A line's content is no part of its own. */
const isLine = (node: Node): boolean =>
  TEXT.has(node.type) ||
  ['subject', 'place', 'start', 'length', 'attachment', 'address', 'codeBlock'].includes(node.type);

function inside(a: At, b: At, level: Level): readonly Pair[] {
  return a.node.type === 'tableRow' || a.node.type === 'tableCell' || a.node.type === 'tableHeader'
    ? byPlace(a, b, level)
    : sequences(a, b, level);
}

/** Pairs the children of two nodes one by one: the first with the first. */
function byPlace(a: At, b: At, level?: Level): Pair[] {
  const [ours, theirs] = [within(a), within(b)];
  return Array.from({ length: Math.max(ours.length, theirs.length) }, (_, index) => {
    const [one, other] = [ours[index], theirs[index]];
    return pairOf(one, other, level);
  });
}

/**
 * Pairs the children of two nodes. Those that are found again stand fast (the longest such run of them: E. W. Myers 1986);
 * what stands between is aligned by likeness, which compares each with each.
 */
function sequences(a: At, b: At, level: Level): Pair[] {
  const [ours, theirs] = [within(a), within(b)];
  const changes = diffArrays(
    ours.map(({ node }) => level.original.of(node)),
    theirs.map(({ node }) => level.version.of(node)),
  );
  const pairs: Pair[] = [];
  let [from, at, ahead, behind] = [0, 0, 0, 0];
  const between = (): void => {
    const parts = [ours.slice(from, from + ahead), theirs.slice(at, at + behind)];
    for (const column of align(parts, [0, 1], level.likeness)) pairs.push(pairOf(column.get(0), column.get(1), level));
    from += ahead;
    at += behind;
    [ahead, behind] = [0, 0];
  };
  for (const { added, removed, count } of changes) {
    if (removed) ahead += count;
    else if (added) behind += count;
    else {
      between();
      for (let step = 0; step < count; step += 1) pairs.push(pairOf(ours[from++], theirs[at++], level));
    }
  }
  between();
  return pairs;
}

function pairOf(original: At | undefined, version: At | undefined, level: Level | undefined): Pair {
  if (original && version)
    return { original, version, children: level ? inside(original, version, level) : byPlace(original, version) };
  const only = original ?? version;
  const children = only ? within(only).map((child) => alone(child, original !== undefined)) : [];
  return { ...(original ? { original } : {}), ...(version ? { version } : {}), children };
}

const alone = (only: At, isOriginal: boolean): Pair => ({
  ...(isOriginal ? { original: only } : { version: only }),
  children: within(only).map((child) => alone(child, isOriginal)),
});
