/** Counts findings of texts for lists, after the answer to whoever saved: the words are stored by then, the count can wait. */
import type { Logger } from 'pino';
import type { User } from '../people/user.js';
import type { Heavy } from '../workers/heavy.js';

/** Milliseconds from a save to its count, and from one count to the next: somebody who types saves often. */
const [SOON, EVERY] = [100, 1000];

export class FindingCounts {
  /** Texts that were saved since they were last counted, with who saved them. */
  private readonly pending = new Map<string, User>();
  private timer: NodeJS.Timeout | undefined;
  private last = -Infinity;
  private running: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly heavy: Pick<Heavy, 'call'>,
    private readonly log: Pick<Logger, 'error'>,
  ) {}

  /** Counts the findings of a working copy soon, however often it is saved. @param user who saved it */
  later(name: string, user: User): void {
    this.pending.set(name, user);
    const wait = Math.max(SOON, this.last + EVERY - performance.now());
    this.timer ??= setTimeout(() => void this.countAll(), wait).unref();
  }

  /** Counts what waits without waiting longer. Done when everything is counted: for a server that ends, and for tests. */
  countAll(): Promise<unknown> {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.last = performance.now();
    const saved = [...this.pending];
    this.pending.clear();
    this.running = this.running.then(() => Promise.all(saved.map(([name, user]) => this.count(name, user))));
    return this.running;
  }

  private async count(name: string, user: User): Promise<void> {
    try {
      await this.heavy.call('catalogue', 'countFindings', [name, user], user.id);
    } catch (error) {
      this.log.error({ err: error }, 'counting findings failed');
    }
  }
}
