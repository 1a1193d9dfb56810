/** Mail that came to the people of the demo, some of it badly formed. */
import type { DemoMail } from './mail.js';
import { fieldsOfMail } from './mime.js';
import type { LetterService } from '../mailroom/service.js';
import type { User } from '../people/user.js';

export type { DemoMail } from './mail.js';

export async function bringMails(
  mails: readonly DemoMail[],
  people: ReadonlyMap<string, User>,
  letters: LetterService,
  now: Date,
): Promise<void> {
  for (const mail of mails) {
    const user = people.get(mail.to);
    if (!user) continue;
    const day = new Date(now.getTime() - mail.days * 86_400_000).toISOString().slice(0, 10);
    const moment = new Date(Math.min(Date.parse(`${day}T${mail.at}:00Z`), now.getTime() - 60_000));
    const raw = mail.raw?.replace(/\n/g, '\r\n') ?? fieldsOfMail(mail, `${user.name} <${user.address}>`, moment);
    const others = [...people.values()].filter(({ address }) => mail.cc?.includes(address)).map(({ address }) => address);
    const sender = /<([^<>]+)>/.exec(mail.from ?? '')?.[1] ?? '';
    await letters.take(sender, [user.address, ...others], Buffer.from(raw), moment);
  }
}
