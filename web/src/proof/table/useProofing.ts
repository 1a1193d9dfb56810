/** State of Proof: one template, its recipients, hard cases and pairings, and the record of proofing it. */
import type { StoredTable, TableSummary } from '@vocabula/contract';
import { signatureFor, type Finding, type TextDocument } from '@vocabula/core';
import type { ValueColumn } from '@vocabula/core/proof';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../../api/client';
import { useHouse } from '../../ui/house';
import type { Look } from '../../ui/look';
import { useMe } from '../../ui/me';
import { usePreferences } from '../../ui/preferences';
import { nameOfRow } from '../../ui/recipient';
import { today, zone } from '../../ui/today';
import { groupFindings } from './findings';
import { proofingClient, type ProofingNews } from './proofingClient';
import { SERIES, type NeedWords, type PairingWords, type Series } from './protocol';
import { useProofRecord } from './useProofRecord';
import { useProofSeries, type Cases } from './useProofSeries';

export interface Progress {
  readonly doing: string;
  readonly done: number;
  readonly total: number;
  readonly fresh: number;
  readonly over: boolean;
}

const IDLE: Progress = { doing: '', done: 0, total: 0, fresh: 0, over: true };

// eslint-disable-next-line max-lines-per-function -- puts the parts of proofing together, each of others
export const useProofing = defineStore('proofing', () => {
  const me = useMe();
  const house = useHouse();
  const preferences = usePreferences();
  const name = ref('');
  const title = ref('');
  const revision = ref(0);
  const texts = shallowRef<readonly { readonly name: string; readonly document: TextDocument }[]>([]);
  const sets = shallowRef<readonly TableSummary[]>([]);
  const set = shallowRef<StoredTable>();
  const passages = shallowRef<readonly { readonly tag: string; readonly label: string }[]>([]);
  const values = shallowRef<readonly ValueColumn[]>([]);
  const findings = shallowRef<readonly Finding[]>([]);
  const needs = shallowRef<readonly NeedWords[]>([]);
  const look = shallowRef<Look>();
  const pairing = shallowRef<PairingWords>();
  const progress = shallowRef<Progress>(IDLE);
  const stopped = ref(false);
  const { record, looked, reload, lookAt, unlook } = useProofRecord(name);
  const { series, publish, addSheets, setCases, lineOf } = useProofSeries();
  const { send, message, arrivals, explain, compare, fillings } = proofingClient(take);

  function take(news: ProofingNews): void {
    switch (news.what) {
      case 'template':
        passages.value = news.passages;
        values.value = news.values;
        findings.value = news.findings;
        needs.value = news.needs;
        look.value = news.look;
        return;
      case 'cases':
        setCases(news.series, news.cases);
        if (news.pairing) pairing.value = news.pairing;
        return;
      case 'sheets':
        return addSheets(news);
      case 'progress':
        if (news.over) publish();
        progress.value = news;
    }
  }

  /** Opens a template as it is now, or refreshes the one that is open. */
  async function open(wanted: string): Promise<void> {
    await Promise.all([me.load(), house.load()]);
    const [closure, all, kept] = await Promise.all([
      api.closure(wanted),
      api.tables('sample'),
      api.proofRecord(wanted),
    ]);
    const [own] = closure.texts;
    if (!own) throw new Error('There is no such template.');
    const other = name.value !== wanted;
    if (other) {
      for (const each of SERIES) setCases(each, []);
      pairing.value = undefined;
      set.value = undefined;
    }
    name.value = wanted;
    title.value = own.document.attrs.front.title;
    revision.value = own.revision;
    record.value = kept;
    sets.value = all;
    const signature = signatureFor(own.document.attrs.front.purpose, me.profile) ?? null;
    const signatures = signature ? (await api.closure(signature).catch(() => undefined))?.texts : undefined;
    texts.value = [...closure.texts, ...(signatures ?? [])];
    const first =
      all.find(({ ownOf }) => ownOf.includes(wanted)) ??
      all.find(({ id }) => id === (other ? preferences.sampleSet : set.value?.id)) ??
      all[0];
    const rows = first ? await fetchRows(first.id) : putRows([]);
    send({
      what: 'template',
      parts: {
        text: { name: own.name, document: own.document },
        library: texts.value.map((text) => [text.name, text.document] as const),
        house: house.house,
        signature,
        sender: me.fields(),
        today: today(),
        zone: zone(),
      },
      ...(rows ? { rows } : {}),
    });
  }
  /** Proofs for the rows of another sample set. */
  async function choose(id: string): Promise<void> {
    const rows = await fetchRows(id);
    if (rows) send({ what: 'recipients', rows });
  }
  /** The current rows of a set; undefined if they are already shown. */
  async function fetchRows(id: string): Promise<StoredTable['cells'] | undefined> {
    const known = set.value;
    const table = await api.table(id);
    preferences.sampleSet = id;
    if (known?.id === id && known.revision === table.revision && series.recipients.value.cases.length > 0)
      return undefined;
    set.value = table;
    return putRows(table.cells);
  }
  function putRows(rows: StoredTable['cells']): StoredTable['cells'] {
    const detail = set.value?.title ?? '';
    const cases = rows.map((row, at) => ({
      ...{ key: JSON.stringify(row), label: nameOfRow(row) || `Row ${at + 1}` },
      ...{ detail, levels: [] },
    }));
    setCases('recipients', cases, []);
    stopped.value = false;
    return rows;
  }
  function setStrength(strength: 2 | 3): void {
    setCases('pairing', []);
    pairing.value = undefined;
    stopped.value = false;
    send({ what: 'strength', strength });
  }
  function stop(): void {
    stopped.value = true;
    send({ what: 'stop' });
  }
  function goOn(): void {
    stopped.value = false;
    send({ what: 'go on' });
  }

  /** Sends another text to the worker, for comparing with it. */
  async function other(wanted: string): Promise<void> {
    const { texts: all } = await api.closure(wanted);
    const [own] = all;
    if (own)
      send({
        what: 'other',
        name: own.name,
        document: own.document,
        library: all.map((text) => [text.name, text.document] as const),
      });
  }

  /** All findings, of the template and of every sheet, grouped. Computed only while a view shows them. */
  const groups = computed(() =>
    groupFindings({
      name: name.value,
      texts: texts.value,
      template: findings.value,
      sheets: {
        recipients: series.recipients.value.sheets,
        hard: series.hard.value.sheets,
        pairing: series.pairing.value.sheets,
      },
      setAside: record.value.setAside,
      labelOf: (key) => values.value.find((each) => each.key === key)?.label ?? key,
    }),
  );

  return {
    name,
    title,
    revision,
    texts,
    sets,
    set,
    passages,
    values,
    findings,
    needs,
    look,
    pairing,
    progress,
    stopped,
    record,
    recipients: series.recipients,
    hard: series.hard,
    pairs: series.pairing,
    lineOf,
    open,
    choose,
    setStrength,
    stop,
    goOn,
    message,
    arrivals,
    explain,
    compare,
    fillings,
    other,
    looked,
    groups,
    lookAt,
    unlook,
    reload,
  };
});

export type ProofingStore = ReturnType<typeof useProofing>;

/** The cases of a series. */
export const casesOf = (store: ProofingStore, of: Series): Cases =>
  of === 'recipients' ? store.recipients : of === 'hard' ? store.hard : store.pairs;
