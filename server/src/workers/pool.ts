/**
 * Worker threads for everything whose cost a request decides: reading files and mails, checking, rendering for many.
 * The thread that answers requests does none of it. A task has a limit of time and of memory; beyond it its thread is
 * ended and the request is answered with words.
 */
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { RequestProblem } from '../http/problem.js';
import type { Given, Performed, Task, TaskInput, TaskResult } from './tasks.js';

export interface WorkerLimits {
  /** The longest that one task may take once a thread has begun with it, in milliseconds. */
  readonly time: number;
  /** The most JavaScript memory of one thread, in megabytes. Buffers do not count: readers bound those themselves. */
  readonly memory: number;
  readonly threads: number;
}
const LIMITS: WorkerLimits = { time: 20_000, memory: 1024, threads: 2 };
/** Tasks that wait at most; more are refused at once. */
const MAX_WAITING = 100;
/** How often it is looked whether a task has taken too long, in milliseconds. */
const LOOK = 100;

const TOO_COSTLY = 'This takes more time or memory than one request may. Try a smaller part of it.';

export class Workers {
  private threads: Piscina<Given, Performed> | undefined;
  private readonly limits: WorkerLimits;
  /** The last task of each person: theirs go one after the other, so that one person keeps one thread busy at most. */
  private readonly lastOf = new Map<string, Promise<unknown>>();

  constructor(limits: Partial<WorkerLimits> = {}) {
    this.limits = { ...LIMITS, ...limits };
  }

  /**
   * Performs a task in a thread. Input and result are copied; large things go as text or bytes.
   * @param by id of the person it is for; empty for the application itself
   * @throws RequestProblem the one that the task threw; 422 `too-costly` beyond a limit; 503 `busy` while too many wait
   */
  async run<K extends Task>(task: K, input: TaskInput<K>, by: string): Promise<TaskResult<K>> {
    const before = by === '' ? undefined : this.lastOf.get(by);
    const result = before ? before.then(() => this.perform(task, input)) : this.perform(task, input);
    if (by !== '') {
      const settled = result.then(
        () => undefined,
        () => undefined,
      );
      this.lastOf.set(by, settled);
      void settled.then(() => {
        if (this.lastOf.get(by) === settled) this.lastOf.delete(by);
      });
    }
    return result;
  }

  private async perform<K extends Task>(task: K, input: TaskInput<K>): Promise<TaskResult<K>> {
    const threads = (this.threads ??= this.started());
    if (threads.queueSize >= MAX_WAITING)
      throw new RequestProblem(503, 'busy', 'Too much is being worked on just now. Try again in a moment.');
    const stop = new AbortController();
    // Set by the thread when it begins: waiting for one does not count.
    const began = new Int32Array(new SharedArrayBuffer(4));
    let since: number | undefined;
    const watch = setInterval(() => {
      if (Atomics.load(began, 0) === 0) return;
      since ??= performance.now();
      if (performance.now() - since > this.limits.time) stop.abort();
    }, LOOK);
    try {
      const done = await threads.run({ task, input, began }, { signal: stop.signal });
      if ('problem' in done) {
        const { status, code, message, details } = done.problem;
        throw new RequestProblem(status, code, message, details);
      }
      return done.value as TaskResult<K>;
    } catch (error) {
      const { code } = error as { code?: string };
      if (stop.signal.aborted || code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new RequestProblem(422, 'too-costly', TOO_COSTLY);
      throw error;
    } finally {
      clearInterval(watch);
    }
  }

  async close(): Promise<void> {
    const { threads } = this;
    this.threads = undefined;
    await threads?.destroy();
  }

  private started(): Piscina<Given, Performed> {
    return new Piscina<Given, Performed>({
      filename: fileURLToPath(new URL('./thread.mjs', import.meta.url)),
      minThreads: 0,
      maxThreads: this.limits.threads,
      idleTimeout: 60_000,
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: this.limits.memory },
    });
  }
}
