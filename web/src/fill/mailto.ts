/** A message as an address that a mail program opens. */
import type { HandedOver } from '@vocabula/contract';

/** What the most careful of mail programs and browsers take; beyond it some cut the text. */
export const LONGEST_MAILTO = 1900;

/** RFC 6068: `mailto:` with subject, copies and text. */
export function mailtoOf({
  to,
  cc,
  bcc,
  subject,
  text,
}: Pick<HandedOver, 'to' | 'cc' | 'bcc' | 'subject' | 'text'>): string {
  const address = (mailbox: string): string =>
    encodeURIComponent((/<([^<>]+)>\s*$/.exec(mailbox)?.[1] ?? mailbox).trim()).replace(/%40/g, '@');
  const list = (mailboxes: readonly string[]): string => mailboxes.map(address).join(',');
  const fields = [
    cc.length > 0 ? `cc=${list(cc)}` : '',
    bcc.length > 0 ? `bcc=${list(bcc)}` : '',
    `subject=${encodeURIComponent(subject)}`,
    `body=${encodeURIComponent(text.replace(/\n/g, '\r\n'))}`,
  ].filter(Boolean);
  return `mailto:${list(to)}?${fields.join('&')}`;
}
