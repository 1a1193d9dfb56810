/** A block's own words, open where it is included: which one, and where it stands in the manuscript. */
import type { TextSummary } from '@vocabula/contract';
import type { Editor } from '@tiptap/core';
import { NodeSelection } from '@tiptap/pm/state';
import { nextTick, shallowRef, type Ref } from 'vue';
import { labels } from '../editor/views/labels';

export interface OpenBlock {
  readonly name: string;
  /** The element that the manuscript shows the block in. */
  readonly host: HTMLElement;
}

export function useBlockInPlace(editor: Editor, texts: Ref<readonly TextSummary[]>) {
  const opened = shallowRef<OpenBlock>();
  const mayOpen = (name: string): boolean => texts.value.some((text) => text.name === name && text.mayWrite);

  /** Opens the block that stands at a position, where there is one that may be written. */
  async function open(pos: number): Promise<void> {
    const node = editor.state.doc.nodeAt(pos);
    const name = String(node?.attrs.name ?? '');
    if (!node?.type.name.toLowerCase().endsWith('inclusion') || !mayOpen(name)) return;
    if (opened.value) await close();
    const host = editor.view.nodeDOM(pos);
    if (!(host instanceof HTMLElement)) return;
    // What is typed before its own editor is there must not go over the selected block.
    editor.view.dom.blur();
    host.dataset.open = '';
    opened.value = { name, host };
  }
  /** Closes it. The block shows what its words are now, and is selected. */
  async function close(): Promise<void> {
    const last = opened.value;
    opened.value = undefined;
    await nextTick();
    if (!last) return;
    delete last.host.dataset.open;
    labels.refresh();
    if (!last.host.isConnected) return;
    const pos = editor.view.posAtDOM(last.host, 0);
    const { doc, tr } = editor.state;
    // A block's place is told from inside it or from before it, as it stands in a line or by itself.
    const at = [pos, pos - 1].find((each) => doc.nodeAt(each)?.attrs.name === last.name);
    if (at !== undefined) editor.view.dispatch(tr.setSelection(NodeSelection.create(doc, at)));
    editor.view.focus();
  }
  // What is shown elsewhere by now, as after an undo, is open no more.
  editor.on('transaction', () => {
    if (opened.value && !opened.value.host.isConnected) opened.value = undefined;
  });
  return { opened, mayOpen, open, close };
}

export type BlockInPlace = ReturnType<typeof useBlockInPlace>;
