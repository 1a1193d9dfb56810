/** The message of one case of a series. */
import { shallowRef, watch, type Ref } from 'vue';
import type { SentSheet, ShownMessage, Which } from '../table/protocol';
import type { ProofingStore } from '../table/useProofing';

/** The message of whichever case is meant, fetched again when its sheet changes. */
export function useShown(proofing: ProofingStore, which: Ref<Which>, sheet: Ref<SentSheet | undefined>) {
  const message = shallowRef<ShownMessage>();
  watch(
    [which, sheet],
    async () => {
      const now = which.value;
      const shown = await proofing.message(now);
      if (which.value === now) message.value = shown;
    },
    { immediate: true },
  );
  return message;
}
