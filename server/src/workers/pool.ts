/**
 * Worker threads for everything whose cost a request decides: reading files and mails, checking, rendering for many.
 * The thread that answers requests does none of it. A task has a limit of time and of memory; beyond it its thread is
 * ended and the request is answered with words.
 */
import { Piscina } from 'piscina';
import { RequestProblem } from '../http/problem.js';
import type { Given, Performed, Task, TaskInput, TaskResult } from './tasks.js';
import { PLACES } from '../places.js';

/** `quick` tasks are waited for by somebody who goes on working; `long` ones by somebody who brought a large file. */
export type Pace = 'quick' | 'long';
export interface WorkerLimits {
  /** The longest that one task may take once a thread has begun with it, in milliseconds. */
  readonly time: number;
  /** The most JavaScript memory of one thread, in megabytes. Buffers do not count: readers bound those themselves. */
  readonly memory: number;
  readonly threads: number;
}
/** Threads of their own for each pace, so that nothing quick waits behind something long. */
const LIMITS: Readonly<Record<Pace, WorkerLimits>> = {
  quick: { time: 10_000, memory: 512, threads: 2 },
  long: { time: 60_000, memory: 1024, threads: 2 },
};
/** Bytes from which reading them is long. */
const LARGE = 1_000_000;
export const paceFor = (bytes: number): Pace => (bytes > LARGE ? 'long' : 'quick');
export const paceOf = (bytes: Uint8Array): Pace => paceFor(bytes.length);

/** Tasks that wait at most; more are refused at once. */
const MAX_WAITING = 100;
/** How often it is looked whether a task has taken too long, in milliseconds. */
const LOOK = 100;

const TOO_COSTLY = 'This takes more time or memory than one request may. Try a smaller part of it.';

export class Workers {
  private readonly threads = new Map<Pace, Piscina<Given, Performed>>();
  /** The last task of each person: theirs go one after the other, so that one person keeps one thread busy at most. */
  private readonly lastOf = new Map<string, Promise<unknown>>();

  constructor(private readonly limits: Readonly<Record<Pace, WorkerLimits>> = LIMITS) {}

  /**
   * Performs a task in a thread. Input and result are copied; large things go as text or bytes.
   * @param by id of the person it is for, whose tasks of one pace go one after the other; empty for the application itself
   * @throws RequestProblem the one that the task threw; 422 `too-costly` beyond a limit; 503 `busy` while too many wait
   */
  async run<K extends Task>(task: K, input: TaskInput<K>, by: string, pace: Pace = 'quick'): Promise<TaskResult<K>> {
    if (by === '') return this.perform(task, input, pace);
    const key = `${pace}:${by}`;
    const before = this.lastOf.get(key);
    const result = before ? before.then(() => this.perform(task, input, pace)) : this.perform(task, input, pace);
    const settled: Promise<void> = result
      .then(
        () => undefined,
        () => undefined,
      )
      .then(() => {
        if (this.lastOf.get(key) === settled) this.lastOf.delete(key);
      });
    this.lastOf.set(key, settled);
    return result;
  }

  private async perform<K extends Task>(task: K, input: TaskInput<K>, pace: Pace): Promise<TaskResult<K>> {
    const threads = this.threadsOf(pace);
    if (threads.queueSize >= MAX_WAITING)
      throw new RequestProblem(503, 'busy', 'Too much is being worked on just now. Try again in a moment.');
    const stop = new AbortController();
    // Set by the thread when it begins: waiting for one does not count.
    const began = new Int32Array(new SharedArrayBuffer(4));
    let since: number | undefined;
    const watch = setInterval(() => {
      if (Atomics.load(began, 0) === 0) return;
      since ??= performance.now();
      if (performance.now() - since > this.limits[pace].time) stop.abort();
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
    const all = [...this.threads.values()];
    this.threads.clear();
    await Promise.all(all.map((each) => each.destroy()));
  }

  private threadsOf(pace: Pace): Piscina<Given, Performed> {
    const known = this.threads.get(pace);
    if (known) return known;
    const { threads, memory } = this.limits[pace];
    const made = new Piscina<Given, Performed>({
      filename: PLACES.thread,
      minThreads: 0,
      maxThreads: threads,
      idleTimeout: 60_000,
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: memory },
    });
    // A thread that ended is replaced, and its task has failed. Nobody else is to end because of it.
    made.on('error', () => undefined);
    this.threads.set(pace, made);
    return made;
  }
}
