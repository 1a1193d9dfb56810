/** What was just done, in the foot, with undo or another act where there is one. Stays until the next act. */
import { defineStore } from 'pinia';
import { ref } from 'vue';

type Work = () => Promise<void> | void;

export interface Notice {
  readonly words: string;
  /** What can be done about it: undone, mostly. */
  readonly act?: { readonly label: string; readonly run: Work };
  readonly problem?: boolean;
}

export const useNotice = defineStore('notice', () => {
  const current = ref<Notice>();
  const say = (words: string, undo?: Work): void => {
    current.value = { words, ...(undo ? { act: { label: 'Undo', run: undo } } : {}) };
  };
  /** Says something, and offers to do something about it. */
  const offer = (words: string, label: string, run: Work): void => {
    current.value = { words, act: { label, run } };
  };
  /** Says what went wrong, in the words of whatever failed. */
  const fail = (problem: unknown): void => {
    current.value = { words: problem instanceof Error ? problem.message : 'Something went wrong.', problem: true };
  };
  /** What is said once the place that one goes to has cleared what was said before. */
  let next: Notice | undefined;
  const sayThere = (words: string): void => void (next = { words });
  const clear = (): void => {
    current.value = next;
    next = undefined;
  };
  const run = async (): Promise<void> => {
    const act = current.value?.act;
    clear();
    try {
      await act?.run();
    } catch (problem) {
      fail(problem);
    }
  };
  return { current, say, sayThere, offer, fail, clear, run };
});
