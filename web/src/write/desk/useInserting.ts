/** The insert list and the selection's bar: where they stand, and what comes of them. */
import type { Selection } from '@tiptap/pm/state';
import { NodeSelection } from '@tiptap/pm/state';
import type { LineRef } from '@vocabula/core';
import { computed, ref, type Ref } from 'vue';
import { useNotice } from '../../ui/notice';
import type { Point } from '../../ui/controls/atPoint';
import type { Insertion } from '../bar/insertions';
import type { Fields } from './useFields';
import { insert, make, type Making, type Spot } from './making';

export interface InsertingNeeds {
  readonly fields: () => Fields;
  /** The line that the active editor shows, if it is not the manuscript. */
  readonly line: () => LineRef | undefined;
  readonly beat: Ref<number>;
  /** What is put in by other means: a copy of a block. */
  readonly copyBlock: (name: string) => Promise<void>;
  readonly undo: () => void;
}

export function useInserting({ fields, line, beat, copyBlock, undo }: InsertingNeeds) {
  const notice = useNotice();
  const list = ref<Point>();
  const bar = ref<Point & { readonly focus: boolean }>();
  /** The selection whose bar was closed: it does not open by itself again until something else is selected. */
  let dismissed: Selection | undefined;

  const editor = () => fields().active.value;
  const spot = (): Spot => {
    const target = editor();
    const where = line();
    return { main: fields().main, target, ...(where ? { line: where } : {}) };
  };

  const words = computed(() => {
    void beat.value;
    const { doc, selection } = editor().state;
    return doc.textBetween(selection.from, selection.to, ' ');
  });
  /** True while words are selected, rather than nothing or a whole node. */
  const selected = computed(() => words.value.trim() !== '' && !(editor().state.selection instanceof NodeSelection));

  /** Below the beginning of what is selected. */
  function place(): Point {
    const { view, state } = editor();
    const { left, bottom } = view.coordsAtPos(state.selection.from);
    return { left, top: bottom };
  }
  function openList(): void {
    bar.value = undefined;
    list.value = place();
  }
  /** `Alt Enter`: the bar where words are selected, else the list. */
  function open(): void {
    if (selected.value) bar.value = { ...place(), focus: true };
    else openList();
  }
  /** The bar stands by the selection as soon as there is one; `Alt Enter` takes the keys to it. */
  function follow(): void {
    if (list.value) return;
    if (dismissed && !dismissed.eq(editor().state.selection)) dismissed = undefined;
    if (!selected.value) bar.value = undefined;
    else if (!bar.value?.focus && !dismissed) bar.value = { ...place(), focus: false };
  }
  function leave(): void {
    if (bar.value) dismissed = editor().state.selection;
    list.value = undefined;
    bar.value = undefined;
    editor().commands.focus();
  }
  function take(insertion: Insertion): void {
    list.value = undefined;
    editor().commands.focus();
    if (insertion.what === 'copy') void copyBlock(insertion.name).catch(notice.fail);
    else insert(spot(), insertion);
    editor().commands.focus();
  }
  function makeOf(making: Making): void {
    bar.value = undefined;
    notice.say(make(spot(), making), undo);
    editor().commands.focus();
  }
  return { list, bar, words, selected, openList, open, follow, leave, take, makeOf, spot };
}
export type Inserting = ReturnType<typeof useInserting>;
