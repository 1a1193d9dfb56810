/** What several messages that go together need, asked for once: mailings, files, whom not to write to, counting. */
import type { Message } from '@vocabula/core';
import { bareAddress } from '@vocabula/core/filling';
import type { AssetSource } from '@vocabula/mail';
import { eq } from 'drizzle-orm';
import { assetsOf } from '../assets/message-assets.js';
import type { AssetService } from '../assets/service.js';
import { schema, type Database } from '../db/database.js';
import { demandNoneOf } from '../fills/records.js';
import { RequestProblem } from '../http/problem.js';
import { preparedOf, type Prepared } from '../mailings/prepared.js';
import { workspaceOf } from '../people/workspace.js';
import { refusedAmong } from '../recipients/service.js';
import { endPausesIfAny, scopeOf } from './pauses.js';

const { mailings } = schema;
/** How old the state of a mailing may be before it is asked for again, in milliseconds. */
const LOOK_AGAIN = 50;

/** Compiled mailings and their files, kept from batch to batch as long as they do not change. */
export class Workshop {
  private compiled: { readonly key: string; readonly made: Promise<Prepared> } | undefined;
  private brought: { readonly key: string; readonly source: Promise<AssetSource> } | undefined;

  constructor(
    readonly database: Database,
    private readonly assets: AssetService,
  ) {}

  async prepared(id: string): Promise<Prepared> {
    const [mailing] = await this.database.read.select().from(mailings).where(eq(mailings.id, id));
    if (!mailing) throw new RequestProblem(404, 'not-found', 'There is no such mailing.');
    const key = `${id}:${mailing.revision}`;
    if (this.compiled?.key !== key) this.compiled = { key, made: preparedOf(this.database.read, mailing) };
    return this.compiled.made;
  }

  /** The files of a message; those of one mailing are mostly the same for all. */
  source(message: Message): Promise<AssetSource> {
    const paths = assetsOf(message);
    const key = paths.join('\n');
    if (this.brought?.key !== key) this.brought = { key, source: this.assets.source(paths) };
    return this.brought.source;
  }
}

export class Batch {
  private readonly mailings = new Map<string, Promise<Prepared>>();
  private readonly asked = new Set<string>();
  private readonly going = new Map<string, { readonly going: boolean; readonly at: number }>();
  private readonly taken = new Set<string>();
  private readonly refused = new Set<string>();
  private workspace: Promise<{ readonly counting: boolean }> | undefined;

  constructor(private readonly workshop: Workshop) {}

  prepared(id: string): Promise<Prepared> {
    const made = this.mailings.get(id) ?? this.workshop.prepared(id);
    this.mailings.set(id, made);
    return made;
  }
  source(message: Message): Promise<AssetSource> {
    return this.workshop.source(message);
  }
  /** Whether a mailing still goes: it may be paused or stopped while its messages are on their way. */
  async isGoing(id: string): Promise<boolean> {
    const known = this.going.get(id);
    if (known && Date.now() - known.at < LOOK_AGAIN) return known.going;
    const [row] = await this.workshop.database.read
      .select({ state: mailings.state })
      .from(mailings)
      .where(eq(mailings.id, id));
    const going = row?.state === 'going' || row?.state === 'first';
    this.going.set(id, { going, at: Date.now() });
    return going;
  }
  /** The service has taken a message of this person: pauses that held for it are over. */
  async resumed(person: string): Promise<void> {
    if (this.taken.has(person)) return;
    this.taken.add(person);
    await endPausesIfAny(this.workshop.database, ['all', scopeOf(person)]);
  }
  async counting(): Promise<boolean> {
    this.workspace ??= workspaceOf(this.workshop.database.read);
    return (await this.workspace).counting;
  }

  /** Learns which of some addresses nothing is sent to. */
  async ask(addresses: readonly string[]): Promise<void> {
    const unknown = addresses.map(bareAddress).filter((each) => !this.asked.has(each));
    if (unknown.length === 0) return;
    for (const each of unknown) this.asked.add(each);
    for (const each of await refusedAmong(this.workshop.database.read, unknown)) this.refused.add(each);
  }
  /** Throws where one of them is on the do-not-write list. */
  async demandWritable(addresses: readonly string[]): Promise<void> {
    await this.ask(addresses);
    demandNoneOf(addresses.filter((each) => this.refused.has(bareAddress(each))));
  }
}
