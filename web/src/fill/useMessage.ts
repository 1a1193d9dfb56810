/** A message as it stands: its questions and its preview, worked out of what is answered and changed. */
import type { Fill, OfferedValue, Original } from '@vocabula/contract';
import { compileBundle, questions, render, type Program, valueType } from '@vocabula/core';
import {
  changedSince,
  composed,
  difference,
  NO_CHANGES,
  saidTwice,
  unconfirmed,
  type Difference,
  type FillChanges,
} from '@vocabula/core/filling';
import { computed, ref, shallowRef } from 'vue';
import { lookOf } from '../ui/look';
import { useMe } from '../ui/me';
import { today, zone } from '../ui/today';

export function useMessage() {
  const me = useMe();
  const fill = shallowRef<Fill>();
  const recipient = ref<Record<string, string>>({});
  const answers = ref<Record<string, unknown>>({});
  const offered = ref<Record<string, OfferedValue>>({});
  const confirmed = ref<string[]>([]);
  const changes = shallowRef<FillChanges>(NO_CHANGES);
  const original = shallowRef<Original>();
  const all = ref(false);
  /** What the last answer did to the message. */
  const did = ref<Difference>();

  const texts = computed(() => (fill.value ? composed(fill.value.texts, changes.value) : []));
  const program = computed<Program | undefined>(() => {
    const [own] = texts.value;
    if (!own || !fill.value) return undefined;
    const { signature, house } = fill.value;
    return compileBundle({ text: own, texts: texts.value, house, signature });
  });
  const input = computed(() => ({
    recipient: recipient.value,
    sender: me.fields(),
    answers: answers.value,
    offered: offered.value,
    today: today(),
    zone: zone(),
  }));
  const asked = computed(() => (program.value ? questions(program.value, input.value) : []));
  const message = computed(() => program.value && render(program.value, input.value, { proof: true, editing: true }));
  const look = computed(() => program.value && lookOf(program.value));
  const unsure = computed(() => unconfirmed(asked.value, new Set(confirmed.value)));
  /** Rewordings that wrote over a value which has changed since. */
  const disputed = computed(() => {
    const { value: compiled } = program;
    if (!compiled) return [];
    return changes.value.reworded.flatMap((rewording) => {
      const since = changedSince(rewording, compiled, input.value);
      return since.length > 0 ? [{ rewording, since }] : [];
    });
  });
  const twice = computed(() => (fill.value ? saidTwice(fill.value.texts, changes.value) : []));

  const answer = (key: string, value: unknown): void => {
    const before = message.value?.text ?? '';
    answers.value = { ...answers.value, [key]: value };
    const type = asked.value.find((question) => question.key === key)?.type;
    const governs = type && valueType(type).governs;
    // What a tick or an option adds and takes is told; letters of a name are seen.
    did.value =
      governs && governs !== 'list' ? difference(before, message.value?.text ?? '', program.value?.locale) : undefined;
  };
  const confirm = (key: string): void => {
    if (!confirmed.value.includes(key)) confirmed.value = [...confirmed.value, key];
  };
  return {
    fill,
    recipient,
    answers,
    offered,
    confirmed,
    changes,
    original,
    all,
    did,
    texts,
    program,
    input,
    asked,
    message,
    look,
    unsure,
    disputed,
    twice,
    answer,
    confirm,
  };
}
export type Worked = ReturnType<typeof useMessage>;
