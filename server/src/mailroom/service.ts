/** The letters that the stand-in has taken. */
import { randomUUID } from 'node:crypto';
import type { Letter, LetterSummary } from '@vocabula/contract';
import { inlined, readEml } from '@vocabula/mail';
import { desc, eq } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import type { Asker } from '../people/asker.js';
import { profileOf } from '../people/service.js';

type Row = typeof schema.letters.$inferSelect;

export class LetterService {
  constructor(private readonly database: Database) {}

  /** Keeps a letter as it came. */
  async take(sender: string, recipients: readonly string[], raw: Uint8Array): Promise<void> {
    const subject = await readEml(raw).then(
      (mail) => mail.subject,
      () => '',
    );
    const row: Row = {
      id: randomUUID(),
      sender,
      recipients: JSON.stringify(recipients),
      subject,
      raw: Buffer.from(raw),
      at: new Date().toISOString(),
    };
    await this.database.write((writer) => writer.insert(schema.letters).values(row));
  }

  /** The last hundred that went from or to the asker, the newest first. */
  async list(asker: Asker): Promise<LetterSummary[]> {
    const { id, sender, recipients, subject, at } = schema.letters;
    const rows = await this.database.read
      .select({ id, sender, recipients, subject, at })
      .from(schema.letters)
      .orderBy(desc(at));
    const mine = await this.addressesOf(asker);
    return rows
      .map(summary)
      .filter((letter) => isOf(letter, mine))
      .slice(0, 100);
  }

  private async addressesOf({ id, address }: Asker): Promise<Set<string>> {
    const { email } = await profileOf(this.database.read, id);
    return new Set([address, email.toLowerCase()].filter(Boolean));
  }

  async get(id: string, asker: Asker): Promise<Letter> {
    const [row] = await this.database.read.select().from(schema.letters).where(eq(schema.letters.id, id));
    if (!row || !isOf(summary(row), await this.addressesOf(asker))) throw notFound('letter');
    const { html = '', text = '', files } = await readEml(row.raw);
    const shown = inlined(html, (path) => {
      const found = files.find(({ cid }) => cid !== undefined && path === `cid:${cid}`);
      return found && { content: found.content, type: found.type };
    });
    return { ...summary(row), html: shown, text };
  }
}

const isOf = ({ sender, recipients }: LetterSummary, addresses: ReadonlySet<string>): boolean =>
  [sender, ...recipients].some((each) => addresses.has(each.toLowerCase()));

const summary = ({ id, sender, recipients, subject, at }: Omit<Row, 'raw'>): LetterSummary => ({
  id,
  sender,
  recipients: JSON.parse(recipients) as string[],
  subject,
  at,
});
