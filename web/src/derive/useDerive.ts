/** Deriving: the mails that are compared, what came of them, and what somebody makes of that. */
import type { PastWords } from '@vocabula/contract';
import { FEWEST_MAILS, MOST_MAILS, samplesOf, type Derived } from '@vocabula/core/derive';
import { disguised } from '@vocabula/core/proof';
import { writeCsv } from '@vocabula/core/tables';
import type { TextDocument } from '@vocabula/core';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { pastedMails } from './pasted';
import type { DeriveReply, DeriveRequest } from './protocol';

export function useDerive() {
  const mails = shallowRef<readonly PastWords[]>([]);
  /** Files of mails that are left out. */
  const out = ref<ReadonlySet<string>>(new Set());
  const locale = ref('en-IE');
  const derived = shallowRef<Derived>();
  const labels = ref<Readonly<Record<string, string>>>({});
  const share = ref<number>();
  const problem = ref('');
  let worker: Worker | undefined;

  const compared = computed(() => mails.value.filter(({ file }) => !out.value.has(file)));
  function stop(): void {
    worker?.terminate();
    worker = undefined;
    share.value = undefined;
  }
  onScopeDispose(stop);

  function start(): void {
    stop();
    problem.value = '';
    if (compared.value.length < FEWEST_MAILS) {
      derived.value = undefined;
      return;
    }
    share.value = 0;
    worker = new Worker(new URL('./derive.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<DeriveReply>) => {
      if ('share' in data) return void (share.value = data.share);
      if ('derived' in data) derived.value = data.derived;
      else problem.value = data.problem;
      stop();
    };
    worker.onerror = () => {
      problem.value = 'Comparing broke off. Try it with fewer mails.';
      stop();
    };
    worker.postMessage({ mails: compared.value, locale: locale.value } satisfies DeriveRequest);
  }
  /** Takes mails in beside those that are there; what would be more than is compared is said. */
  function add(more: readonly PastWords[]): string {
    const names = new Set(mails.value.map(({ file }) => file));
    const fresh = more.map((mail) => {
      let file = mail.file;
      for (let number = 2; names.has(file); number += 1) file = `${mail.file} (${number})`;
      names.add(file);
      return { ...mail, file };
    });
    const room = MOST_MAILS - mails.value.length;
    mails.value = [...mails.value, ...fresh.slice(0, room)];
    start();
    return fresh.length > room ? `${MOST_MAILS} mails are compared at most; ${fresh.length - room} were left out.` : '';
  }
  async function addFiles(files: readonly File[]): Promise<string> {
    const found = await Promise.all(files.map((file) => api.pastMails(file.name, file)));
    const unread = files.filter((_, at) => found[at]?.length === 0).map(({ name }) => name);
    const said = add(found.flat());
    return [unread.length > 0 ? `${unread.join(', ')}: no mail could be read in it.` : '', said]
      .filter(Boolean)
      .join(' ');
  }
  const paste = (words: string): string => add(pastedMails(words, mails.value.length + 1));
  const addSent = async (of: { text?: string; address?: string }): Promise<string> => {
    const found = await api.sentWords(of);
    return found.length === 0 ? 'You have sent no such messages.' : add(found);
  };
  /** Leaves a mail out, or takes it in again; everything is computed anew. */
  function leaveOut(file: string, isOut: boolean): void {
    const next = new Set(out.value);
    if (isOut) next.add(file);
    else next.delete(file);
    out.value = next;
    start();
  }

  /** The template with the labels that somebody gave. */
  const template = computed((): TextDocument | undefined => {
    const found = derived.value?.template;
    if (!found) return undefined;
    const variables = found.attrs.variables.map((variable) => {
      const label = labels.value[variable.key]?.trim();
      return label ? { ...variable, label } : variable;
    });
    return { ...found, attrs: { ...found.attrs, variables } };
  });
  const relabel = (key: string, label: string): void => void (labels.value = { ...labels.value, [key]: label });

  /**
   * Makes the working copy and its sample set.
   * @param hide puts made-up people in the place of the real ones
   * @returns the text's name
   */
  async function take(title: string, folder: string | undefined, hide: boolean): Promise<string> {
    const found = derived.value;
    if (!found || !template.value) throw new Error('There is no template yet.');
    const made = await api.createText({
      kind: 'message',
      title,
      document: template.value,
      ...(folder ? { folder } : {}),
    });
    const { columns, rows } = samplesOf(found);
    const shown = hide ? disguised(columns, rows) : rows;
    const file = new File([writeCsv(columns, shown)], `${made.name}.csv`, { type: 'text/csv' });
    await api.importTable('sample', title, file);
    return made.name;
  }
  return {
    ...{ mails, out, compared, locale, derived, template, labels, share, problem },
    ...{ start, stop, addFiles, paste, addSent, leaveOut, relabel, take },
  };
}
export type Deriving = ReturnType<typeof useDerive>;
