/** One message each to many: what is asked once, what differs, each message by itself, and how far it is. */
import { useIntervalFn } from '@vueuse/core';
import type {
  ChangeMailed,
  ChangeMailing,
  Fill,
  MailedRow,
  Mailing,
  MailingSummary,
  OutgoingState,
} from '@vocabula/contract';
import { questions, sameValue, type Question } from '@vocabula/core';
import { mergedChanges, NO_CHANGES, ownChanges } from '@vocabula/core/filling';
import { computed, ref, shallowRef, watch } from 'vue';
import { api } from '../api/client';
import { useMessage } from '../fill/useMessage';
import { makeKeeper } from '../ui/keeper';
import { useNotice } from '../ui/notice';

const KEEP_AFTER_MS = 500;
const LOOK_AGAIN_MS = 1000;
/** Questions that some recipient is asked are looked for among so many. */
const LOOKED_AT = 30;

/** What is changed of one message, and of which mailing it is: known when it is typed, not when it is sent. */
type RowChange = ChangeMailed & { readonly mailing: string };
const rowsKept = makeKeeper<RowChange, MailedRow>({
  after: KEEP_AFTER_MS,
  merge: (waiting, next) => ({ ...waiting, ...next }),
  send: (rowId, { mailing, ...body }) => api.changeMailed(mailing, rowId, body),
});
const sharedKept = makeKeeper<ChangeMailing, Mailing>({
  after: KEEP_AFTER_MS,
  send: (mailingId, body) => api.changeMailing(mailingId, body),
});

/** What is on its way of one message. */
function changeWaiting(rowId: string): Partial<MailedRow> {
  const { answers, fields, changes } = rowsKept.waiting(rowId) ?? {};
  return { ...(answers && { answers }), ...(fields && { fields }), ...(changes && { changes }) };
}

// eslint-disable-next-line max-lines-per-function -- one mailing: its functions share the rows and their saver
export function useMailing(id: string) {
  const notice = useNotice();
  const mailing = shallowRef<Mailing>();
  const progress = shallowRef<MailingSummary>();
  const rows = shallowRef<readonly MailedRow[]>([]);
  const chosen = ref<string>();
  const worked = useMessage();
  const row = computed(() => rows.value.find((each) => each.id === chosen.value));
  rowsKept.hear({
    async kept(rowId, changed, { mailing: of }) {
      if (of !== id) return;
      rows.value = rows.value.map((each) => (each.id === rowId ? changed : each));
      await askProgress().catch(notice.fail);
    },
    refused: (_row, { mailing: of }, problem) => refusedWith(of, problem),
  });
  sharedKept.hear({
    async kept(mailingId, changed) {
      if (mailingId !== id) return;
      take(changed);
      await askRows().catch(notice.fail);
    },
    refused: refusedWith,
  });
  function refusedWith(mailingId: string, problem: unknown): 'drop' {
    notice.fail(problem);
    if (mailingId === id) void load();
    return 'drop';
  }
  const askRows = async (): Promise<void> => {
    const given = await api.mailingRows(id);
    // What was changed meanwhile stays, and is on its way.
    rows.value = given.map((each) => ({ ...each, ...changeWaiting(each.id) }));
  };
  const askProgress = async (): Promise<void> => void (progress.value = await api.mailingProgress(id));

  const counts = computed(() => progress.value?.counts ?? {});
  const count = (...states: OutgoingState[]): number =>
    states.reduce((sum, state) => sum + (counts.value[state] ?? 0), 0);
  const isOpen = computed(() => mailing.value?.state === 'preparing');

  function take(given: Mailing): void {
    progress.value = given;
    // What was typed meanwhile stays, and is on its way.
    mailing.value = { ...given, ...sharedKept.waiting(given.id) };
    showVersion(given, row.value?.version);
  }
  /** Shows the message in the version that a recipient gets: a trial may give them another one. */
  function showVersion({ texts: usual, others, house, signature }: Mailing, version: number | undefined): void {
    const texts = others.find((each) => each.version === version)?.texts ?? usual;
    if (worked.fill.value?.texts === texts) return;
    const fixed = texts.flatMap((text) => text.document.attrs.front.fixed ?? []);
    worked.fill.value = { texts, house, signature, fixed } as unknown as Fill;
  }
  /** Resolves when the server has all of this mailing as it is shown. @throws the problem, where it cannot have it */
  const settled = async (): Promise<void> => {
    await Promise.all([
      rowsKept.flush((_row, { mailing: of }) => of === id),
      sharedKept.flush((mailingId) => mailingId === id),
    ]);
  };
  async function load(): Promise<void> {
    try {
      // What was typed before is there when it is opened again.
      await settled().catch(() => undefined);
      take(await api.mailing(id));
      await askRows();
      chosen.value ??= rows.value[0]?.id;
    } catch (problem) {
      notice.fail(problem);
    }
  }
  useIntervalFn(() => {
    const state = progress.value?.state;
    if (state === 'going' || (state === 'first' && count('gone') === 0)) void lookAgain();
  }, LOOK_AGAIN_MS);
  async function lookAgain(): Promise<void> {
    try {
      const before = progress.value?.state;
      await askProgress();
      const { value: now } = mailing;
      const state = progress.value?.state;
      if (now && state && state !== before) mailing.value = { ...now, state };
      // While thousands go, only how many is asked for again and again; which, when it has come to something.
      if (state !== 'going' || state !== before) await askRows();
    } catch (problem) {
      notice.fail(problem);
    }
  }

  /** All that some recipient is asked, in order; what a recipient's own fields answer is not among them. */
  const asked = computed((): Question[] => {
    const { value: program } = worked.program;
    const { value: now } = mailing;
    if (!program || !now) return [];
    const found = new Map<string, Question>();
    const some = rows.value.length > 0 ? rows.value.slice(0, LOOKED_AT) : [undefined];
    for (const each of some) {
      const answers = { ...now.answers, ...each?.answers };
      const input = { ...worked.input.value, recipient: each?.fields ?? {}, answers };
      for (const question of questions(program, input)) if (!found.has(question.key)) found.set(question.key, question);
    }
    const own = (key: string): boolean => rows.value.length > 0 && found.get(key)?.source === 'recipient';
    return [...found.values()].filter(({ key }) => !own(key));
  });
  const differing = computed(() => new Set(mailing.value?.differing ?? []));

  // The chosen message is worked in as any other. What is typed belongs to the row that is shown at that moment.
  let shown: { readonly row: string; readonly shared: Mailing } | undefined;
  watch(
    [row, mailing],
    () => {
      const { value: each } = row;
      const { value: now } = mailing;
      if (!now) return;
      // What waits to be kept of this row is newer than what the server gave.
      const waiting = each && rowsKept.waiting(each.id);
      shown = undefined;
      showVersion(now, each?.version);
      worked.recipient.value = { ...each?.fields };
      worked.answers.value = { ...now.answers, ...(waiting?.answers ?? each?.answers) };
      worked.changes.value = mergedChanges(now.changes, waiting?.changes ?? each?.changes ?? NO_CHANGES);
      if (each) shown = { row: each.id, shared: now };
    },
    { immediate: true },
  );
  watch(
    [worked.answers, worked.changes],
    () => {
      if (!shown || !isOpen.value) return;
      const { row, shared } = shown;
      const own = Object.fromEntries(
        Object.entries(worked.answers.value).filter(([key, value]) => !sameValue(value, shared.answers[key])),
      );
      rowsKept.keep(row, {
        mailing: id,
        answers: own as never,
        changes: ownChanges(shared.changes, worked.changes.value),
      });
    },
    { flush: 'sync' },
  );
  async function changeRow(rowId: string, body: ChangeMailed): Promise<void> {
    rowsKept.keep(rowId, { mailing: id, ...body });
    // A tick or an option is told at once; a failure stands in the notice and is tried again.
    await rowsKept.flush().catch(() => undefined);
  }

  /** Answers once for all. */
  function answerAll(key: string, value: unknown): void {
    const { value: now } = mailing;
    if (!now) return;
    mailing.value = { ...now, answers: { ...now.answers, [key]: value } };
    keepShared();
  }
  async function differ(key: string, differs: boolean): Promise<void> {
    const { value: now } = mailing;
    if (!now) return;
    const others = now.differing.filter((each) => each !== key);
    mailing.value = { ...now, differing: differs ? [...others, key] : others };
    keepShared();
    await sharedKept.flush().catch(() => undefined);
  }
  function keepShared(): void {
    const { value: now } = mailing;
    if (now) sharedKept.keep(now.id, { answers: { ...now.answers } as never, differing: [...now.differing] });
  }
  async function add(who: Parameters<typeof api.addToMailing>[1]): Promise<void> {
    const before = rows.value.length;
    const apart = progress.value?.broken.length ?? 0;
    take(await api.addToMailing(id, who));
    await askRows();
    chosen.value ??= rows.value[0]?.id;
    const more = rows.value.length - before;
    const broken = (progress.value?.broken.length ?? 0) - apart;
    const lines = broken === 1 ? '1 line is set apart' : `${broken} lines are set apart`;
    notice.say(`${more} ${more === 1 ? 'person' : 'people'} added${broken > 0 ? `; ${lines}` : ''}.`);
  }
  async function drive(body: Parameters<typeof api.driveMailing>[1]): Promise<void> {
    // What goes is what is seen: nothing of it waits.
    await settled();
    progress.value = await api.driveMailing(id, body);
    const { value: now } = mailing;
    if (now) mailing.value = { ...now, state: progress.value.state };
    await lookAgain();
  }
  return {
    mailing,
    progress,
    rows,
    row,
    chosen,
    worked,
    asked,
    differing,
    count,
    isOpen,
    load,
    answerAll,
    differ,
    changeRow,
    add,
    drive,
  };
}
export type ManyMessages = ReturnType<typeof useMailing>;
