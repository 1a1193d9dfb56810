/** Standing replies in words. */
import type { MailAct, StandingReply } from '@vocabula/contract';

/** What a rule does with a mail, where it is chosen, and what became of a mail. */
export const ACTS: readonly { readonly act: MailAct; readonly words: string; readonly says: string }[] = [
  { act: 'suggest', words: 'Offer the reply', says: 'It stands beside the mail, filled in; nothing is written.' },
  { act: 'draft', words: 'Keep a draft', says: 'It lies among the drafts until somebody sends it.' },
  { act: 'send', words: 'Send it', says: 'It goes half a minute later, and says that a program answered.' },
];
/** What became of a mail. */
export const DONE: Readonly<Record<MailAct | 'nothing', string>> = {
  suggest: 'offered',
  draft: 'draft kept',
  send: 'sent',
  nothing: 'not answered',
};
/** What would have become of a mail of the past. */
export const WOULD: Readonly<Record<MailAct | 'nothing', string>> = {
  suggest: 'would be offered',
  draft: 'would be a draft',
  send: 'would be sent',
  nothing: 'would not be answered',
};

/** Where a rule stands, in a line. */
export function stateWords({ on, why, trial, done }: StandingReply): string {
  const did = [
    done.send > 0 ? `${done.send} sent` : '',
    done.draft > 0 ? `${done.draft} drafts` : '',
    done.suggest > 0 ? `${done.suggest} offered` : '',
  ].filter(Boolean);
  const month = did.length > 0 ? ` · ${did.join(', ')} in 30 days` : '';
  if (on) return `on${month}`;
  if (why !== '') return `off · ${why}`;
  return `${trial ? 'off' : 'off, not tried yet'}${month}`;
}
