/** What was just done, in the foot, with undo where there is one. Stays until the next act. */
import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly words: string;
  readonly undo?: () => Promise<void> | void;
  readonly problem?: boolean;
}

export const useNotice = defineStore('notice', () => {
  const current = ref<Notice>();
  const say = (words: string, undo?: Notice['undo']): void => {
    current.value = { words, ...(undo ? { undo } : {}) };
  };
  /** Says what went wrong, in the words of whatever failed. */
  const fail = (problem: unknown): void => {
    current.value = { words: problem instanceof Error ? problem.message : 'Something went wrong.', problem: true };
  };
  const clear = (): void => {
    current.value = undefined;
  };
  const undo = async (): Promise<void> => {
    const act = current.value?.undo;
    clear();
    try {
      await act?.();
    } catch (problem) {
      fail(problem);
    }
  };
  return { current, say, fail, clear, undo };
});
