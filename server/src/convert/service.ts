/** Texts out of files that people have. What a file brings along is kept; the file itself is not. */
import type { Converted, PastWords, SentText } from '@vocabula/contract';
import { writtenMailbox } from '@vocabula/core';
import { MOST_MAILS } from '@vocabula/core/derive';
import { bareAddress } from '@vocabula/core/filling';
import { and, count, desc, eq, gt, inArray } from 'drizzle-orm';
import { schema, type Database } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import type { AssetService } from '../assets/service.js';
import type { User } from '../people/user.js';
import type { Workers } from '../workers/pool.js';
import type { BroughtFile } from './reading.js';

/** At most this many templates are offered. */
const MAX_TEXTS = 12;

export class ConvertService {
  constructor(
    private readonly database: Database,
    private readonly assets: AssetService,
    private readonly workers: Workers,
  ) {}

  /** Reads a file into a text without a title. Nothing but the images and attachments it brings is kept. */
  async convert(name: string, bytes: Uint8Array, user: User): Promise<Converted> {
    const { images, attachments } = await this.workers.run('broughtBy', { name, bytes }, user.id, 'long');
    const kept = { images: await this.keep(images, user), attachments: await this.keep(attachments, user) };
    const { colours } = (await currentHouse(this.database.read, 'fill')).house.style;
    return this.workers.run('readAs', { name, bytes, kept, colours }, user.id, 'long');
  }

  /** Reads the mails of a file (.eml, mbox, text, HTML), at most as many as a template is derived from. */
  async mails(name: string, bytes: Uint8Array, user: User): Promise<PastWords[]> {
    return this.workers.run('pastMails', { name, bytes }, user.id, 'long');
  }

  /**
   * The user's own messages, newest first: of one template, to one address, or those that went out under some ids.
   * Messages of other people are never read.
   */
  async sent(
    { text, address, outgoing }: { text?: string | undefined; address?: string | undefined; outgoing?: string[] },
    user: User,
  ): Promise<PastWords[]> {
    const { handedOver } = schema;
    const { id, subject, address: recipient, name, at, html } = handedOver;
    const rows = await this.database.read
      .select({ id, subject, address: recipient, name, at, html })
      .from(handedOver)
      .where(
        and(
          eq(handedOver.person, user.id),
          text === undefined ? undefined : eq(handedOver.text, text),
          address === undefined ? undefined : eq(handedOver.address, bareAddress(address)),
          outgoing === undefined ? undefined : inArray(handedOver.outgoing, outgoing),
        ),
      )
      .orderBy(desc(handedOver.at))
      .limit(MOST_MAILS);
    return rows.map((row) => ({
      ...{ subject: row.subject, day: row.at.slice(0, 10), html: row.html },
      file: `${row.at.slice(0, 10)} ${row.name || row.address || row.id}`,
      to: row.address === '' ? [] : [writtenMailbox({ name: row.name, address: row.address })],
    }));
  }

  /** Templates that the user has sent several messages from, the most used first. */
  async sentTexts(user: User): Promise<SentText[]> {
    const { handedOver, texts } = schema;
    const messages = count();
    return this.database.read
      .select({ text: handedOver.text, title: texts.title, messages })
      .from(handedOver)
      .innerJoin(texts, eq(texts.name, handedOver.text))
      .where(eq(handedOver.person, user.id))
      .groupBy(handedOver.text)
      .having(gt(messages, 1))
      .orderBy(desc(messages), texts.title)
      .limit(MAX_TEXTS);
  }

  /** Keeps what is an asset, and says under which path, by its source; the rest is left out. */
  private async keep(files: readonly BroughtFile[], user: User): Promise<Record<string, string>> {
    const kept: Record<string, string> = {};
    for (const { source, name, content } of files) {
      const asset = await this.assets.add(name, content, false, user).catch(() => undefined);
      if (asset) kept[source] = asset.path;
    }
    return kept;
  }
}
