/** Mail that came to the people of the demo, some of it badly formed. */
import type { DemoMail } from './mail.js';
import { fieldsOfMail } from './mime.js';
import type { LetterService } from '../mailroom/service.js';
import type { Asker } from '../people/asker.js';

export type { DemoMail } from './mail.js';

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
