/** One message being filled, kept at every change. */
import type { Fill, FillSummary, OfferedValues } from '@vocabula/contract';
import { computed, watch, shallowRef } from 'vue';
import { api } from '../api/client';
import { makeKeeper } from '../ui/keeper';
import { useMessage } from './useMessage';

type SavedFill = Parameters<typeof api.saveFill>[1];

/** A message that was refused waits for its next change: what was typed stays on the page. */
const keeper = makeKeeper<SavedFill, FillSummary>({ send: (id, values) => api.saveFill(id, values), refusal: 'hold' });

export function useFill() {
  const worked = useMessage();
  const { fill, recipient, answers, offered, confirmed, changes, original, all } = worked;
  /** True while a message is being taken over: that is no change of it. */
  let taking = false;
  keeper.hear({
    // What became of its version meanwhile is said while one writes, not only on opening it again.
    async kept(id, { standing, version }) {
      if (fill.value?.id !== id) return;
      const isOther = version !== fill.value.version;
      fill.value = { ...fill.value, standing, state: 'unfinished' };
      if (isOther) await takeVersion(id);
    },
  });

  function take(server: Fill): void {
    taking = true;
    // What waits to be kept of it is newer than what the server has.
    const { recipient: fields, ...rest } = keeper.waiting(server.id) ?? {};
    const given = { ...server, ...rest, ...(fields ? { fields } : {}) } as Fill;
    fill.value = given;
    recipient.value = { ...given.fields };
    answers.value = { ...given.answers };
    offered.value = { ...given.offered };
    confirmed.value = [...given.confirmed];
    changes.value = given.changes;
    original.value = given.original;
    all.value = given.all;
    taking = false;
  }
  /** Takes the version that a trial gives to this recipient. What was answered stays, also what was answered meanwhile. */
  async function takeVersion(id: string): Promise<void> {
    const given = await api.fill(id).catch(() => undefined);
    if (!given || fill.value?.id !== id) return;
    const { texts, house, signature, fixed, title, version, trial } = given;
    fill.value = { ...fill.value, texts, house, signature, fixed, title, version, trial };
  }
  /** Everything of the message as it is now; a copy, which goes on being of this moment. */
  const values = (): SavedFill =>
    JSON.parse(
      JSON.stringify({
        recipient: recipient.value,
        answers: answers.value,
        offered: offered.value,
        confirmed: confirmed.value,
        changes: changes.value,
        original: original.value ?? null,
        all: all.value,
      }),
    ) as SavedFill;
  watch(
    [recipient, answers, offered, confirmed, changes, original, all],
    () => {
      const id = fill.value?.id;
      if (!taking && id) keeper.keep(id, values());
    },
    // At the change itself: by the time of a later one something else may be shown.
    { deep: true, flush: 'sync' },
  );

  // Another recipient has another past.
  watch(
    () => recipient.value.email ?? '',
    async (address) => {
      const id = fill.value?.id;
      if (taking || !id) return;
      const found = await api.memory(id, address).catch((): OfferedValues => ({}));
      if (fill.value?.id !== id || (recipient.value.email ?? '') !== address) return;
      const clipboard = Object.entries(offered.value).filter(([, { source }]) => source === 'clipboard');
      offered.value = { ...Object.fromEntries(clipboard), ...found };
      confirmed.value = confirmed.value.filter((key) => Object.hasOwn(answers.value, key));
    },
    { flush: 'sync' },
  );

  const keeping = computed(() => keeper.stateOf(fill.value?.id ?? ''));
  /** Resolves when the server has the message as it is shown. @throws the problem, where it cannot have it */
  const settled = (id = fill.value?.id): Promise<void> => keeper.flush((each) => each === id);
  /** Who was typed last is looked for: until that is answered, what they bring is not known to be missing. */
  const recipientTaken = shallowRef<Promise<unknown>>();
  return { ...worked, keeping, take, settled, recipientTaken };
}
export type Filling = ReturnType<typeof useFill>;
