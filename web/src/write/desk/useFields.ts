/** The editors on the desk: the manuscript, and lines such as wordings. The one with the focus is what keys are about. */
import type { Editor } from '@tiptap/core';
import type { Transaction } from '@tiptap/pm/state';
import type { LineRef } from '@vocabula/core';
import { ref, shallowRef, type InjectionKey, type Ref, type ShallowRef } from 'vue';

export interface Fields {
  /** The manuscript's editor. */
  readonly main: Editor;
  /** The editor that had the focus last. */
  readonly active: Readonly<ShallowRef<Editor>>;
  /** The line that the active editor shows; undefined for the manuscript. */
  readonly line: Readonly<ShallowRef<LineRef | undefined>>;
  /** Counts what happens in any of them. */
  readonly beat: Readonly<Ref<number>>;
  enter(editor: Editor, line?: LineRef): void;
  /** Says that an editor is going away. */
  leave(editor: Editor): void;
  /** Says that something happened in an editor. */
  acted(editor: Editor, transaction: Transaction): void;
  undo(): void;
  redo(): void;
}

export const FIELDS: InjectionKey<Fields> = Symbol('fields');

export interface FieldEvents {
  /** `{{` was typed in the active editor, and is taken out again. */
  braces(): void;
  /** The selection, or what stands around it, may have moved. */
  moved(): void;
}

/** @param main the manuscript's editor, to which everything goes back. */
export function useFields(main: Editor, events: FieldEvents): Fields {
  const active = shallowRef(main);
  const line = shallowRef<LineRef>();
  const beat = ref(0);
  return {
    main,
    active,
    line,
    beat,
    enter(editor, shown) {
      active.value = editor;
      line.value = shown;
      beat.value += 1;
      events.moved();
    },
    leave(editor) {
      if (active.value !== editor) return;
      active.value = main;
      line.value = undefined;
    },
    acted(editor, transaction) {
      beat.value += 1;
      if (transaction.docChanged && bracesTyped(editor))
        queueMicrotask(() => {
          const { from } = editor.state.selection;
          editor.view.dispatch(editor.state.tr.delete(from - 2, from));
          events.braces();
        });
      events.moved();
    },
    undo: () => void main.commands.undo(),
    redo: () => void main.commands.redo(),
  };
}

function bracesTyped(editor: Editor): boolean {
  const { $from, empty } = editor.state.selection;
  const before = $from.parent.textBetween(0, $from.parentOffset, undefined, '\uFFFC');
  return empty && before.endsWith('{{') && $from.parent.type.name !== 'codeBlock';
}
