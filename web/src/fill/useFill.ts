/** One message being filled, kept at every change. */
import type { Fill, OfferedValues } from '@vocabula/contract';
import { effectScope, onScopeDispose, watch } from 'vue';
import { api } from '../api/client';
import { useKeeping, type Keeping } from '../ui/useKeeping';
import { useMessage } from './useMessage';

type SavedFill = Parameters<typeof api.saveFill>[1];

/**
 * One saver for all messages and pages of filling: a page that was left and the one that is open never try to keep two
 * states of one message against each other.
 */
let keeper: Keeping<SavedFill> | undefined;
let told: (id: string, standing: Fill['standing']) => void = () => undefined;
const sharedKeeper = (): Keeping<SavedFill> =>
  effectScope(true).run(() =>
    useKeeping<SavedFill>({
      async send(id, values) {
        told(id, (await api.saveFill(id, values)).standing);
      },
      refused: () => 'hold',
    }),
  ) as Keeping<SavedFill>;

export function useFill() {
  const worked = useMessage();
  const { fill, recipient, answers, offered, confirmed, changes, original, all } = worked;
  /** True while a message is being taken over: that is no change of it. */
  let taking = false;
  const { state, keep, flush, waiting } = (keeper ??= sharedKeeper());
  told = (id, standing) => {
    // What became of its version meanwhile is said while one writes, not only on opening it again.
    if (fill.value?.id === id) fill.value = { ...fill.value, standing, state: 'unfinished' };
  };
  // Leaving does not wait for the pause; what cannot be sent now is tried again.
  onScopeDispose(() => void flush().catch(() => undefined));

  function take(server: Fill): void {
    taking = true;
    // What waits to be kept of it is newer than what the server has.
    const { recipient: fields, ...rest } = waiting(server.id) ?? {};
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
      if (!taking && id) keep(id, values());
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

  return { ...worked, keeping: state, take, settled: flush };
}
export type Filling = ReturnType<typeof useFill>;
