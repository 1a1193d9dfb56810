/** Mail of the past that somebody of the demo has dealt with, made up from what people write, and their standing replies. */
import type { StandingRule } from '@vocabula/contract';
import { random, type Random } from '@vocabula/core';
import { bareAddress } from '@vocabula/core/filling';
import { takeLetter } from '../mailroom/service.js';
import { setDealtWith } from '../mailroom/store.js';
import type { User } from '../people/user.js';
import type { Services } from '../services.js';
import type { DemoMail } from './mail.js';
import { fieldsOfMail } from './mime.js';

/** What somebody's mail of the past is made from, as the file holds it. */
export interface DemoInbox {
  readonly to: string;
  readonly seed: number;
  readonly weeks: number;
  readonly senders: readonly string[];
  readonly words: Readonly<Record<string, readonly string[]>>;
  readonly mails: readonly (Required<Pick<DemoMail, 'subject' | 'text'>> &
    Pick<DemoMail, 'headers'> & { readonly count: number })[];
  readonly standing: readonly { readonly on: boolean; readonly rule: StandingRule }[];
}

const DAY = 86_400_000;

/** Brings the mail, all of it dealt with, and makes the rules. */
export async function bringInbox(
  { database, workers, standing }: Services,
  inbox: DemoInbox,
  people: ReadonlyMap<string, User>,
  now: Date,
): Promise<void> {
  const user = people.get(inbox.to);
  if (!user) throw new Error(`The demo has nobody called ${inbox.to}.`);
  const draw = random(inbox.seed);
  const mails = inbox.mails
    .flatMap(({ count, ...kind }) => Array.from({ length: count }, () => kind))
    .map((kind, at) => {
      const moment = new Date(now.getTime() - (3 + draw.fraction() * (inbox.weeks * 7 - 6)) * DAY);
      const from = oneOf(inbox.senders, draw);
      const mail = { id: `past-${at}`, to: inbox.to, from, days: 0, at: '' };
      const words = drawn(inbox, draw, moment);
      const said = { subject: filled(kind.subject, words), text: filled(kind.text, words) };
      const raw = fieldsOfMail({ ...mail, ...kind, ...said }, `${user.name} <${user.address}>`, moment);
      return { sender: bareAddress(from), raw: Buffer.from(raw), at: moment };
    })
    .toSorted((a, b) => a.at.getTime() - b.at.getTime());
  const columns = await workers.run(
    'letters',
    mails.map(({ raw }) => raw),
    '',
    'long',
  );
  await database.write(async (writer) => {
    for (const [index, mail] of mails.entries()) {
      const read = columns[index];
      if (!read) continue;
      const letter = await takeLetter(writer, { ...mail, recipients: [user.address], columns: read });
      if (letter) await setDealtWith(writer, letter, new Date(mail.at.getTime() + DAY / 2).toISOString());
    }
  });
  for (const { on, rule } of inbox.standing) {
    const { id } = await standing.make(rule, user);
    if (!on) continue;
    await standing.try(id, [], user);
    await standing.drive(id, { act: 'on' }, user);
  }
}

const oneOf = (list: readonly string[], draw: Random): string => list[draw.next(list.length)] ?? '';

/** What the words in braces stand for in one mail. */
function drawn({ words }: DemoInbox, draw: Random, moment: Date): Readonly<Record<string, string>> {
  const day = new Date(moment.getTime() + (2 + draw.next(40)) * DAY);
  return {
    day: day.toLocaleDateString('en-IE', { day: 'numeric', month: 'long', year: 'numeric' }),
    time: `${9 + draw.next(6)}:${draw.next(2) === 0 ? '00' : '30'}`,
    ...Object.fromEntries(Object.entries(words).map(([key, list]) => [key, oneOf(list, draw)])),
  };
}
const filled = (text: string, words: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => words[key] ?? whole);
