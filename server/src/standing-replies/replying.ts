/** The reply that a standing reply gives to a mail: an unfinished message with what the mail says, and how it reads. */
import type { Profile, StandingRule } from '@vocabula/contract';
import { foldedMailbox, type Message, type Program, type RenderInput } from '@vocabula/core';
import { bareAddress, NO_CHANGES } from '@vocabula/core/filling';
import { answersFrom } from '@vocabula/core/standing-replies';
import { eq } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { begin, type Begun } from '../fills/beginning.js';
import { inputOf, messageOf, programOf, whyNot } from '../fills/rendering.js';
import { frozenOf, newFill, type Row } from '../fills/rows.js';
import { notFound } from '../http/problem.js';
import { profileOf } from '../people/service.js';
import type { User } from '../people/user.js';
import type { RecipientService } from '../recipients/service.js';
import { paceOf, type Workers } from '../workers/pool.js';
import type { Known } from './mails.js';

/** What all replies of a rule are made from. */
export interface Prepared {
  readonly rule: StandingRule;
  readonly user: User;
  readonly begun: Begun;
  readonly program: Program;
  readonly profile: Profile;
}
/** A reply that nothing was written down of yet. */
export interface MadeReply {
  readonly row: Row;
  /** What the mail says to the questions. */
  readonly answers: Readonly<Record<string, string>>;
  readonly message: Message;
  readonly input: RenderInput;
  /** Why it may not go by itself, in words; undefined where it may. */
  readonly lacks: string | undefined;
}

export class ReplyMaker {
  constructor(
    private readonly database: Database,
    private readonly recipients: RecipientService,
    private readonly workers: Workers,
  ) {}

  /** Throws a RequestProblem with words where the template cannot be filled by the user. */
  async prepare(rule: StandingRule, user: User): Promise<Prepared> {
    const { read } = this.database;
    const begun = await this.database.write((writer) => begin(writer, rule.text, user));
    const { texts, house } = await frozenOf(read, begun);
    const program = programOf({ texts, house, signature: begun.signature ?? undefined, changes: NO_CHANGES });
    return { rule, user, begun, program, profile: await profileOf(read, user.id) };
  }

  async make(
    { rule, user, begun, program, profile }: Prepared,
    letter: string,
    { mail, moment }: Known,
  ): Promise<MadeReply> {
    const [kept] = await this.database.read
      .select({ raw: schema.letters.raw })
      .from(schema.letters)
      .where(eq(schema.letters.id, letter));
    if (!kept) throw notFound('letter');
    const original = await this.workers.run('original', kept.raw, user.id, paceOf(kept.raw));
    const recipient = await this.recipients.meant(mail.from, user);
    const answers = answersFrom(rule.values, wantedOf(program), mail, moment.today);
    const now = new Date();
    const row = { ...newFill(begun, user, recipient, now.toISOString()), original, letter, answers };
    const answered = { fields: recipient, answers, offered: {}, original, all: false };
    const at = { now, zone: rule.timezone };
    const message = messageOf(program, answered, profile, at);
    const sender = bareAddress(mail.from);
    const goesElsewhere = message.to.length !== 1 || message.to.some((each) => foldedMailbox(each) !== sender);
    const lacks = !message.ready
      ? whyNot(message, program)
      : goesElsewhere
        ? 'it would go to somebody else than its sender'
        : undefined;
    return { row, answers, message, input: inputOf(answered, {}, at), lacks };
  }
}

/** The questions of a template that answers can come to. */
const wantedOf = ({ slots }: Program) => slots.map(({ key, variable }) => ({ id: key, variable }));
