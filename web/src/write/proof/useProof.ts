/** The running proof: the manuscript rendered for the chosen sample recipient, in a worker, with its findings. */
import type { StoredTable, TableSummary } from '@vocabula/contract';
import { signatureFor, type Finding, type Measure, type TextDocument } from '@vocabula/core';
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../../api/client';
import { useHouse } from '../../ui/house';
import { ensureText, knownTexts, libraryVersion } from '../../ui/library';
import { useMe } from '../../ui/me';
import { usePreferences } from '../../ui/preferences';
import { nameOfRow } from '../../ui/recipient';
import { today, zone } from '../../ui/today';
import type { CurrentValue, ProofMessage, ProofReply, ProofRequest, ProofSlot } from './protocol';

// eslint-disable-next-line max-lines-per-function -- one conversation with a worker: its functions share what was asked last
export function useProof(name: Ref<string>, document: Ref<TextDocument | undefined>) {
  const me = useMe();
  const house = useHouse();
  const preferences = usePreferences();
  const sets = ref<TableSummary[]>([]);
  const set = shallowRef<StoredTable>();
  const at = ref(0);
  const answers = ref<Record<string, unknown>>({});
  const message = shallowRef<ProofMessage>();
  const findings = shallowRef<readonly Finding[]>([]);
  const measure = shallowRef<Measure>();
  const values = shallowRef<ReadonlyMap<string, CurrentValue>>(new Map());
  const slots = shallowRef<readonly ProofSlot[]>([]);
  const texts = shallowRef<readonly string[]>([]);

  async function choose(id: string): Promise<void> {
    set.value = await api.table(id);
    at.value = 0;
    preferences.sampleSet = id;
  }
  async function load(): Promise<void> {
    await house.load();
    sets.value = await api.tables('sample');
    const first =
      sets.value.find(({ ownOf }) => ownOf.includes(name.value)) ??
      sets.value.find((each) => each.id === preferences.sampleSet) ??
      sets.value[0];
    if (first) await choose(first.id);
  }
  function step(by: number): void {
    const count = set.value?.cells.length ?? 0;
    if (count > 0) at.value = (at.value + by + count) % count;
  }
  const recipient = computed(() => set.value?.cells[at.value] ?? {});
  const recipientName = computed(() => nameOfRow(recipient.value) || 'no recipient');
  const signature = computed(() => {
    return signatureFor(document.value?.attrs.front.purpose, me.profile) ?? null;
  });

  // — the worker: one request is under way at a time; what changes meanwhile is asked for when it is answered —

  const worker = new Worker(new URL('./proof.worker.ts', import.meta.url), { type: 'module' });
  onBeforeUnmount(() => worker.terminate());
  let asked = 0;
  /** The newest request whose findings are here. */
  let checked = 0;
  let busy = false;
  let again = false;
  const waiting = new Set<() => void>();
  const sent: { document?: TextDocument | undefined; library?: number; house?: unknown; signature?: string | null } =
    {};

  function ask(): void {
    if (busy || !document.value) {
      again = true;
      return;
    }
    busy = true;
    again = false;
    asked += 1;
    const changes: Omit<ProofRequest, 'id' | 'input'> = {
      ...(sent.document === document.value ? {} : { text: { name: name.value, document: document.value } }),
      ...(sent.library === libraryVersion.value ? {} : { library: knownTexts() }),
      ...(sent.house === house.house ? {} : { house: house.house }),
      ...(sent.signature === signature.value ? {} : { signature: signature.value }),
    };
    Object.assign(sent, {
      document: document.value,
      library: libraryVersion.value,
      house: house.house,
      signature: signature.value,
    });
    // A worker takes plain data, and refs hold proxies.
    const input = plain({
      recipient: recipient.value,
      sender: me.fields(),
      answers: answers.value,
      today: today(),
      zone: zone(),
    });
    worker.postMessage({ id: asked, ...changes, ...(changes.house ? { house: plain(changes.house) } : {}), input });
  }
  worker.addEventListener('message', ({ data }: MessageEvent<ProofReply>) => {
    if (data.what === 'findings') {
      if (data.id !== asked) return;
      findings.value = data.findings;
      measure.value = data.measure;
      checked = data.id;
      tellWaiting();
      return;
    }
    message.value = data.message;
    // What stays the same keeps its identity, so that nothing that follows it is done over.
    if (!same([...values.value], data.values)) values.value = new Map(data.values);
    if (!same(slots.value, data.slots)) slots.value = data.slots;
    if (!same(texts.value, data.texts)) texts.value = data.texts;
    // A block that has just been put in may not be here yet.
    for (const missing of data.missing) if (missing) void ensureText(missing);
    busy = false;
    if (again) ask();
    tellWaiting();
  });
  worker.addEventListener('error', () => {
    busy = false;
    checked = asked;
    tellWaiting();
  });
  const tellWaiting = (): void => waiting.forEach((tell) => tell());
  /**
   * Resolves once the message, or the findings, are those of the manuscript, recipient and answers as they stand now.
   * At once where they are.
   */
  async function upToDate(what: 'message' | 'findings'): Promise<void> {
    await nextTick();
    const isUpToDate = (): boolean => !busy && !again && (what === 'message' || checked === asked);
    if (isUpToDate()) return;
    await new Promise<void>((resolve) => {
      const tell = (): void => {
        if (!isUpToDate()) return;
        waiting.delete(tell);
        resolve();
      };
      waiting.add(tell);
    });
  }
  watch([document, recipient, answers, () => house.house, signature, libraryVersion, () => me.profile], ask, {
    immediate: true,
  });

  return {
    sets,
    set,
    at,
    answers,
    recipient,
    recipientName,
    message,
    findings,
    measure,
    values,
    slots,
    texts,
    load,
    choose,
    step,
    upToDate,
  };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export type Proof = ReturnType<typeof useProof>;
