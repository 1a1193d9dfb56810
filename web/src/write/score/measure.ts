/** Where brackets stand beside the manuscript, from where their words stand in it. */
import type { Editor } from '@tiptap/core';
import type { Variable } from '@vocabula/core';
import { bracketInWords } from '../caret';
import { flatten, sameBracket, type Bracket } from '../editor/brackets';
import type { End } from '../editor/operations/ends';
import { kindOf, type BracketKind } from './kinds';

/** A bracket on its track; pixels from the top of the sheet. */
export interface Drawn {
  readonly bracket: Bracket;
  readonly kind: BracketKind;
  readonly label: string;
  readonly top: number;
  readonly height: number;
  /** Around the caret. */
  readonly here: boolean;
  /** Where its label stands; undefined where there is no room for one. */
  readonly labelTop: number | undefined;
}

/** True if two brackets are drawn alike, wherever in the text they begin. */
export const looksSame = (a: Drawn, b: Drawn | undefined): boolean =>
  b !== undefined &&
  a.kind === b.kind &&
  a.label === b.label &&
  a.top === b.top &&
  a.height === b.height &&
  a.here === b.here &&
  a.labelTop === b.labelTop &&
  a.bracket.level === b.bracket.level &&
  JSON.stringify(a.bracket.condition) === JSON.stringify(b.bracket.condition);

/** From this level on tracks are narrow, and only what is around the caret is labelled. */
export const DEEP = 5;
const LABEL_LINE = 16;
/** Letters that fit into one line of a label. */
const LINE_LETTERS = 17;

/** The box of what a bracket stands around. */
function boxOf(
  editor: Editor,
  { form, from, to }: Bracket,
): { readonly top: number; readonly bottom: number } | undefined {
  const first = editor.view.nodeDOM(from);
  if (!(first instanceof HTMLElement)) return undefined;
  const { top, bottom } = first.getBoundingClientRect();
  if (form !== 'items' && form !== 'rows') return { top, bottom };
  const { nodeBefore } = editor.state.doc.resolve(to);
  const last = nodeBefore ? editor.view.nodeDOM(to - nodeBefore.nodeSize) : null;
  return { top, bottom: last instanceof HTMLElement ? last.getBoundingClientRect().bottom : bottom };
}

/** All brackets with a track of their own, in reading order. */
export function drawnBrackets(
  editor: Editor,
  sheet: HTMLElement,
  brackets: readonly Bracket[],
  around: readonly Bracket[],
  variables: readonly Variable[],
): { readonly drawn: Drawn[]; readonly deepest: number } {
  const origin = sheet.getBoundingClientRect().top;
  const onTracks = flatten(brackets).filter(({ form }) => form !== 'phrase' && form !== 'inline-block');
  const deepest = Math.max(0, ...onTracks.map(({ level }) => level + 1));
  // Labels stand at their bracket's top, pushed down where they would touch.
  let free = -Infinity;
  const drawn = onTracks.flatMap((bracket): Drawn[] => {
    const box = boxOf(editor, bracket);
    // What is folded away has no height.
    if (!box || box.bottom - box.top < 4) return [];
    const label = bracketInWords(bracket, variables);
    const here = around.some((each) => sameBracket(each, bracket));
    const top = box.top - origin;
    let labelTop: number | undefined;
    if (deepest < DEEP || here) {
      labelTop = Math.max(top + 2, free);
      free = labelTop + LABEL_LINE * (label.length > LINE_LETTERS ? 2 : 1) + 2;
    }
    const kind = kindOf(
      bracket,
      variables.find(({ key }) => key === bracket.condition?.of),
    );
    return [{ bracket, kind, label, top, height: box.bottom - box.top, here, labelTop }];
  });
  return { drawn, deepest };
}

/** A place where an end of a bracket can be put: by how many blocks it would move, and how far down the window it is. */
export interface Boundary {
  readonly by: number;
  readonly y: number;
}

/** All places for an end of a bracket, from inside outwards. */
export function boundariesOf(editor: Editor, bracket: Bracket, end: End): Boundary[] {
  const { doc } = editor.state;
  const { form, from, to } = bracket;
  const edge = (pos: number, side: 'top' | 'bottom'): number | undefined => {
    const dom = editor.view.nodeDOM(pos);
    return dom instanceof HTMLElement ? dom.getBoundingClientRect()[side] : undefined;
  };
  const inside = form === 'passage' ? childPositions(doc.nodeAt(from), from + 1) : siblingsBetween(editor, from, to);
  const found: Boundary[] = [];
  const add = (by: number, y: number | undefined): void => void (y !== undefined && found.push({ by, y }));
  if (end === 'end') {
    inside.forEach((pos, index) => add(index + 1 - inside.length, edge(pos, 'bottom')));
    let at = to;
    for (let by = 1, next = doc.resolve(at).nodeAfter; next; by += 1) {
      add(by, edge(at, 'bottom'));
      at += next.nodeSize;
      next = doc.resolve(at).nodeAfter;
    }
  } else {
    inside.forEach((pos, index) => add(-index, edge(pos, 'top')));
    let at = from;
    for (let by = 1, before = doc.resolve(at).nodeBefore; before; by += 1) {
      at -= before.nodeSize;
      add(by, edge(at, 'top'));
      before = doc.resolve(at).nodeBefore;
    }
  }
  return found;
}

function childPositions(
  node: { forEach(visit: (child: unknown, offset: number) => void): void } | null,
  start: number,
): number[] {
  const positions: number[] = [];
  node?.forEach((_child, offset) => positions.push(start + offset));
  return positions;
}

function siblingsBetween(editor: Editor, from: number, to: number): number[] {
  const positions: number[] = [];
  for (let pos = from, node = editor.state.doc.nodeAt(pos); node && pos < to; node = editor.state.doc.nodeAt(pos)) {
    positions.push(pos);
    pos += node.nodeSize;
  }
  return positions;
}
