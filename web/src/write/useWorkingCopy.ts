/** A text's working copy: opened, kept within a second of each change, and what to do when somebody else saved. */
import { useEventListener } from '@vueuse/core';
import type { Conflict, WorkingCopy } from '@vocabula/contract';
import { sameValue, type TextDocument } from '@vocabula/core';
import { ref, shallowRef } from 'vue';
import { api, ApiProblem } from '../api/client';
import { ensureText, putText } from '../ui/library';
import { makeKeeper, type Refusal } from '../ui/keeper';
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

/** Of each text that was opened: what the server has, and its revision. */
const known = new Map<string, { readonly base: TextDocument; readonly revision: number }>();
const keeper = makeKeeper<TextDocument, WorkingCopy>({ send, after: KEEP_WITHIN, within: KEEP_WITHIN });
async function send(id: string, document: TextDocument): Promise<WorkingCopy> {
  try {
    const copy = await api.saveText(id, { document, revision: known.get(id)?.revision ?? 0 });
    known.set(id, { base: copy.document, revision: copy.revision });
    putText(id, copy.document, true);
    if (!keeper.waiting(id)) dropUnsent(id);
    return copy;
  } catch (problem) {
    keepHere(id, keeper.waiting(id) ?? document);
    throw problem;
  }
}
/** Keeps it in this browser. @returns whether that could be done */
function keepHere(id: string, document: TextDocument, base = known.get(id)?.base): boolean {
  return base !== undefined && keepUnsent(id, { document, base, revision: known.get(id)?.revision ?? 0 });
}

export function useWorkingCopy() {
  const name = ref('');
  const opened = shallowRef<TextDocument>();
  const state = ref('');
  const failed = ref(false);
  const conflict = shallowRef<Clash>();
  const revision = ref(0);
  keeper.hear({
    kept(id, copy) {
      if (id !== name.value) return;
      revision.value = copy.revision;
      failed.value = false;
      // What was written meanwhile is on its way.
      state.value = keeper.waiting(id) ? 'keeping…' : `kept ${whenInWords(copy.updatedAt)}`;
    },
    failed: (id, _, problem) => id === name.value && told(problem),
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
    // What the browser keeps of it is all that waits; where it keeps nothing, what waits goes on waiting.
    if (unsent) keeper.forget(wanted);
    const waits = keeper.waiting(wanted);
    const base = copy?.document ?? unsent?.base;
    // What waits was made from what was known then: with a newer revision it would go over what somebody else saved.
    if (base && !waits) known.set(wanted, { base, revision: copy?.revision ?? unsent?.revision ?? 0 });
    revision.value = known.get(wanted)?.revision ?? 0;
    if (copy) state.value = `kept ${whenInWords(copy.updatedAt)}`;
    if (!unsent || (copy && sameValue(copy.document, unsent.document))) {
      dropUnsent(wanted);
      opened.value = waits ?? copy?.document;
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
    if (failed.value) keepHere(name.value, document, conflict.value?.base);
    else state.value = 'keeping…';
    if (!conflict.value) keeper.keep(name.value, document);
  }

  /** Sends what waits to be kept. What went wrong is in the state, and is tried again. */
  const flush = (): Promise<void> => keeper.flush().catch(() => undefined);

  /** Says why it is not kept. */
  function told(problem: unknown): void {
    failed.value = true;
    state.value =
      isOffline(problem) && unsentOf(name.value)
        ? 'not connected: kept in this browser'
        : `not kept: ${problem instanceof Error ? problem.message : 'unknown'}`;
  }
  /** A conflict is for somebody to settle; any other refusal waits for the next change. */
  function refused(id: string, document: TextDocument, problem: unknown): Refusal {
    // A text that is shown no more stays in this browser until it is opened again.
    if (id !== name.value) return 'drop';
    told(problem);
    if (problem instanceof ApiProblem && problem.conflict) {
      // What waited is refused as well, later: what was typed since is newer than either.
      const yours = conflict.value?.yours ?? keeper.waiting(id) ?? document;
      conflict.value = { ...problem.conflict, yours, base: known.get(id)?.base };
    }
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
    known.set(name.value, { base: both.theirs.document, revision: revision.value });
    conflict.value = undefined;
    keeper.forget(name.value);
    keeper.keep(name.value, document);
    await flush();
    return titles;
  }

  const leave = (event: BeforeUnloadEvent): void => {
    const document = keeper.waiting(name.value);
    if (!document) return;
    // Kept here already, it waits for the next visit; else the browser asks before it goes.
    if (!keepHere(name.value, document)) event.preventDefault();
  };
  useEventListener('beforeunload', leave);
  return { name, opened, revision, state, failed, conflict, open, changed, flush, settle };
}
