/** State of From past mails: the mails, the comparison in its worker, the template, and saving it. */
import type { PastWords } from '@vocabula/contract';
import { MOST_MAILS, samplesOf, type Settlement } from '@vocabula/core/derive';
import { disguised } from '@vocabula/core/proof';
import { writeCsv } from '@vocabula/core/tables';
import type { TextDocument } from '@vocabula/core';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { pastedMails } from './pasted';
import { useComparing } from './useComparing';

/** Files that are read at the same time. */
const FILES_AT_ONCE = 4;

/** What was said of the questions, in its order. Other mails have other questions: then it is forgotten. */
function useSettled(start: () => void) {
  const settled = shallowRef<readonly Settlement[]>([]);
  const say = (all: readonly Settlement[]): void => {
    settled.value = all;
    start();
  };
  return {
    settled,
    settle: (settlement: Settlement): void => say([...settled.value, settlement]),
    unsettle: (settlement: Settlement): void => say(settled.value.filter((each) => each !== settlement)),
    forget: (): void => void (settled.value = []),
  };
}

export function useDerive() {
  const comparing = useComparing();
  const { derived, share, problem } = comparing;
  const mails = shallowRef<readonly PastWords[]>([]);
  /** Names of the mails that are left out of the comparison. */
  const out = ref<ReadonlySet<string>>(new Set());
  const locale = ref('en-IE');
  const { settled, settle, unsettle, forget } = useSettled(() => start());
  const labels = ref<Readonly<Record<string, string>>>({});
  /** Progress of reading files; undefined when none are read. */
  const reading = ref<{ done: number; total: number }>();
  let stopReading = false;

  const compared = computed(() => mails.value.filter(({ file }) => !out.value.has(file)));
  /** Stops reading files and comparing. */
  function stop(): void {
    stopReading = true;
    comparing.stop();
  }

  const start = (): void => comparing.compare(compared.value, locale.value, settled.value);
  /** Compares other mails, of which nothing was said yet. */
  function startAnew(): void {
    forget();
    start();
  }
  /** Adds mails, under names of their own. Returns a message if some are too many to compare, else ''. */
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
    startAnew();
    return fresh.length > room ? `At most ${MOST_MAILS} mails are compared; ${fresh.length - room} were left out.` : '';
  }
  /** Reads files, a few at a time, and adds their mails. Returns what could not be read, as a message. */
  async function addFiles(files: readonly File[]): Promise<string> {
    const mailsRead: PastWords[] = [];
    const unread: string[] = [];
    stopReading = false;
    for (let done = 0; done < files.length && !stopReading; done += FILES_AT_ONCE) {
      reading.value = { done, total: files.length };
      const batch = files.slice(done, done + FILES_AT_ONCE);
      const results = await Promise.allSettled(batch.map((file) => api.pastMails(file.name, file)));
      for (const [index, result] of results.entries()) {
        if (result.status === 'fulfilled' && result.value.length > 0) mailsRead.push(...result.value);
        else unread.push(batch[index]?.name ?? '');
      }
    }
    reading.value = undefined;
    const tooMany = add(mailsRead);
    return [unread.length > 0 ? `No mail could be read from ${unread.join(', ')}.` : '', tooMany]
      .filter(Boolean)
      .join(' ');
  }
  const paste = (words: string): string => add(pastedMails(words, mails.value.length + 1));
  const addSent = async (of: { text?: string; address?: string }): Promise<string> => {
    const found = await api.sentWords(of);
    return found.length === 0 ? 'No such messages in your record.' : add(found);
  };
  /** Leaves a mail out of the comparison or takes it back in, and compares again. */
  function leaveOut(file: string, isOut: boolean): void {
    const next = new Set(out.value);
    if (isOut) next.add(file);
    else next.delete(file);
    out.value = next;
    startAnew();
  }

  /** The derived template with the labels that the user gave. */
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
   * Saves the template as a working copy, with a sample set of its answers. Where only the set cannot be saved, the text
   * goes to the bin, so that another attempt leaves one text and not two.
   * @param hide replace real names and addresses by made-up ones
   * @returns the name of the text
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
    try {
      await api.importTable('sample', title, file);
    } catch (failure) {
      // Why the set was not saved is what is told.
      await api.binText(made.name).catch(() => undefined);
      throw failure;
    }
    return made.name;
  }
  return {
    ...{ mails, out, compared, locale, derived, template, labels, share, reading, problem },
    ...{ settled, settle, unsettle, start: startAnew, stop, addFiles, paste, addSent, leaveOut, relabel, take },
  };
}
export type Deriving = ReturnType<typeof useDerive>;
