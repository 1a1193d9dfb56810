/** The running proof: the manuscript rendered for the chosen sample recipient, with its findings. */
import type { StoredTable, TableSummary } from '@vocabula/contract';
import {
  checkProgram,
  compile,
  direction,
  htmlStyles,
  render,
  type Finding,
  type Message,
  type Program,
  type TextDocument,
} from '@vocabula/core';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client';
import { browserLibrary, ensureText, knownText } from '../ui/library';
import { useMe } from '../ui/me';
import { today } from '../ui/today';

const REMEMBERED = 'vocabula.sample-set';

export function useProof(name: Ref<string>, document: Ref<TextDocument | undefined>) {
  const me = useMe();
  const sets = ref<TableSummary[]>([]);
  const set = shallowRef<StoredTable>();
  const at = ref(0);
  const answers = ref<Record<string, unknown>>({});

  async function choose(id: string): Promise<void> {
    set.value = await api.table(id);
    at.value = 0;
    localStorage.setItem(REMEMBERED, id);
  }
  async function load(): Promise<void> {
    sets.value = await api.tables('sample');
    const first = sets.value.find((each) => each.id === localStorage.getItem(REMEMBERED)) ?? sets.value[0];
    if (first) await choose(first.id);
  }
  function step(by: number): void {
    const count = set.value?.cells.length ?? 0;
    if (count > 0) at.value = (at.value + by + count) % count;
  }
  const recipient = computed(() => set.value?.cells[at.value] ?? {});
  const recipientName = computed(
    () =>
      [recipient.value.first_name, recipient.value.last_name].filter(Boolean).join(' ') ||
      recipient.value.name ||
      recipient.value.email ||
      'nobody',
  );

  const program = computed<Program | undefined>(() => {
    if (!document.value) return undefined;
    const { signature, reply_signature: reply } = me.profile;
    const wanted = document.value.attrs.front.purpose === 'reply' ? reply : signature;
    return compile(
      { name: name.value, document: document.value },
      { library: browserLibrary, senderSignature: wanted && knownText(wanted) ? wanted : undefined },
    );
  });
  const message = computed<Message | undefined>(
    () =>
      program.value &&
      render(
        program.value,
        { recipient: recipient.value, sender: me.fields(), answers: answers.value, today: today() },
        { proof: true },
      ),
  );
  const look = computed(() => ({
    bodyStyle: program.value ? htmlStyles(program.value.house.style).body : '',
    lang: program.value?.locale ?? 'en',
    dir: program.value ? direction(program.value.locale) : 'ltr',
  }));
  const findings = computed<readonly Finding[]>(() => {
    if (!program.value || !document.value) return [];
    return [
      ...checkProgram({ name: name.value, document: document.value }, program.value),
      ...(message.value?.findings ?? []),
    ];
  });
  // A block that has just been put in may not be here yet.
  watch(
    () => program.value?.findings,
    (all) => {
      for (const finding of all ?? []) {
        const missing = finding.code === 'unknown-block' ? /“([a-z0-9-]+)”/.exec(finding.message)?.[1] : undefined;
        if (missing) void ensureText(missing);
      }
    },
  );
  return { sets, set, at, answers, recipient, recipientName, program, message, look, findings, load, choose, step };
}
