/** Handing a message over: to the clipboard, as a file, to a mail program, or to the mail service. */
import type { Fill, HandedOver, HandOver } from '@vocabula/contract';
import { advice, writtenEnvelope, type Message, type Program } from '@vocabula/core';
import { inlined } from '@vocabula/mail';
import { assetsOf } from '../assets/message-assets.js';
import type { AssetService } from '../assets/service.js';
import { type Database } from '../db/database.js';
import { RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';
import { mailboxOf } from '../people/names.js';
import { profileOf, waysOf } from '../people/service.js';
import { workspaceOf } from '../people/workspace.js';
import type { Outbox } from '../sending/outbox.js';
import { clipboardHtml, fileOf, type HandedOverFile } from './ways-out.js';
import { answered, demandWritable, recordOf } from './records.js';
import { inputOf, messageOf, programOf, whyNot } from './rendering.js';
import type { FillService } from './service.js';
import { addHandedOver, changeFill } from './store.js';

export class HandOverService {
  constructor(
    private readonly database: Database,
    private readonly fills: FillService,
    private readonly assets: AssetService,
    private readonly outbox: Outbox,
  ) {}

  /** Renders the message and records that it was handed over. With blanks only when asked to. */
  async handOver(
    id: string,
    { way, timezone, incomplete, worked, at: due }: HandOver,
    user: User,
  ): Promise<{ result: HandedOver; file: HandedOverFile | undefined }> {
    const fill = await this.fills.get(id, user);
    demandInUse(fill);
    const { read } = this.database;
    const [profile, ways] = [await profileOf(read, user.id), await waysOf(read, user.id)];
    const moment = { now: new Date(), zone: timezone ?? 'UTC' };
    const program = programOf(fill);
    // A mail program that signs by itself would sign a second time.
    const unsigned = ways.signs && way !== 'service';
    const message = messageOf(program, fill, profile, moment, unsigned);
    demandReady(message, program, incomplete ?? false);
    await demandWritable(read, message);
    // What a message shows was seen when its template was: it needs no right of its own.
    const assets = await this.assets.source(assetsOf(message));
    const record = { ...recordOf(fill, message, inputOf(fill, {}, moment), user, way), worked: worked ?? null };
    let outgoing: string | undefined;
    if (way === 'service') {
      outgoing = await this.outbox.add({ fill, message, assets, profile, moment, record, due, user });
    } else {
      await this.database.write(async (writer) => {
        const at = moment.now.toISOString();
        await addHandedOver(writer, [{ ...record, fillId: id, at, outgoing: null }]);
        await changeFill(writer, id, { state: 'handed over', updatedAt: at });
        await answered(writer, id, moment.now);
      });
    }
    const from = mailboxOf(profile);
    const file = await fileOf(way, fill, message, assets, { date: moment.now, ...(from ? { from } : {}) });
    const { subject, text, blanks } = message;
    const { to, cc, bcc } = writtenEnvelope(message);
    const { counting } = await workspaceOf(read);
    const findings = counting && way === 'service' ? [...message.findings, COUNTED] : message.findings;
    const at = moment.now.toISOString();
    const html =
      way === 'print' ? inlined(message.html, assets, message.width) : clipboardHtml(program, message, assets, ways);
    return { result: { subject, to, cc, bcc, html, text, blanks, findings, at, outgoing }, file };
  }
}

const COUNTED = advice({ code: 'counted' }, {}, 'note');

function demandInUse({ standing }: Fill): void {
  if (standing === 'withdrawn')
    throw new RequestProblem(
      409,
      'withdrawn',
      'This wording was withdrawn and must not be sent. Begin the message anew.',
    );
}

function demandReady(message: Message, program: Program, incomplete: boolean): void {
  if (message.ready || incomplete) return;
  throw new RequestProblem(422, 'not-ready', whyNot(message, program), {
    blanks: message.blanks,
    findings: message.findings,
  });
}
