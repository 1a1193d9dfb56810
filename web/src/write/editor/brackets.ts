/** The brackets of a manuscript: passages, repeats, included blocks, as a tree. The score and the outline show it. */
import type { Mark, Node as PmNode } from '@tiptap/pm/model';
import { sameCondition, type Condition } from '@vocabula/core';

/**
 * What a bracket stands around: blocks (`passage`), items of a list or rows of a table (`items`, `rows`), words inside
 * a line (`phrase`), an included block that stands alone (`block`) or in a line (`inline-block`).
 */
export type BracketForm = 'passage' | 'items' | 'rows' | 'phrase' | 'block' | 'inline-block';

export interface Bracket {
  readonly form: BracketForm;
  /** What governs it; none for blocks. */
  readonly condition: Condition | undefined;
  /** The name of an included block; empty otherwise. */
  readonly name: string;
  /** The document range it stands around: whole nodes, or the words of a phrase. */
  readonly from: number;
  readonly to: number;
  /** How many brackets are around it. */
  readonly level: number;
  /** Of items and rows: which of their parent's children, and how many of their conditions stand outside this one. */
  readonly group?: { readonly first: number; readonly last: number; readonly depth: number };
  readonly children: readonly Bracket[];
}

type Draft = Omit<Bracket, 'children'> & { children: Draft[] };

/** All brackets of a document, outermost first, in reading order. */
export function bracketsOf(doc: PmNode): readonly Bracket[] {
  const top: Draft[] = [];
  collect(doc, 0, top, 0);
  return top;
}

function collect(node: PmNode, start: number, into: Draft[], level: number): void {
  if (node.isTextblock) return phrasesOf(node, start, into, level);
  const name = node.type.name;
  if (name === 'bulletList' || name === 'orderedList' || name === 'table') {
    grouped(node, start, into, level, 0, 0, node.childCount);
    return;
  }
  node.forEach((child, offset) => {
    const pos = start + offset;
    if (child.type.name === 'passage' || child.type.name === 'inclusion') {
      const bracket = draft(
        child.type.name === 'passage' ? 'passage' : 'block',
        child,
        pos,
        pos + child.nodeSize,
        level,
      );
      into.push(bracket);
      collect(child, pos + 1, bracket.children, level + 1);
    } else collect(child, pos + 1, into, level);
  });
}

const draft = (form: BracketForm, node: PmNode, from: number, to: number, level: number): Draft => ({
  form,
  condition: form === 'passage' ? (node.attrs as Condition) : undefined,
  name: form === 'passage' ? '' : String(node.attrs.name ?? ''),
  from,
  to,
  level,
  children: [],
});

const whenOf = (node: PmNode): readonly Condition[] => (node.attrs.when ?? []) as readonly Condition[];

/** Items or rows from `first` to before `end`, by the condition that they share at a depth. */
function grouped(
  parent: PmNode,
  start: number,
  into: Draft[],
  level: number,
  depth: number,
  first: number,
  end: number,
): void {
  const offsets = offsetsOf(parent, start);
  const at = (index: number): number => offsets[index] ?? start + parent.content.size;
  for (let index = first; index < end;) {
    const child = parent.child(index);
    const condition = whenOf(child)[depth];
    if (!condition) {
      collect(child, at(index) + 1, into, level);
      index += 1;
      continue;
    }
    let last = index;
    while (last + 1 < end && same(whenOf(parent.child(last + 1))[depth], condition)) last += 1;
    const bracket: Draft = {
      form: parent.type.name === 'table' ? 'rows' : 'items',
      condition,
      name: '',
      from: at(index),
      to: at(last + 1),
      level,
      group: { first: index, last, depth },
      children: [],
    };
    into.push(bracket);
    grouped(parent, start, bracket.children, level + 1, depth + 1, index, last + 1);
    index = last + 1;
  }
}

function offsetsOf(parent: PmNode, start: number): number[] {
  const offsets: number[] = [];
  parent.forEach((_child, offset) => offsets.push(start + offset));
  return offsets;
}

const same = (a: Condition | undefined, b: Condition): boolean => a !== undefined && sameCondition(a, b);

/** Phrases of a line, and blocks in it. A mark that starts outside another and ends with or after it is around it. */
function phrasesOf(line: PmNode, start: number, into: Draft[], level: number): void {
  const runs: { mark: Mark; from: number; to: number }[] = [];
  const blocks: Draft[] = [];
  line.forEach((node, offset) => {
    const from = start + offset;
    const to = from + node.nodeSize;
    for (const mark of node.marks) {
      if (mark.type.name !== 'phrase') continue;
      const run = runs.findLast((each) => each.to === from && each.mark.eq(mark));
      if (run) run.to = to;
      else runs.push({ mark, from, to });
    }
    if (node.type.name === 'inlineInclusion') blocks.push(draft('inline-block', node, from, to, level));
  });
  const drafts: Draft[] = [
    ...runs.map(({ mark, from, to }) => ({
      ...draft('phrase', line, from, to, level),
      name: '',
      condition: mark.attrs as Condition,
    })),
    ...blocks,
  ].sort((a, b) => a.from - b.from || b.to - a.to);
  const open: Draft[] = [];
  for (const each of drafts) {
    while (open.length > 0 && (open.at(-1) as Draft).to < each.to) open.pop();
    const around = open.at(-1);
    const nested = { ...each, level: level + open.length };
    (around && around.from <= each.from && around.to > each.from ? around.children : into).push(nested);
    open.push(nested);
  }
}

/** All brackets of a tree in one list, parents before their children. */
export const flatten = (brackets: readonly Bracket[]): Bracket[] =>
  brackets.flatMap((bracket) => [bracket, ...flatten(bracket.children)]);

/**
 * The brackets around a stretch, outermost first; one that is exactly the stretch is among them. A caret at the edge of
 * a phrase is in it only where what is typed there would be, which `marks` say.
 */
export function bracketsAround(
  brackets: readonly Bracket[],
  from: number,
  to: number,
  marks: readonly Mark[],
): Bracket[] {
  const typed = (condition: Condition | undefined): boolean =>
    marks.some((mark) => mark.type.name === 'phrase' && same(condition, mark.attrs as Condition));
  return flatten(brackets).filter((bracket) => {
    if (bracket.from > from || bracket.to < to) return false;
    if (bracket.form !== 'phrase')
      return (bracket.from < from && to < bracket.to) || (bracket.from === from && bracket.to === to);
    const atEdge = from === to && (from === bracket.from || from === bracket.to);
    return !atEdge || typed(bracket.condition);
  });
}

/** True for two brackets that are the same, before and after a change that left their places alone. */
export const sameBracket = (a: Bracket | undefined, b: Bracket | undefined): boolean =>
  a !== undefined &&
  b !== undefined &&
  a.form === b.form &&
  a.from === b.from &&
  a.group?.depth === b.group?.depth &&
  a.level === b.level;
