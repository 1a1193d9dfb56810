/**
 * The edges of phrases. Between two letters there may be several places to type: inside a phrase, behind it, between
 * two. One press of an arrow key goes from one to the next without passing a letter, and the phrases that the caret is
 * in are shown as such.
 */
import { Extension } from '@tiptap/core';
import type { Mark, ResolvedPos } from '@tiptap/pm/model';
import { Plugin, PluginKey, TextSelection, type EditorState, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet, type EditorView } from '@tiptap/pm/view';

const isPhrase = (mark: Mark): boolean => mark.type.name === 'phrase';
const phrasesOf = (marks: readonly Mark[] | undefined): Mark[] => (marks ?? []).filter(isPhrase);
const has = (marks: readonly Mark[], mark: Mark): boolean => marks.some((each) => each.eq(mark));
const sameSet = (a: readonly Mark[], b: readonly Mark[]): boolean =>
  a.length === b.length && a.every((mark) => has(b, mark));

const withPhrases = (marks: readonly Mark[], phrases: readonly Mark[]): readonly Mark[] =>
  phrases.reduce<readonly Mark[]>((all, mark) => mark.addToSet(all), marks);

/** The phrases that something typed at the caret would be in. */
export const phrasesAtCaret = ({ selection, storedMarks }: EditorState): Mark[] =>
  phrasesOf(storedMarks ?? selection.$from.marks());

/** The places to type between two neighbours, from left to right, each as the phrases it is in. */
export function placesAt($pos: ResolvedPos): readonly (readonly Mark[])[] {
  if (!$pos.parent.isTextblock || $pos.textOffset > 0) return [phrasesOf($pos.marks())];
  const before = phrasesOf($pos.nodeBefore?.marks);
  const after = phrasesOf($pos.nodeAfter?.marks);
  const closing = before.filter((mark) => !has(after, mark)).reverse();
  const opening = after.filter((mark) => !has(before, mark));
  const places: (readonly Mark[])[] = [before];
  for (const mark of closing) places.push((places.at(-1) ?? []).filter((each) => !each.eq(mark)));
  for (const mark of opening) places.push(mark.addToSet(places.at(-1) ?? []));
  return places;
}

/** Which of the places the caret is at. */
function placeOf(state: EditorState, places: readonly (readonly Mark[])[]): number {
  const now = phrasesAtCaret(state);
  return Math.max(
    0,
    places.findIndex((place) => sameSet(place, now)),
  );
}

type Direction = 'forward' | 'back';
const edges = new PluginKey<Direction | undefined>('edges');

/** The way an arrow leads in the text, which may run from right to left. */
function directionOf(view: EditorView, key: string): Direction | undefined {
  if (key !== 'ArrowLeft' && key !== 'ArrowRight') return undefined;
  const { node } = view.domAtPos(view.state.selection.head);
  const element = node instanceof Element ? node : node.parentElement;
  const rtl = element !== null && getComputedStyle(element).direction === 'rtl';
  return (key === 'ArrowRight') === rtl ? 'back' : 'forward';
}

/** The browser tells of a moved caret after it has moved it: a quick second press must not count from where it was. */
function catchUp(view: EditorView): void {
  const shown = view.dom.ownerDocument.getSelection();
  if (!shown?.isCollapsed || !shown.focusNode || !view.dom.contains(shown.focusNode)) return;
  const { selection, doc, tr } = view.state;
  if (!(selection instanceof TextSelection) || !selection.empty) return;
  const at = view.posAtDOM(shown.focusNode, shown.focusOffset);
  if (at === selection.head || at < 0 || at > doc.content.size || !doc.resolve(at).parent.isTextblock) return;
  view.dispatch(tr.setSelection(TextSelection.create(doc, at)));
}

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/;
const letters = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/**
 * Where the caret comes to over the next letter, if that is an edge. Nothing otherwise, or where the text runs both
 * ways: then the browser knows better which letter is next.
 */
function passing($pos: ResolvedPos, direction: Direction): ResolvedPos | undefined {
  const node = direction === 'forward' ? $pos.nodeAfter : $pos.nodeBefore;
  if (!node?.isText || RIGHT_TO_LEFT.test($pos.parent.textContent)) return undefined;
  const clusters = [...letters.segment(node.text ?? '')];
  const letter = (direction === 'forward' ? clusters[0] : clusters.at(-1))?.segment.length ?? 0;
  const $arrival = $pos.doc.resolve($pos.pos + (direction === 'forward' ? letter : -letter));
  return placesAt($arrival).length > 1 ? $arrival : undefined;
}

function onArrow(view: EditorView, event: KeyboardEvent): boolean {
  if (event.shiftKey || event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return false;
  const direction = directionOf(view, event.key);
  if (direction) catchUp(view);
  const { state } = view;
  const { selection } = state;
  if (!direction || !(selection instanceof TextSelection) || !selection.empty) return false;
  const places = placesAt(selection.$from);
  const next = placeOf(state, places) + (direction === 'forward' ? 1 : -1);
  const place = places[next];
  if (!place) {
    // The caret passes a letter; where it arrives, it is still on the side it came from.
    const arrival = passing(selection.$from, direction);
    if (arrival) {
      const there = placesAt(arrival);
      const form = arrival.marks().filter((mark) => !isPhrase(mark));
      const side = (direction === 'forward' ? there[0] : there.at(-1)) ?? [];
      view.dispatch(
        state.tr.setSelection(new TextSelection(arrival)).setStoredMarks(withPhrases(form, side)).scrollIntoView(),
      );
      return true;
    }
    view.dispatch(state.tr.setMeta(edges, direction));
    return false;
  }
  const form = (state.storedMarks ?? selection.$from.marks()).filter((mark) => !isPhrase(mark));
  view.dispatch(state.tr.setStoredMarks(withPhrases(form, place)));
  return true;
}

/** Shows which phrases the caret is in. */
function decorations(state: EditorState): DecorationSet | undefined {
  const { selection } = state;
  if (!selection.empty || !selection.$from.parent.isTextblock) return undefined;
  const { $from } = selection;
  const found: Decoration[] = [];
  for (const mark of phrasesAtCaret(state)) {
    let from = -1;
    let to = -1;
    $from.parent.forEach((node, offset) => {
      const start = $from.start() + offset;
      if (!mark.isInSet(node.marks)) return;
      if (to !== start) {
        // An earlier run of the same condition that does not reach the caret is another phrase.
        if (from >= 0 && to >= $from.pos) return;
        from = start;
      }
      to = start + node.nodeSize;
    });
    if (from <= $from.pos && to >= $from.pos) found.push(Decoration.inline(from, to, { class: 'here' }));
  }
  return found.length > 0 ? DecorationSet.create(state.doc, found) : undefined;
}

export const Edges = Extension.create({
  name: 'edges',
  priority: 900,
  addProseMirrorPlugins: () => [
    new Plugin<Direction | undefined>({
      key: edges,
      state: {
        init: () => undefined,
        apply: (tr, direction) =>
          (tr.getMeta(edges) as Direction | undefined) ?? (tr.selectionSet || tr.docChanged ? undefined : direction),
      },
      props: {
        handleKeyDown: onArrow,
        decorations,
        handleDOMEvents: {
          // Marks are not stored while composing, which that would end; they are when it is over.
          compositionend(view) {
            setTimeout(() => {
              if (view.isDestroyed || view.composing) return;
              const tr = staying(view.state, phrasesOf(view.state.selection.$from.nodeBefore?.marks));
              if (tr) view.dispatch(tr);
            });
            return false;
          },
        },
      },
      appendTransaction(transactions, before, state) {
        if (!(state.selection instanceof TextSelection) || !state.selection.empty) return null;
        const changing = transactions.filter((tr) => tr.docChanged);
        if (
          changing.some((tr) => tr.getMeta('composition') !== undefined || tr.getMeta('history$') || tr.storedMarksSet)
        )
          return null;
        // What is typed stays on the side where typing began.
        if (changing.length > 0) return staying(state, phrasesAtCaret(before));
        const direction = edges.getState(before);
        if (!direction || !transactions.some((tr) => tr.selectionSet)) return null;
        const places = placesAt(state.selection.$from);
        return staying(state, (direction === 'forward' ? places[0] : places.at(-1)) ?? []);
      },
    }),
  ],
});

/** Keeps the caret in phrases, if that is one of the places where it stands; nothing where it is there by itself. */
function staying(state: EditorState, phrases: readonly Mark[]): Transaction | null {
  const places = placesAt(state.selection.$from);
  const place = places.length > 1 ? places.find((each) => sameSet(each, phrases)) : undefined;
  if (!place || sameSet(phrasesAtCaret(state), place)) return null;
  const form = (state.storedMarks ?? state.selection.$from.marks()).filter((mark) => !isPhrase(mark));
  return state.tr.setStoredMarks(withPhrases(form, place));
}
