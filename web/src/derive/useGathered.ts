/** The mails that are compared: read from files, pasted, or taken from one's own record. */
import type { PastWords } from '@vocabula/contract';
import { MOST_MAILS } from '@vocabula/core/derive';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { pastedMails } from './pasted';

/** Files that are read at the same time. */
const FILES_AT_ONCE = 4;

/** @param changed hears that there are other mails to compare */
export function useGathered(changed: () => void) {
  const mails = shallowRef<readonly PastWords[]>([]);
  /** Names of the mails that are left out of the comparison. */
  const out = ref<ReadonlySet<string>>(new Set());
  const compared = computed(() => mails.value.filter(({ file }) => !out.value.has(file)));
  /** Progress of reading files; undefined when none are read. */
  const reading = ref<{ done: number; total: number }>();
  let stopped = false;
  const stopReading = (): void => void (stopped = true);

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
    changed();
    return fresh.length > room ? `At most ${MOST_MAILS} mails are compared; ${fresh.length - room} were left out.` : '';
  }
  /** Reads files, a few at a time, and adds their mails. Returns what could not be read, as a message. */
  async function addFiles(files: readonly File[]): Promise<string> {
    const mailsRead: PastWords[] = [];
    const unread: string[] = [];
    stopped = false;
    for (let done = 0; done < files.length && !stopped; done += FILES_AT_ONCE) {
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
  const addFound = (found: readonly PastWords[]): string =>
    found.length === 0 ? 'No such messages in your record.' : add(found);
  const addSent = async (of: { text?: string; address?: string }): Promise<string> => addFound(await api.sentWords(of));
  const addChosen = async (outgoing: string[]): Promise<string> => addFound(await api.chosenSent(outgoing));
  /** Leaves a mail out of the comparison or takes it back in, and compares again. */
  function leaveOut(file: string, isOut: boolean): void {
    const next = new Set(out.value);
    if (isOut) next.add(file);
    else next.delete(file);
    out.value = next;
    changed();
  }
  return { mails, out, compared, reading, stopReading, addFiles, paste, addSent, addChosen, leaveOut };
}
