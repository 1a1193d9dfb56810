/** What the worker makes of one case of a series. */
import { shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import type { SentSheet, ShownMessage, Which } from '../table/protocol';
import type { ProofingStore } from '../table/useProofing';

/** What is made of whichever case is meant, asked for again when its sheet, or what is asked, changes. */
export function useMade<T>(
  make: (which: Which) => Promise<T | undefined>,
  which: Ref<Which>,
  sheet: Ref<SentSheet | undefined>,
  ...more: Ref[]
): ShallowRef<T | undefined> {
  const made = shallowRef<T>();
  let asked = 0;
  watch(
    [which, sheet, ...more],
    async () => {
      asked += 1;
      const now = asked;
      const fresh = await make(which.value);
      if (asked === now) made.value = fresh;
    },
    { immediate: true },
  );
  return made;
}

/** The message of whichever case is meant. */
export const useShown = (
  proofing: ProofingStore,
  which: Ref<Which>,
  sheet: Ref<SentSheet | undefined>,
): ShallowRef<ShownMessage | undefined> => useMade((now) => proofing.message(now), which, sheet);
