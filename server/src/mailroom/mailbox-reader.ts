/**
 * Reads the real mailbox that `IMAP_URL` names, from when it was first read on: each mail is kept in one transaction with
 * how far was read, so that after a stop or a kill none is missing and none is there twice. What cannot be read is tried
 * again, later each time.
 */
import { Mailbox, MailboxProblem, type MailboxPlace } from '@vocabula/mail';
import type { Logger } from 'pino';
import type { Database } from '../db/database.js';
import { keepWorkspaceValue, workspaceValue } from '../people/workspace.js';
import { keepMailboxState } from './mailbox-state.js';
import type { LetterService } from './service.js';

/** How long after each failure in a row it is tried again, in milliseconds; a refused password is tried as rarely as the last. */
const BACK_OFF = [2000, 10_000, 60_000, 300_000, 600_000];

export class MailboxReader {
  private mailbox: Mailbox | undefined;
  private stopped = false;
  private running: Promise<void> = Promise.resolve();
  private wakeUp: () => void = () => undefined;

  constructor(
    private readonly database: Database,
    private readonly letters: LetterService,
    private readonly log: Logger,
    private readonly backOff: readonly number[] = BACK_OFF,
  ) {}

  /** Begins to read, and goes on until it is stopped. @param address as `IMAP_URL` has it; undefined for no mailbox */
  start(address: string | undefined): void {
    this.running = this.run(address).catch((error: unknown) => this.log.error({ err: error }, 'reading mail ended'));
  }

  async stop(): Promise<void> {
    this.stopped = true;
    this.mailbox?.stop();
    this.wakeUp();
    await this.running;
  }

  private async run(address: string | undefined): Promise<void> {
    if (address === undefined) return this.say(false);
    let failures = 0;
    while (!this.stopped) {
      try {
        const mailbox = new Mailbox(address);
        this.mailbox = mailbox;
        await this.read(mailbox, () => (failures = 0));
      } catch (error) {
        if (this.stopped) return;
        const problem = error instanceof MailboxProblem ? error : undefined;
        const why = problem?.message ?? (error instanceof TypeError ? 'IMAP_URL is no address of a mailbox.' : '');
        if (why === '') this.log.error({ err: error }, 'a mail could not be kept');
        else this.log.warn({ kind: problem?.kind }, why);
        await this.say({ reading: false, why: why || 'A mail could not be kept. It is tried again.' });
        const last = this.backOff.length - 1;
        const pause = problem && problem.kind !== 'lost' ? last : Math.min(failures, last);
        failures += 1;
        await this.rest(this.backOff[pause] ?? 0);
      }
    }
  }

  private async read(mailbox: Mailbox, isWell: () => void): Promise<void> {
    const key = `mailbox ${mailbox.name}`;
    const place = (await workspaceValue(this.database.read, key)) as MailboxPlace | undefined;
    const { owner } = mailbox;
    let begun: MailboxPlace | undefined;
    await mailbox.read({
      place,
      take: async ({ raw, at }, reached) => {
        await this.letters.takeReal(raw, at, owner, (writer) => keepWorkspaceValue(writer, key, reached));
      },
      ready: async (reached) => {
        isWell();
        // Only where it begins anew is there a place that no mail has brought.
        if (reached.validity !== place?.validity && reached !== begun)
          await this.database.write((writer) => keepWorkspaceValue(writer, key, reached));
        begun = reached;
        await this.say({ reading: true, why: '' });
      },
    });
  }

  private said: string | undefined;
  private async say(state: Parameters<typeof keepMailboxState>[1]): Promise<void> {
    const words = JSON.stringify(state);
    if (words === this.said) return;
    this.said = words;
    await this.database.write((writer) => keepMailboxState(writer, state));
  }

  private async rest(milliseconds: number): Promise<void> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    await new Promise<void>((resolve) => {
      this.wakeUp = resolve;
      timer = setTimeout(resolve, milliseconds);
    });
    clearTimeout(timer);
  }
}
