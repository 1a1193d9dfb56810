/** The ways out of Fill, all rendered by the server. Each gives words that say what was done. */
import { saveFile } from '../ui/saveFile';
import type { HandedOver, HandOverWays, Way } from '@vocabula/contract';
import { api } from '../api/client';
import { zone } from '../ui/today';
import { LONGEST_MAILTO, mailtoOf } from './mailto';

export interface Handing {
  readonly id: string;
  /** Resolves when what was answered last is kept. */
  readonly settled: () => Promise<void>;
  readonly incomplete: boolean;
  /** How long somebody was at it, in seconds. */
  readonly worked: number;
}

const blanksIn = ({ blanks }: HandedOver): string =>
  blanks.length > 0 ? `, with ${blanks.length} blank${blanks.length === 1 ? '' : 's'}` : '';

async function rendered({ id, settled, incomplete, worked }: Handing, way: Way, at?: string): Promise<HandedOver> {
  await settled();
  return api.handOver(id, { way, timezone: zone(), incomplete, worked, ...(at ? { at } : {}) });
}

const LOOKS: Readonly<Record<HandOverWays['look'], string>> = {
  house: 'with our look',
  structure: 'with its structure only',
  plain: 'as plain text',
};

/** Writes to the clipboard at once, while the key press still counts; the words follow. */
async function writeClipboard(parts: Readonly<Record<string, Promise<string>>>): Promise<void> {
  const items = Object.entries(parts).map(([type, words]) => {
    const blob = words.then((each) => new Blob([each], { type }));
    // A browser that refuses the whole waits for none of its parts; the refusal itself is told by `write`.
    blob.catch(() => undefined);
    return [type, blob];
  });
  await navigator.clipboard.write([new ClipboardItem(Object.fromEntries(items) as Record<string, Promise<Blob>>)]);
}

/** Onto the clipboard, as the person's mail program takes it. @param part of those who paste the subject first */
export async function copy(
  handing: Handing,
  ways: HandOverWays,
  part: 'all' | 'subject' | 'body' = 'all',
): Promise<string> {
  const message = rendered(handing, 'copy');
  const text = message.then((each) => (part === 'subject' ? each.subject : each.text));
  const rich = part !== 'subject' && ways.look !== 'plain';
  await Promise.all([
    writeClipboard({
      ...(rich ? { 'text/html': message.then(({ html }) => html) } : {}),
      'text/plain': text,
    }),
    message,
  ]);
  if (part === 'subject') return 'The subject is copied. Paste it, then press again for the body.';
  const what = part === 'body' ? 'Body copied' : 'Copied';
  return `${what} ${LOOKS[ways.look]}${ways.signs ? ', without your signature' : ''}${blanksIn(await message)}.`;
}

const FILES: Partial<Record<Way, (name: string) => string>> = {
  draft: (name) => `${name} is saved: open it, and your mail program shows it as a draft.`,
  ics: (name) => `${name} is saved: open it, or attach it, and calendars take it.`,
};

/** As a file that the browser saves. */
export async function saveHandedOver(
  { id, settled, incomplete, worked }: Handing,
  way: Way,
  name: string,
): Promise<string> {
  await settled();
  const file = await api.handOverFile(id, { way, timezone: zone(), incomplete, worked });
  const ending = way === 'draft' ? 'eml' : way;
  saveFile(file, `${name}.${ending}`);
  return FILES[way]?.(`${name}.${ending}`) ?? `${name}.${ending} is saved.`;
}

/** Opens the mail program with it. A text that it may cut is told before. */
export async function openMailto(handing: Handing): Promise<{ words: string; open: () => void; long: boolean }> {
  const address = mailtoOf(await rendered(handing, 'mailto'));
  const long = address.length > LONGEST_MAILTO;
  return {
    long,
    open: () => void (location.href = address),
    words: long
      ? `This is ${address.length} characters as an address; many mail programs cut it at about ${LONGEST_MAILTO}.`
      : 'Your mail program opens with it, as plain text.',
  };
}

export async function print(handing: Handing): Promise<string> {
  const { html } = await rendered(handing, 'print');
  const frame = Object.assign(document.createElement('iframe'), { srcdoc: html, title: 'For printing' });
  frame.style.cssText = 'position:fixed;inset:auto 100% 100% auto;width:800px;height:600px';
  frame.addEventListener('load', () => {
    frame.contentWindow?.print();
    setTimeout(() => frame.remove(), 60_000);
  });
  document.body.append(frame);
  return 'The print dialog has it.';
}

/** To the mail service: now, at a time, or as a draft in the mailroom. @returns what it is known by there */
export async function toService(handing: Handing, at?: string): Promise<string | undefined> {
  return (await rendered(handing, 'service', at)).outgoing;
}
