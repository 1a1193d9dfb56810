/** A text's working copy: opened, kept within a second of each change, and what to do when somebody else saved. */
import type { Conflict, WorkingCopy } from '@vocabula/contract';
import { sameValue, type TextDocument } from '@vocabula/core';
import { onUnmounted, ref, shallowRef } from 'vue';
import { api, ApiProblem } from '../api/client';
import { ensureText, putText } from '../ui/library';
import { useKeeping } from '../ui/useKeeping';
import { whenInWords } from '../ui/today';
import { dropUnsent, keepUnsent, unsentOf } from './unsent';

/** The longest that a change waits to be kept, in milliseconds. */
const KEEP_WITHIN = 700;

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
  /** What waits under a name, for the time that a conflict is looked at. */
  const {
    keep,
    flush: flushAll,
    waiting,
    forget,
    release,
  } = useKeeping<TextDocument>({
    send: save,
    after: KEEP_WITHIN,
    within: KEEP_WITHIN,
    refused,
  });

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
    forget(wanted);
    revision.value = copy?.revision ?? unsent?.revision ?? 0;
    base = copy?.document ?? unsent?.base;
    if (copy) state.value = `kept ${whenInWords(copy.updatedAt)}`;
    if (!unsent || (copy && sameValue(copy.document, unsent.document))) {
      dropUnsent(wanted);
      opened.value = copy?.document;
      return;
    }
    opened.value = unsent.document;
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
    // Typed in the moment before the conflict was shown: it belongs to this side.
    if (conflict.value) conflict.value = { ...conflict.value, yours: document };
    if (failed.value) keepHere(document);
    else state.value = 'keeping…';
    if (!conflict.value) keep(name.value, document);
  }

  /** Keeps it in this browser. @returns whether that could be done */
  const keepHere = (document: TextDocument): boolean =>
    base !== undefined &&
    keepUnsent(name.value, { document, base: conflict.value?.base ?? base, revision: revision.value });

  /** Sends what waits to be kept. What went wrong is in the state, and is tried again. */
  const flush = (): Promise<void> => flushAll().catch(() => undefined);

  async function save(id: string, document: TextDocument): Promise<void> {
    // A text that is shown no more is kept in this browser until it is opened again: its revision is known there.
    if (id !== name.value) return;
    try {
      const copy = await api.saveText(id, { document, revision: revision.value });
      putText(id, copy.document, true);
      if (id !== name.value) return;
      revision.value = copy.revision;
      base = copy.document;
      failed.value = false;
      // What was written meanwhile is on its way.
      if (waiting(id)) {
        state.value = 'keeping…';
        return;
      }
      state.value = `kept ${whenInWords(copy.updatedAt)}`;
      dropUnsent(id);
    } catch (problem) {
      if (id === name.value) told(waiting(id) ?? document, problem);
      throw problem;
    }
  }
  /** Says why it is not kept, and keeps it in this browser. */
  function told(document: TextDocument, problem: unknown): void {
    failed.value = true;
    const here = keepHere(document);
    state.value =
      here && isOffline(problem)
        ? 'not connected: kept in this browser'
        : `not kept: ${problem instanceof Error ? problem.message : 'unknown'}`;
  }
  /** A conflict is for somebody to settle; any other refusal waits for the next change. */
  function refused(id: string, document: TextDocument, problem: unknown): 'hold' | 'drop' {
    if (id !== name.value) return 'drop';
    if (problem instanceof ApiProblem && problem.conflict)
      conflict.value = { ...problem.conflict, yours: waiting(id) ?? document, base };
    return 'hold';
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
    const keepCopy = async (other: TextDocument, words: string): Promise<string> => {
      const copy = await api.createText({ kind, title: `${title} (${words})`, document: other });
      return copy.document.attrs.front.title;
    };
    const titles: string[] = [];
    if (losesTheirs) titles.push(await keepCopy(both.theirs.document, 'other copy'));
    if (losesMine) titles.push(await keepCopy(both.yours, 'my copy'));
    revision.value = both.theirs.revision;
    base = both.theirs.document;
    conflict.value = undefined;
    forget(name.value);
    keep(name.value, document);
    release(name.value);
    await flush();
    return titles;
  }

  const leave = (event: BeforeUnloadEvent): void => {
    const document = waiting(name.value);
    if (!document) return;
    // Kept here already, it waits for the next visit; else the browser asks before it goes.
    if (!keepHere(document)) event.preventDefault();
  };
  window.addEventListener('beforeunload', leave);
  onUnmounted(() => window.removeEventListener('beforeunload', leave));
  return { name, opened, revision, state, failed, conflict, open, changed, flush, settle };
}
