/** Remarks on words of the manuscript: found by what they quote, shown in it, settled beside it. */
import type { Editor } from '@tiptap/core';
import type { Quote, Remark } from '@vocabula/contract';
import { computed, shallowRef, type Ref } from 'vue';
import { api } from '../../api/client';
import { useNotice } from '../../ui/notice';
import { remark as markRemarks } from '../editor/plugins/highlights';
import { findQuote, quoteOf } from '../editor/operations/quotes';
import { goTo, type Range } from '../editor/operations/places';

export function useRemarks(editor: Editor, name: Readonly<Ref<string>>) {
  const notice = useNotice();
  const all = shallowRef<readonly Remark[]>([]);
  const open = computed(() => all.value.filter(({ settled }) => !settled));

  async function load(): Promise<void> {
    all.value = await api.remarks(name.value);
    mark();
  }
  /** Shows the words that open remarks hang on; a remark whose words are gone is in the list only. */
  function mark(): void {
    const ranges = open.value.flatMap(({ quote }) => findQuote(editor.state.doc, quote) ?? []);
    editor.view.dispatch(markRemarks(editor.state, ranges));
  }
  const rangeOf = ({ quote }: Remark): Range | undefined => findQuote(editor.state.doc, quote);

  /** The words of the selection, as a remark quotes them; undefined where none are selected. */
  const selected = (): Quote | undefined => quoteOf(editor.state.doc, editor.state.selection);

  async function make(quote: Quote, body: string): Promise<void> {
    all.value = [...all.value, await api.makeRemark(name.value, { quote, body })];
    mark();
  }
  async function change(remark: Remark, how: { settled?: boolean; reply?: string }): Promise<void> {
    try {
      const changed = await api.changeRemark(name.value, remark.id, how);
      all.value = all.value.map((each) => (each.id === remark.id ? changed : each));
      mark();
      if (how.settled) notice.say('Resolved.', () => change(remark, { settled: false }));
    } catch (problem) {
      notice.fail(problem);
    }
  }
  function show(remark: Remark): void {
    const range = rangeOf(remark);
    if (range) goTo(editor, range);
    else notice.say('Its words are no longer in the text.');
  }
  return { all, open, load, selected, make, change, show, rangeOf };
}
