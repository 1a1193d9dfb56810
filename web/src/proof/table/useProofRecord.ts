import type { ProofRecord } from '@vocabula/contract';
import { computed, shallowRef, type Ref } from 'vue';
import { api } from '../../api/client';
import type { CaseWords, SentSheet } from './protocol';

/** What is kept of proofing a template: the cases that were looked at, and the findings that are set aside. */
export function useProofRecord(name: Readonly<Ref<string>>) {
  const record = shallowRef<ProofRecord>({ lookedAt: [], setAside: [] });
  const digests = computed(() => new Set(record.value.lookedAt.map(({ digest }) => digest)));
  const cases = computed(() => new Set(record.value.lookedAt.map((each) => each.case)));

  /** Whether a case was looked at: as it is now, as it was before a change, or not at all. */
  function looked({ key }: CaseWords, sheet: SentSheet | undefined): 'yes' | 'changed' | 'no' {
    if (sheet && digests.value.has(sheet.digest)) return 'yes';
    return cases.value.has(key) ? 'changed' : 'no';
  }
  async function reload(): Promise<void> {
    record.value = await api.proofRecord(name.value);
  }
  async function lookAt({ key }: CaseWords, { digest }: SentSheet): Promise<void> {
    await api.lookAt(name.value, { case: key.slice(0, 4000), digest });
    await reload();
  }
  async function unlook({ digest }: SentSheet): Promise<void> {
    await api.unlook(name.value, digest);
    await reload();
  }
  return { record, looked, reload, lookAt, unlook };
}
