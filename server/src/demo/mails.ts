/** Mail that came to the people of the demo, some of it badly formed. */
import { fieldsOfMail } from './mime.js';
import type { LetterService } from '../mailroom/service.js';
import type { Asker } from '../people/asker.js';

export interface DemoMail {
  readonly id: string;
  /** The key of whom it is for. */
  readonly to: string;
  readonly cc?: string;
  readonly from?: string;
  readonly subject?: string;
  readonly text?: string;
  readonly days: number;
  /** On the wall clock of UTC. */
  readonly at: string;
  readonly answers?: string;
  readonly raw?: string;
}

export async function bringMails(
  mails: readonly DemoMail[],
  people: ReadonlyMap<string, Asker>,
  letters: LetterService,
  now: Date,
): Promise<void> {
  for (const mail of mails) {
    const asker = people.get(mail.to);
    if (!asker) continue;
    const day = new Date(now.getTime() - mail.days * 86_400_000).toISOString().slice(0, 10);
    const moment = new Date(Math.min(Date.parse(`${day}T${mail.at}:00Z`), now.getTime() - 60_000));
    const raw = mail.raw?.replace(/\n/g, '\r\n') ?? fieldsOfMail(mail, `${asker.name} <${asker.address}>`, moment);
    const others = [...people.values()].filter(({ address }) => mail.cc?.includes(address)).map(({ address }) => address);
    const sender = /<([^<>]+)>/.exec(mail.from ?? '')?.[1] ?? '';
    await letters.take(sender, [asker.address, ...others], Buffer.from(raw), moment);
  }
}
