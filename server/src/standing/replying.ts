/** The reply that a standing reply gives to a mail: an unfinished message with what the mail says, and how it reads. */
import type { Fill, Profile, StandingRule } from '@vocabula/contract';
import { dayIn, foldedMailbox, type Message, type Program, type RenderInput } from '@vocabula/core';
import { bareAddress, NO_CHANGES } from '@vocabula/core/filling';
import { answersFrom, type IncomingMail, type MailMoment } from '@vocabula/core/standing';
import { eq } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { begin } from '../fills/beginning.js';
import { inputOf, messageOf, programOf, whyNot } from '../fills/rendering.js';
import { fillOf, frozenOf, newFill, type Row } from '../fills/rows.js';
import { notFound } from '../http/problem.js';
import { profileOf } from '../people/service.js';
import type { User } from '../people/user.js';
import type { RecipientService } from '../recipients/service.js';
import { paceOf, type Workers } from '../workers/pool.js';

/** A reply that nothing was written down of yet. */
export interface MadeReply {
  readonly row: Row;
  /** What the mail says to the questions. */
  readonly answers: Readonly<Record<string, string>>;
  readonly fill: Fill;
  readonly program: Program;
  readonly message: Message;
  readonly input: RenderInput;
  readonly profile: Profile;
  /** Why it may not go by itself, in words; undefined where it may. */
  readonly lacks: string | undefined;
}

/** The moment of a mail, as conditions and values read it. @param at ISO */
export const momentOf = (at: string, zone: string, answersOurs: boolean): MailMoment => ({
  today: dayIn(new Date(at), zone),
  locale: LOCALE,
  answersOurs,
});
/** In which days of mails are read; their names are understood in every language that we know. */
const LOCALE = 'en-GB';

export class ReplyMaker {
  constructor(
    private readonly database: Database,
    private readonly recipients: RecipientService,
    private readonly workers: Workers,
  ) {}

  /** Throws a RequestProblem with words where the template cannot be filled by the user. */
  async make(
    { text, values, timezone }: StandingRule,
    letter: string,
    { mail, moment }: { readonly mail: IncomingMail; readonly moment: MailMoment },
    user: User,
  ): Promise<MadeReply> {
    const { read } = this.database;
    const now = new Date();
    const [kept] = await read
      .select({ raw: schema.letters.raw })
      .from(schema.letters)
      .where(eq(schema.letters.id, letter));
    if (!kept) throw notFound('letter');
    const original = await this.workers.run('original', kept.raw, user.id, paceOf(kept.raw));
    const recipient = await this.recipients.meant(mail.from, user);
    const begun = await this.database.write((writer) => begin(writer, text, user));
    const { texts, house } = await frozenOf(read, begun);
    const program = programOf({ texts, house, signature: begun.signature ?? undefined, changes: NO_CHANGES });
    const answers = answersFrom(values, wantedOf(program), mail, moment);
    const row: Row = {
      ...newFill(begun, user, recipient, now.toISOString()),
      ...{ original, letter, answers },
    };
    const fill = await fillOf(read, row);
    const profile = await profileOf(read, user.id);
    const at = { now, zone: timezone };
    const message = messageOf(program, fill, profile, at);
    const sender = bareAddress(mail.from);
    const goesElsewhere = message.to.length !== 1 || message.to.some((each) => foldedMailbox(each) !== sender);
    const lacks = !message.ready
      ? whyNot(message, program)
      : goesElsewhere
        ? 'it would go to somebody else than its sender'
        : undefined;
    return { row, answers, fill, program, message, input: inputOf(fill, {}, at), profile, lacks };
  }
}

/** The questions of a template that answers can come to. */
const wantedOf = ({ slots }: Program) => slots.map(({ key, variable }) => ({ id: key, variable }));
