import { ref, shallowRef, type Ref, type ShallowRef } from 'vue';

/** A list of the server's that several places show. */
export interface Fetched<T> {
  /** What came last; empty until something came. */
  readonly list: ShallowRef<readonly T[]>;
  /** Whether anything came yet. */
  readonly loaded: Ref<boolean>;
  /**
   * Fetches it anew; until it comes, the places go on with what came last. Of several that are under way, the one asked
   * for last wins.
   * @returns what came
   * @throws what the server said, where it refused; the list stays
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
