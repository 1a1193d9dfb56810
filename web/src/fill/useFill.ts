/** One message being filled, kept at every change. */
import type { Fill, OfferedValues } from '@vocabula/contract';
import { onBeforeUnmount, ref, watch } from 'vue';
import { api } from '../api/client';
import { useMessage } from './useMessage';

/** How long after the last keystroke an unfinished message is sent to be kept. */
const KEEP_AFTER_MS = 400;

export function useFill() {
  const worked = useMessage();
  const { fill, recipient, answers, offered, confirmed, changes, original, all } = worked;
  const keeping = ref<'kept' | 'keeping' | string>('kept');
  let timer: ReturnType<typeof setTimeout> | undefined;
  let loaded = false;

  function take(given: Fill): void {
    loaded = false;
    fill.value = given;
    recipient.value = { ...given.fields };
    answers.value = { ...given.answers };
    offered.value = { ...given.offered };
    confirmed.value = [...given.confirmed];
    changes.value = given.changes;
    original.value = given.original;
    all.value = given.all;
    queueMicrotask(() => {
      loaded = true;
    });
  }

  async function keep(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    const id = fill.value?.id;
    if (!id) return;
    keeping.value = 'keeping';
    try {
      const { standing } = await api.saveFill(id, {
        recipient: recipient.value,
        answers: answers.value as Record<string, never>,
        offered: offered.value as never,
        confirmed: confirmed.value,
        changes: changes.value,
        original: original.value ?? null,
        all: all.value,
      });
      // What became of its version meanwhile is said while one writes, not only on opening it again.
      if (fill.value?.id === id) fill.value = { ...fill.value, standing, state: 'unfinished' };
      keeping.value = 'kept';
    } catch (problem) {
      keeping.value = problem instanceof Error ? problem.message : 'not kept';
      timer = setTimeout(() => void keep(), 3000);
    }
  }
  watch(
    [recipient, answers, offered, confirmed, changes, original, all],
    () => {
      if (!loaded) return;
      clearTimeout(timer);
      keeping.value = 'keeping';
      timer = setTimeout(() => void keep(), KEEP_AFTER_MS);
    },
    { deep: true },
  );

  // Another recipient has another past.
  watch(
    () => recipient.value.email ?? '',
    async (address) => {
      const id = fill.value?.id;
      if (!loaded || !id) return;
      const found = await api.memory(id, address).catch((): OfferedValues => ({}));
      if ((recipient.value.email ?? '') !== address) return;
      const clipboard = Object.entries(offered.value).filter(([, { source }]) => source === 'clipboard');
      offered.value = { ...Object.fromEntries(clipboard), ...found };
      confirmed.value = confirmed.value.filter((key) => Object.hasOwn(answers.value, key));
    },
  );

  /** Sends what is not kept yet; to be awaited before the server renders. */
  const settled = async (): Promise<void> => {
    if (timer) await keep();
  };
  // Leaving, by whatever way, does not wait for the pause.
  const leave = (): void => void settled();
  window.addEventListener('pagehide', leave);
  onBeforeUnmount(() => {
    window.removeEventListener('pagehide', leave);
    leave();
  });
  return { ...worked, keeping, take, settled };
}
export type Filling = ReturnType<typeof useFill>;
