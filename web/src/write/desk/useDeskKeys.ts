import { useEventListener } from '@vueuse/core';
import type { Ref } from 'vue';
import { keyOf, undoKey } from '../../ui/keys';
import type { Proof } from '../proof/useProof';
import type { Manuscript } from '../useManuscript';
import type { Tab } from './tabs';
import type { Fields } from './useFields';
import type { Going } from './useGoing';
import type { Inserting } from './useInserting';
import type { Passages } from './usePassages';

interface Parts {
  readonly manuscript: Pick<Manuscript, 'settle' | 'chosen'>;
  readonly fields: Pick<Fields, 'undo' | 'redo'>;
  readonly proof: Pick<Proof, 'step' | 'upToDate'>;
  readonly inserting: Pick<Inserting, 'open'>;
  readonly going: Pick<Going, 'showFinding' | 'nextBlank' | 'finding'>;
  readonly passages: Pick<Passages, 'addAlternative'>;
  readonly tab: Ref<Tab>;
  readonly outlineAsked: Ref<number>;
  readonly showingValues: Ref<boolean>;
}

/** The keys of Write, wherever the focus is. */
export function useDeskKeys(parts: Parts): void {
  const { manuscript, fields, proof, inserting, going, passages, tab, outlineAsked, showingValues } = parts;
  /** Waits for the proof of what is written now, so that a key pressed right after a word counts that word. */
  function whenProved(what: 'message' | 'findings'): Promise<void> {
    manuscript.settle();
    return proof.upToDate(what);
  }
  type Act = (back: boolean) => unknown;
  const acts: Readonly<Record<string, Act>> = {
    insert: () => inserting.open(),
    recipient: (back) => proof.step(back ? -1 : 1),
    finding: (back) => whenProved('findings').then(() => going.showFinding(going.finding.value + (back ? -1 : 1))),
    blank: (back) => whenProved('message').then(() => going.nextBlank(back)),
    alternative: () => {
      manuscript.settle();
      passages.addAlternative(manuscript.chosen.value);
    },
    outline: () => (outlineAsked.value += 1),
    values: () => (showingValues.value = !showingValues.value),
    find: () => (tab.value = 'find'),
  };
  useEventListener('keydown', (event: KeyboardEvent) => {
    const steps = undoKey(event);
    const key = steps ? undefined : keyOf(event);
    if (!steps && (!key || key.id === 'call')) return;
    event.preventDefault();
    if (steps) fields[steps]();
    else if (key) void acts[key.id]?.(key.back);
  });
}
