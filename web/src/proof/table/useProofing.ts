/** The proofing table's state: one template, its recipients, hard cases and every pairing, and what is kept of them. */
import type { ProofRecord, StoredTable, TableSummary } from '@vocabula/contract';
import { signatureFor, type Finding, type TextDocument } from '@vocabula/core';
import type { ComparedParagraph, Explanation, Filling, ValueColumn } from '@vocabula/core/proof';
import type { Family } from '@vocabula/core/arrives';
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
import {
  SERIES,
  type CaseWords,
  type NeedWords,
  type PairingWords,
  type ProofingReply,
  type ProofingRequest,
  type SentSheet,
  type Series,
  type ShownArrivals,
  type ShownMessage,
  type Which,
} from './protocol';

/** The cases of a series, and the sheets that are there so far. */
export interface Cases {
  readonly cases: readonly CaseWords[];
  readonly sheets: readonly (SentSheet | undefined)[];
}
export interface Progress {
  readonly doing: string;
  readonly done: number;
  readonly total: number;
  readonly fresh: number;
  readonly over: boolean;
}

/** Between two showings of sheets while many come, in milliseconds. */
const PAUSE = 250;
const NOTHING: ProofRecord = { lookedAt: [], setAside: [] };
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
  const record = shallowRef<ProofRecord>(NOTHING);
  const series = {
    recipients: shallowRef<Cases>({ cases: [], sheets: [] }),
    hard: shallowRef<Cases>({ cases: [], sheets: [] }),
    pairing: shallowRef<Cases>({ cases: [], sheets: [] }),
  };
  /** The book of lines that sheets name by numbers. */
  let lines: string[] = [];
  const lineOf = (number: number): string => lines[number] ?? '';

  // — the worker: begun when the table is first opened, and kept, so that coming back is quick —

  let worker: Worker | undefined;
  let asked = 0;
  const waiting = new Map<number, (reply: ProofingReply) => void>();
  function send(request: ProofingRequest): void {
    if (!worker) {
      worker = new Worker(new URL('./proofing.worker.ts', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<ProofingReply>) => take(data));
    }
    // A worker takes plain data, and refs hold proxies; rows come as the server gave them.
    worker.postMessage(request.what === 'recipients' ? request : JSON.parse(JSON.stringify(request)));
  }
  type Asking = Extract<ProofingRequest, { readonly id: number }>;
  function ask<T extends ProofingReply['what']>(
    request: Asking extends infer R ? (R extends Asking ? Omit<R, 'id'> : never) : never,
  ): Promise<Extract<ProofingReply, { what: T }>> {
    asked += 1;
    const id = asked;
    return new Promise((resolve) => {
      waiting.set(id, resolve as (reply: ProofingReply) => void);
      send({ ...request, id } as ProofingRequest);
    });
  }
  /** Sheets that have come and are not shown yet: whatever follows them is worked out anew at most every so often. */
  type Come = Extract<ProofingReply, { what: 'sheets' }>;
  const come: Record<Series, Come[]> = { recipients: [], hard: [], pairing: [] };
  let publishing: ReturnType<typeof setTimeout> | undefined;
  let published = 0;
  function publish(): void {
    clearTimeout(publishing);
    publishing = undefined;
    for (const each of SERIES) {
      if (come[each].length === 0) continue;
      // A new list, for those who follow it: what keeps its identity counts as unchanged.
      const { cases, sheets: before } = series[each].value;
      const sheets = [...before];
      for (const { from, sheets: fresh } of come[each])
        fresh.forEach((sheet, index) => {
          sheets[from + index] = sheet;
        });
      come[each] = [];
      series[each].value = { cases, sheets };
    }
    published = performance.now();
  }
  function take(reply: ProofingReply): void {
    switch (reply.what) {
      case 'template':
        passages.value = reply.passages;
        values.value = reply.values;
        findings.value = reply.findings;
        needs.value = reply.needs;
        look.value = reply.look;
        return;
      case 'cases':
        come[reply.series] = [];
        series[reply.series].value = {
          cases: reply.cases,
          sheets: reply.cases.map((_, at) => series[reply.series].value.sheets[at]),
        };
        if (reply.pairing) pairing.value = reply.pairing;
        return;
      case 'sheets': {
        if (reply.linesFrom === 0) lines = [];
        lines.length = reply.linesFrom;
        for (const line of reply.lines) lines.push(line);
        come[reply.series].push(reply);
        if (!publishing) publishing = setTimeout(publish, performance.now() - published > PAUSE ? 0 : PAUSE);
        return;
      }
      case 'progress':
        if (reply.over) publish();
        progress.value = reply;
        return;
      default: {
        const { id } = reply;
        waiting.get(id)?.(reply);
        waiting.delete(id);
      }
    }
  }

  // — opening —

  /** Opens a template as it is now, or looks again at the one that is open. */
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
      for (const each of SERIES) {
        come[each] = [];
        series[each].value = { cases: [], sheets: [] };
      }
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
  /** Takes the recipients of another set. */
  async function choose(id: string): Promise<void> {
    const rows = await fetchRows(id);
    if (rows) send({ what: 'recipients', rows });
  }
  /** The rows of a set as they are now; undefined where they are those that are there already. */
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
    come.recipients = [];
    series.recipients.value = {
      cases: rows.map((row, at) => ({
        key: JSON.stringify(row),
        label: nameOfRow(row) || `Row ${at + 1}`,
        detail: set.value?.title ?? '',
        levels: [],
      })),
      sheets: rows.map(() => undefined),
    };
    stopped.value = false;
    return rows;
  }
  function setStrength(strength: 2 | 3): void {
    come.pairing = [];
    series.pairing.value = { cases: [], sheets: [] };
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

  // — what is asked of the worker —

  const message = async (which: Which): Promise<ShownMessage | undefined> =>
    (await ask<'message'>({ what: 'message', which })).message;
  const arrivals = async (which: Which, families: readonly Family[]): Promise<ShownArrivals | undefined> =>
    (await ask<'arrivals'>({ what: 'arrivals', which, families })).shown;
  const explain = async (which: Which, part: 'subject' | 'body', stretch: number): Promise<Explanation | undefined> =>
    (await ask<'explain'>({ what: 'explain', which, part, stretch })).explanation;
  const compare = async (left: Which, right: Which): Promise<readonly ComparedParagraph[]> =>
    (await ask<'compare'>({ what: 'compare', left, right })).paragraphs;
  const fillings = async (of: readonly Which[]): Promise<readonly (Filling | undefined)[]> =>
    (await ask<'fillings'>({ what: 'fillings', of })).fillings;
  /** Makes another text known, to be compared with. */
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

  /** Everything that was noticed, over everything there is; worked out when somebody looks. */
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

  // — what is kept —

  const lookedDigests = computed(() => new Set(record.value.lookedAt.map(({ digest }) => digest)));
  const lookedCases = computed(() => new Set(record.value.lookedAt.map((each) => each.case)));
  /** Whether a case has been looked at as it is now, or as it was before. */
  function looked({ key }: CaseWords, sheet: SentSheet | undefined): 'yes' | 'changed' | 'no' {
    if (sheet && lookedDigests.value.has(sheet.digest)) return 'yes';
    return lookedCases.value.has(key) ? 'changed' : 'no';
  }
  async function reload(): Promise<void> {
    record.value = await api.proofRecord(name.value);
  }
  async function lookAt(each: CaseWords, sheet: SentSheet): Promise<void> {
    await api.lookAt(name.value, { case: each.key.slice(0, 4000), digest: sheet.digest });
    await reload();
  }
  async function unlook(sheet: SentSheet): Promise<void> {
    await api.unlook(name.value, sheet.digest);
    await reload();
  }

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
