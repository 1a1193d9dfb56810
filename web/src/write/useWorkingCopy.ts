/** A text's working copy: opened, kept within a second of each change, and what to do when somebody else saved. */
import type { Conflict } from '@vocabula/contract';
import type { TextDocument } from '@vocabula/core';
import { onUnmounted, ref, shallowRef } from 'vue';
import { api, ApiProblem } from '../api/client';
import { ensureText, putText } from '../ui/library';
import { whenInWords } from '../ui/today';

/** The longest that a change waits to be kept, in milliseconds. */
const KEEP_WITHIN = 700;
const RETRY_AFTER = 3000;

export function useWorkingCopy() {
  const name = ref('');
  const opened = shallowRef<TextDocument>();
  const state = ref('');
  const failed = ref(false);
  const conflict = shallowRef<Conflict>();
  let revision = 0;
  let waiting: TextDocument | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let saving: Promise<void> | undefined;

  async function open(wanted: string): Promise<void> {
    await flush();
    const copy = await api.text(wanted);
    await ensureText(wanted, true);
    name.value = wanted;
    revision = copy.revision;
    state.value = `kept ${whenInWords(copy.updatedAt)}`;
    failed.value = false;
    conflict.value = undefined;
    opened.value = copy.document;
  }

  /** Says that the document has changed. */
  function changed(document: TextDocument): void {
    waiting = document;
    state.value = 'keeping…';
    timer ??= setTimeout(() => void flush(), KEEP_WITHIN);
  }

  /** Sends what waits to be kept. */
  async function flush(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    await saving;
    if (!waiting || conflict.value) return;
    const document = waiting;
    waiting = undefined;
    saving = save(document);
    await saving;
    saving = undefined;
  }

  async function save(document: TextDocument): Promise<void> {
    try {
      const copy = await api.saveText(name.value, { document, revision });
      revision = copy.revision;
      putText(name.value, copy.document);
      state.value = `kept ${whenInWords(copy.updatedAt)}`;
      failed.value = false;
    } catch (problem) {
      waiting ??= document;
      failed.value = true;
      state.value = `not kept: ${problem instanceof Error ? problem.message : 'unknown'}`;
      if (problem instanceof ApiProblem && problem.conflict) conflict.value = problem.conflict;
      else timer ??= setTimeout(() => void flush(), RETRY_AFTER);
    }
  }

  /** Ends a conflict; the text that is not chosen is kept as a copy, so that nothing is lost. */
  async function settle(choice: 'mine' | 'theirs'): Promise<string> {
    const both = conflict.value;
    if (!both) return '';
    const mine = waiting ?? both.yours;
    const { title, kind } = both.theirs.document.attrs.front;
    const other = choice === 'mine' ? both.theirs.document : mine;
    const copy = await api.createText({
      kind,
      title: `${title} (${choice === 'mine' ? 'other' : 'my'} copy)`,
      document: other,
    });
    revision = both.theirs.revision;
    conflict.value = undefined;
    if (choice === 'mine') {
      waiting = mine;
      await flush();
    } else {
      waiting = undefined;
      await open(name.value);
    }
    return copy.document.attrs.front.title;
  }

  const leave = (event: BeforeUnloadEvent): void => {
    if (!waiting) return;
    void flush();
    event.preventDefault();
  };
  window.addEventListener('beforeunload', leave);
  onUnmounted(() => {
    window.removeEventListener('beforeunload', leave);
    void flush();
  });
  return { name, opened, state, failed, conflict, open, changed, flush, settle };
}
