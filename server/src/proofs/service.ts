/** What is kept of proofing a template, and proofs that are sent by mail. */
import {
  senderFields,
  type LookAt,
  type ProofRecord,
  type SendProof,
  type SentProof,
  type SetAside,
} from '@vocabula/contract';
import { compileBundle, dayIn, readMailbox, render, signatureFor, type Mailbox } from '@vocabula/core';
import { SendProblem, sendAll, toEml } from '@vocabula/mail';
import { and, asc, eq } from 'drizzle-orm';
import { assetsOf, withAssets } from '../assets/message-assets.js';
import type { AssetService } from '../assets/service.js';
import { closure } from '../catalogue/visible-texts.js';
import { demanded } from '../catalogue/text-summaries.js';
import { schema, type Database, type Writer } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { mailboxOf } from '../people/names.js';
import type { PeopleService } from '../people/service.js';

/** What a subject begins with, so that nobody takes a proof for the message. */
const MARK = '[Proof]';

export class ProofService {
  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly assets: AssetService,
    /** The mail service's address. */
    private readonly smtp: () => string | undefined,
  ) {}

  async record(text: string, user: User): Promise<ProofRecord> {
    await this.known(text, user);
    const { read } = this.database;
    const looked = await read
      .select()
      .from(schema.lookedAt)
      .where(eq(schema.lookedAt.text, text))
      .orderBy(asc(schema.lookedAt.at));
    const aside = await read
      .select()
      .from(schema.setAside)
      .where(eq(schema.setAside.text, text))
      .orderBy(asc(schema.setAside.at));
    return {
      lookedAt: looked.map(({ text: _text, ...rest }) => rest),
      setAside: aside.map(({ text: _text, ...rest }) => rest),
    };
  }

  async look(text: string, looked: LookAt, user: User): Promise<void> {
    await this.known(text, user);
    const row = { text, ...looked, who: await this.name(user), at: new Date().toISOString() };
    await this.database.write((writer) => writer.insert(schema.lookedAt).values(row).onConflictDoNothing());
  }

  /** Takes a tick back, from whichever case it was put on. */
  async unlook(text: string, digest: string, user: User): Promise<void> {
    await this.known(text, user);
    const { lookedAt } = schema;
    await this.database.write((writer) =>
      writer.delete(lookedAt).where(and(eq(lookedAt.text, text), eq(lookedAt.digest, digest))),
    );
  }

  async setAside(text: string, given: SetAside, user: User): Promise<void> {
    await this.known(text, user);
    const row = { text, ...given, who: await this.name(user), at: new Date().toISOString() };
    await this.database.write((writer) =>
      writer
        .insert(schema.setAside)
        .values(row)
        .onConflictDoUpdate({
          target: [schema.setAside.text, schema.setAside.fingerprint],
          set: { reason: row.reason, who: row.who, at: row.at },
        }),
    );
  }

  async bringBack(text: string, fingerprint: string, user: User): Promise<void> {
    await this.known(text, user);
    const { setAside } = schema;
    await this.database.write((writer) =>
      writer.delete(setAside).where(and(eq(setAside.text, text), eq(setAside.fingerprint, fingerprint))),
    );
  }

  /** Renders the working copy for each case and sends it to the typed addresses only, whatever its envelope says. */
  async send(name: string, { to, cases, timezone }: SendProof, user: User): Promise<SentProof> {
    const { read } = this.database;
    const [template] = await closure(read, name, user, 'write');
    if (!template) throw notFound('template');
    const url = this.smtp();
    if (url === undefined)
      throw new RequestProblem(422, 'no-mail-service', 'No mail service is set up: SMTP_URL is empty.');
    const profile = await this.people.profile(user);
    const sender = mailboxOf(profile);
    if (!sender)
      throw new RequestProblem(422, 'no-sender', 'A proof is sent from your own address; it is missing in Settings.');
    const wanted = to.map((words): Mailbox => {
      const mailbox = readMailbox(words);
      if (!mailbox)
        throw new RequestProblem(422, 'bad-address', `“${words.slice(0, 80)}” is not one address. Nothing was sent.`);
      return mailbox;
    });
    const signature = signatureFor(template.document.attrs.front.purpose, profile);
    const texts = await closure(read, name, user, 'write', signature ? [signature] : []);
    const { house } = await currentHouse(read, 'write');
    const program = compileBundle({ text: template, texts, house, signature });
    const date = new Date();
    const zone = timezone ?? 'UTC';
    const mails = [];
    for (const { label, recipient, answers } of cases) {
      const message = render(program, {
        recipient,
        answers,
        sender: senderFields(profile),
        today: dayIn(date, zone),
        zone,
      });
      const assets = await this.assets.source(assetsOf(message));
      const subject = `${MARK} ${message.subject}${cases.length > 1 ? ` (${label})` : ''}`.trim();
      const proof = { ...message, subject, to: wanted, cc: [], bcc: [], replyTo: [] };
      const eml = await withAssets(() => toEml(proof, { date, assets, from: sender }));
      mails.push({ from: sender.address, to: wanted.map(({ address }) => address), eml });
    }
    try {
      await sendAll(url, mails);
    } catch (problem) {
      if (problem instanceof SendProblem) throw new RequestProblem(422, 'not-sent', problem.message);
      throw problem;
    }
    return { sent: mails.length, to };
  }

  private async known(text: string, user: User): Promise<void> {
    await demanded(this.database.read, text, user, 'write');
  }

  private async name(user: User): Promise<string> {
    const { name, email } = await this.people.profile(user);
    return name || email || 'somebody';
  }
}

/** Takes what is kept of the proofs of a text that is purged. */
export async function removeProofRecord(writer: Writer, text: string): Promise<void> {
  await writer.delete(schema.lookedAt).where(eq(schema.lookedAt.text, text));
  await writer.delete(schema.setAside).where(eq(schema.setAside.text, text));
}
