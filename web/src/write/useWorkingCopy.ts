/** A text's working copy: opened, kept within a second of each change, and what to do when somebody else saved. */
import type { Conflict, WorkingCopy } from '@vocabula/contract';
import { sameValue, type TextDocument } from '@vocabula/core';
import { onUnmounted, ref, shallowRef } from 'vue';
import { api, ApiProblem } from '../api/client';
import { ensureText, putText } from '../ui/library';
import { whenInWords } from '../ui/today';
import { dropUnsent, keepUnsent, unsentOf } from './unsent';

/** The longest that a change waits to be kept, in milliseconds. */
const KEEP_WITHIN = 700;
const RETRY_AFTER = 3000;

/** Both texts of a conflict, and the one they came from. */
export type Clash = Conflict & { readonly base: TextDocument | undefined };
/** What a conflict ended in, and whose words are not all in it. */
export interface Settled {
  readonly document: TextDocument;
  readonly losesMine: boolean;
  readonly losesTheirs: boolean;
}

const isOffline = (problem: unknown): boolean => problem instanceof ApiProblem && problem.code === 'offline';

export function useWorkingCopy() {
  const name = ref('');
  const opened = shallowRef<TextDocument>();
  const state = ref('');
  const failed = ref(false);
  const conflict = shallowRef<Clash>();
  const revision = ref(0);
  /** What the server has under that revision. */
  let base: TextDocument | undefined;
  let waiting: TextDocument | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let saving: Promise<void> | undefined;

  async function open(wanted: string): Promise<void> {
    await flush();
    const unsent = unsentOf(wanted);
    const copy = await fetched(wanted).catch((problem: unknown) => {
      if (unsent && isOffline(problem)) return undefined;
      throw problem;
    });
    name.value = wanted;
    failed.value = false;
    conflict.value = undefined;
    waiting = undefined;
    revision.value = copy?.revision ?? unsent?.revision ?? 0;
    base = copy?.document ?? unsent?.base;
    if (copy) state.value = `kept ${whenInWords(copy.updatedAt)}`;
    if (!unsent || (copy && sameValue(copy.document, unsent.document))) {
      dropUnsent(wanted);
      opened.value = copy?.document;
      return;
    }
    opened.value = unsent.document;
    waiting = unsent.document;
    if (copy && copy.revision !== unsent.revision)
      conflict.value = { yours: unsent.document, theirs: copy, base: unsent.base };
    else changed(unsent.document);
  }
  async function fetched(wanted: string): Promise<WorkingCopy> {
    const copy = await api.text(wanted);
    await ensureText(wanted, true);
    return copy;
  }

  /** Says that the document has changed. */
  function changed(document: TextDocument): void {
    waiting = document;
    // Typed in the moment before the conflict was shown: it belongs to this side.
    if (conflict.value) conflict.value = { ...conflict.value, yours: document };
    if (failed.value) keepHere(document);
    else state.value = 'keeping…';
    timer ??= setTimeout(() => void flush(), KEEP_WITHIN);
  }

  /** Keeps it in this browser. @returns whether that could be done */
  const keepHere = (document: TextDocument): boolean =>
    base !== undefined &&
    keepUnsent(name.value, { document, base: conflict.value?.base ?? base, revision: revision.value });

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
      const copy = await api.saveText(name.value, { document, revision: revision.value });
      revision.value = copy.revision;
      base = copy.document;
      putText(name.value, copy.document, true);
      failed.value = false;
      // What was written meanwhile is on its way.
      if (waiting) {
        state.value = 'keeping…';
        return;
      }
      state.value = `kept ${whenInWords(copy.updatedAt)}`;
      dropUnsent(name.value);
    } catch (problem) {
      waiting ??= document;
      failed.value = true;
      const here = keepHere(waiting);
      state.value =
        here && isOffline(problem)
          ? 'not connected: kept in this browser'
          : `not kept: ${problem instanceof Error ? problem.message : 'unknown'}`;
      if (problem instanceof ApiProblem && problem.conflict)
        conflict.value = { ...problem.conflict, yours: waiting, base };
      else timer ??= setTimeout(() => void flush(), RETRY_AFTER);
    }
  }

  /**
   * Ends a conflict. Where a side's words are not all in the text that was settled on, that side is kept as a copy,
   * so that nothing is lost.
   * @returns the titles of the copies
   */
  async function settle({ document, losesMine, losesTheirs }: Settled): Promise<string[]> {
    const both = conflict.value;
    if (!both) return [];
    const { title, kind } = both.theirs.document.attrs.front;
    const keep = async (other: TextDocument, words: string): Promise<string> => {
      const copy = await api.createText({ kind, title: `${title} (${words})`, document: other });
      return copy.document.attrs.front.title;
    };
    const titles: string[] = [];
    if (losesTheirs) titles.push(await keep(both.theirs.document, 'other copy'));
    if (losesMine) titles.push(await keep(both.yours, 'my copy'));
    revision.value = both.theirs.revision;
    base = both.theirs.document;
    conflict.value = undefined;
    waiting = document;
    await flush();
    return titles;
  }

  const leave = (event: BeforeUnloadEvent): void => {
    if (!waiting) return;
    // Kept here already, it waits for the next visit; else the browser asks before it goes.
    if (keepHere(waiting)) void flush();
    else event.preventDefault();
  };
  const connected = (): void => void (failed.value && flush());
  window.addEventListener('beforeunload', leave);
  window.addEventListener('online', connected);
  onUnmounted(() => {
    window.removeEventListener('beforeunload', leave);
    window.removeEventListener('online', connected);
    void flush();
  });
  return { name, opened, revision, state, failed, conflict, open, changed, flush, settle };
}
