/** One message being filled: its answers, its questions, its preview, kept at every change. */
import type { Fill } from '@vocabula/contract';
import { compile, questions, render, type Program } from '@vocabula/core';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { api } from '../api/client';
import { lookOf } from '../ui/look';
import { useMe } from '../ui/me';
import { today, zone } from '../ui/today';

/** How long after the last keystroke an unfinished message is sent to be kept. */
const KEEP_AFTER_MS = 400;

export function useFill() {
  const me = useMe();
  const fill = shallowRef<Fill>();
  const recipient = ref<Record<string, string>>({});
  const answers = ref<Record<string, unknown>>({});
  const keeping = ref<'kept' | 'keeping' | string>('kept');
  let timer: ReturnType<typeof setTimeout> | undefined;
  let loaded = false;

  const program = computed<Program | undefined>(() => {
    const own = fill.value?.texts[0];
    if (!own || !fill.value) return undefined;
    const { texts, signature, house } = fill.value;
    return compile(own, {
      library: { get: (name) => texts.find((text) => text.name === name)?.document },
      senderSignature: signature,
      house,
    });
  });
  const input = computed(() => ({
    recipient: recipient.value,
    sender: me.fields(),
    answers: answers.value,
    today: today(),
    zone: zone(),
  }));
  const asked = computed(() => (program.value ? questions(program.value, input.value) : []));
  const message = computed(() => program.value && render(program.value, input.value, { proof: true }));
  const look = computed(() => program.value && lookOf(program.value));

  function take(given: Fill): void {
    loaded = false;
    fill.value = given;
    recipient.value = { ...given.fields };
    answers.value = { ...given.answers };
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
      });
      // What became of its version meanwhile is said while one writes, not only on opening it again.
      if (fill.value?.id === id && fill.value.standing !== standing) fill.value = { ...fill.value, standing };
      keeping.value = 'kept';
    } catch (problem) {
      keeping.value = problem instanceof Error ? problem.message : 'not kept';
      timer = setTimeout(() => void keep(), 3000);
    }
  }
  watch(
    [recipient, answers],
    () => {
      if (!loaded) return;
      clearTimeout(timer);
      keeping.value = 'keeping';
      timer = setTimeout(() => void keep(), KEEP_AFTER_MS);
    },
    { deep: true },
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
  const answer = (key: string, value: unknown): void => {
    answers.value = { ...answers.value, [key]: value };
  };
  return { fill, recipient, answers, keeping, program, asked, message, look, take, settled, answer };
}
