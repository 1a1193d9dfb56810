/** What a typed line finds: only the newest search counts, arrows move through it, and Enter waits for it. */
import { computed, ref, shallowRef, type ComputedRef, type Ref, type ShallowRef } from 'vue';

export interface Found<T> {
  readonly hits: Readonly<ShallowRef<readonly T[]>>;
  /** The index of the chosen hit. */
  readonly at: Ref<number>;
  readonly current: ComputedRef<T | undefined>;
  /** Why the last search failed, in words; empty where it did not. */
  readonly problem: Readonly<Ref<string>>;
  /** Searches; resolves when this search, or a newer one begun meanwhile, is answered. */
  find(words: string): Promise<void>;
  /** The chosen hit for the words as they stand: a search still under way is awaited first. */
  chosen(): Promise<T | undefined>;
  /** Moves the choice with the arrow keys; true where it did. */
  step(event: KeyboardEvent): boolean;
}

/** @param search finds the hits for some words, the likeliest first. */
export function useFound<T>(search: (words: string) => Promise<readonly T[]>): Found<T> {
  const hits = shallowRef<readonly T[]>([]);
  const at = ref(0);
  const problem = ref('');
  const current = computed(() => hits.value[at.value]);
  let newest: Promise<void> = Promise.resolve();

  function find(words: string): Promise<void> {
    const mine: Promise<void> = search(words).then(
      (found) => {
        if (mine !== newest) return newest;
        hits.value = found;
        at.value = 0;
        problem.value = '';
      },
      (error: unknown) => {
        if (mine !== newest) return newest;
        hits.value = [];
        problem.value = error instanceof Error ? error.message : 'The search failed.';
      },
    );
    newest = mine;
    return mine;
  }
  async function chosen(): Promise<T | undefined> {
    await newest;
    return current.value;
  }
  function step(event: KeyboardEvent): boolean {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0 || hits.value.length === 0) return false;
    event.preventDefault();
    at.value = (at.value + by + hits.value.length) % hits.value.length;
    return true;
  }
  return { hits, at, current, problem, find, chosen, step };
}
