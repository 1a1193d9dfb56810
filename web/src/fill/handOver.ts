/** The two ways out of Fill, both rendered by the server. Each gives words that say what was done. */
import type { HandedOver } from '@vocabula/contract';
import { api } from '../api/client';
import { zone } from '../ui/today';

/** Rich and plain text together on the clipboard. */
export async function handOverCopy(id: string, settled: () => Promise<void>, incomplete: boolean): Promise<string> {
  const rendered: Promise<HandedOver> = settled().then(() =>
    api.handOver(id, { way: 'copy', timezone: zone(), incomplete }),
  );
  const part = (type: 'html' | 'text'): Promise<Blob> =>
    rendered.then((message) => new Blob([message[type]], { type: type === 'html' ? 'text/html' : 'text/plain' }));
  // The clipboard is asked for at once, while the key press still counts; the words follow.
  await Promise.all([
    navigator.clipboard.write([new ClipboardItem({ 'text/html': part('html'), 'text/plain': part('text') })]),
    rendered,
  ]);
  const { blanks } = await rendered;
  return blanks.length > 0
    ? `Copied, rich and plain, with ${blanks.length} blank${blanks.length === 1 ? '' : 's'}.`
    : 'Copied, rich and plain.';
}

/** A file that the mail program opens as an unsent message. */
export async function handOverDraft(
  id: string,
  name: string,
  settled: () => Promise<void>,
  incomplete: boolean,
): Promise<string> {
  await settled();
  const url = URL.createObjectURL(await api.draft(id, { way: 'draft', timezone: zone(), incomplete }));
  const link = Object.assign(document.createElement('a'), { href: url, download: `${name}.eml` });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
  return `${name}.eml is saved: open it, and your mail program shows it as a draft.`;
}
