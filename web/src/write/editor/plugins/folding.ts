/** What is folded away in the manuscript: passages closed to one line, and alternatives shown one at a time. */
import { Extension } from '@tiptap/core';
import type { Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection, Plugin, PluginKey, type EditorState, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet, type DecorationAttrs } from '@tiptap/pm/view';
import { firstWords, type Range } from '../operations/places';

/** Positions of passages that are folded, and of alternatives that another stands for. */
interface Folds {
  readonly folded: ReadonlySet<number>;
  readonly hidden: ReadonlySet<number>;
}
const NONE: Folds = { folded: new Set(), hidden: new Set() };
const folding = new PluginKey<Folds>('folding');

const isAlternative = (node: PmNode | null | undefined): boolean =>
  node?.type.name === 'passage' && (node.attrs.is as readonly string[]).length > 0;

/** The alternatives that stand together with the one at a position, by their positions. */
export function alternativesAt(doc: PmNode, pos: number): number[] {
  const own = doc.nodeAt(pos);
  if (!own || !isAlternative(own)) return [];
  const belongs = (node: PmNode | null): node is PmNode => isAlternative(node) && node?.attrs.of === own.attrs.of;
  const found = [pos];
  for (let $pos = doc.resolve(pos); belongs($pos.nodeBefore); $pos = doc.resolve(found[0] as number))
    found.unshift((found[0] as number) - $pos.nodeBefore.nodeSize);
  for (let end = pos + own.nodeSize, next = doc.nodeAt(end); belongs(next); next = doc.nodeAt(end)) {
    found.push(end);
    end += next.nodeSize;
  }
  return found;
}

export const foldsOf = (state: EditorState): Folds => folding.getState(state) ?? NONE;

const change = (state: EditorState, folds: Folds): Transaction =>
  state.tr.setMeta(folding, folds).setMeta('addToHistory', false);

/** Folds a passage, or opens it again. */
export function toggleFold(state: EditorState, pos: number): Transaction {
  const { folded, hidden } = foldsOf(state);
  const next = new Set(folded);
  if (!next.delete(pos)) next.add(pos);
  return change(state, { folded: next, hidden });
}

/** Folds every passage, or opens all. */
export function foldAll(state: EditorState, fold: boolean): Transaction {
  const folded = new Set<number>();
  if (fold)
    state.doc.descendants((node, pos) => {
      if (node.type.name === 'passage') folded.add(pos);
      return !node.isTextblock;
    });
  return change(state, { folded, hidden: foldsOf(state).hidden });
}

/** Shows one of the alternatives that stand together, and none of the others. */
export function showAlone(state: EditorState, pos: number): Transaction {
  const hidden = new Set(foldsOf(state).hidden);
  for (const each of alternativesAt(state.doc, pos)) hidden.add(each);
  hidden.delete(pos);
  return change(state, { folded: foldsOf(state).folded, hidden });
}

/** Shows all alternatives that stand together, one below the other. */
export function showStacked(state: EditorState, pos: number): Transaction {
  const hidden = new Set(foldsOf(state).hidden);
  for (const each of alternativesAt(state.doc, pos)) hidden.delete(each);
  return change(state, { folded: foldsOf(state).folded, hidden });
}

function mapped(positions: ReadonlySet<number>, tr: Transaction): ReadonlySet<number> {
  if (positions.size === 0 || !tr.docChanged) return positions;
  const next = new Set<number>();
  for (const pos of positions) {
    const result = tr.mapping.mapResult(pos);
    if (!result.deletedAfter && tr.doc.nodeAt(result.pos)?.type.name === 'passage') next.add(result.pos);
  }
  return next;
}

/** The caret is never where nobody sees it: what it goes into opens. */
function opened(folds: Folds, { selection, doc }: Transaction): Folds {
  if (folds.folded.size + folds.hidden.size === 0) return folds;
  const { $from } = selection;
  let { folded, hidden } = folds;
  const around = Array.from({ length: $from.depth }, (_, depth) => $from.before(depth + 1));
  if (selection instanceof NodeSelection) around.push(selection.from);
  for (const pos of around) {
    if (folded.has(pos) && !(selection instanceof NodeSelection && selection.from === pos)) {
      const next = new Set(folded);
      next.delete(pos);
      folded = next;
    }
    if (hidden.has(pos)) {
      const next = new Set(hidden);
      for (const each of alternativesAt(doc, pos)) next.add(each);
      next.delete(pos);
      hidden = next;
    }
  }
  return folded === folds.folded && hidden === folds.hidden ? folds : { folded, hidden };
}

export const Folding = Extension.create({
  name: 'folding',
  addProseMirrorPlugins: () => [
    new Plugin<Folds>({
      key: folding,
      state: {
        init: () => NONE,
        apply(tr, folds) {
          const set = tr.getMeta(folding) as Folds | undefined;
          const { folded, hidden } = set ?? folds;
          const [nowFolded, nowHidden] = [mapped(folded, tr), mapped(hidden, tr)];
          const now =
            nowFolded === folds.folded && nowHidden === folds.hidden ? folds : { folded: nowFolded, hidden: nowHidden };
          return tr.selectionSet || tr.docChanged ? opened(now, tr) : now;
        },
      },
      props: {
        decorations(state) {
          const { folded, hidden } = foldsOf(state);
          if (folded.size + hidden.size === 0) return undefined;
          const around = (positions: ReadonlySet<number>, attrs: (range: Range) => DecorationAttrs): Decoration[] =>
            [...positions].flatMap((from) => {
              const to = from + (state.doc.nodeAt(from)?.nodeSize ?? 0);
              return to > from ? [Decoration.node(from, to, attrs({ from, to }))] : [];
            });
          return DecorationSet.create(state.doc, [
            ...around(folded, (range) => ({ class: 'folded', 'data-words': firstWords(state.doc, range) })),
            ...around(hidden, () => ({ class: 'hidden' })),
          ]);
        },
      },
    }),
  ],
});
