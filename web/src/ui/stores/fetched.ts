import { ref, shallowRef, type Ref, type ShallowRef } from 'vue';

/** A list from the server, shared by several places. */
export interface Fetched<T> {
  /** The last answer; empty before the first. */
  readonly list: ShallowRef<readonly T[]>;
  /** Whether there was an answer yet. */
  readonly loaded: Ref<boolean>;
  /**
   * Fetches the list. The old one stays until the answer comes; of several requests at once, the latest wins.
   * @returns the latest list
   * @throws ApiProblem if the server refuses; the list stays
   */
  readonly load: () => Promise<readonly T[]>;
}

/** The body of a store that holds one list. */
export function fetchedList<T>(fetch: () => Promise<readonly T[]>): Fetched<T> {
  const list = shallowRef<readonly T[]>([]);
  const loaded = ref(false);
  let asked = 0;
  const load = async (): Promise<readonly T[]> => {
    const mine = (asked += 1);
    const found = await fetch();
    if (mine === asked) {
      list.value = found;
      loaded.value = true;
    }
    return found;
  };
  return { list, loaded, load };
}
