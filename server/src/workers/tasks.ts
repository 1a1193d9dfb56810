/** What worker threads can do. Code is loaded when it is first asked for, so that a thread begins at once. */
import type { FileToRead, KeptFiles } from '../convert/reading.js';
import { answerFor, type ProblemStatus, type RequestProblem } from '../http/problem.js';
import type { HeavyCall } from './heavy.js';

export const TASKS = {
  call: async (given: HeavyCall): Promise<unknown> => (await import('./calls.js')).call(given),
  letter: async (raw: Uint8Array) => (await import('../mailroom/reading.js')).letterColumns(raw),
  letters: async (raws: readonly Uint8Array[]) => {
    const { letterColumns } = await import('../mailroom/reading.js');
    return Promise.all(raws.map((raw) => letterColumns(raw)));
  },
  shownLetter: async (raw: Uint8Array) => (await import('../mailroom/reading.js')).shownLetter(raw),
  mailbox: async (bytes: Uint8Array) => (await import('../mailroom/reading.js')).mailbox(bytes),
  broughtBy: async (file: FileToRead) => (await import('../convert/reading.js')).broughtBy(file),
  readAs: async (file: FileToRead & { readonly kept: KeptFiles }) =>
    (await import('../convert/reading.js')).readAs(file),
  original: async (bytes: Uint8Array) => (await import('../fills/original.js')).originalOf(bytes),
};

export type Task = keyof typeof TASKS;
export type TaskInput<K extends Task> = Parameters<(typeof TASKS)[K]>[0];
export type TaskResult<K extends Task> = Awaited<ReturnType<(typeof TASKS)[K]>>;

/** What a thread is given. */
export interface Given {
  readonly task: Task;
  readonly input: unknown;
  /** Set to 1 when the thread begins. */
  readonly began: Int32Array;
}
/** What a thread gives back: errors of classes do not cross, so a problem goes as its fields. */
export type Performed =
  { readonly value: unknown } | { readonly problem: Pick<RequestProblem, 'status' | 'code' | 'message' | 'details'> };

export async function perform({ task, input, began }: Given): Promise<Performed> {
  Atomics.store(began, 0, 1);
  try {
    const work = TASKS[task] as (given: unknown) => Promise<unknown>;
    return { value: await work(input) };
  } catch (error) {
    // A full disk, or another process that writes, is an answer as well; a fault of ours is thrown as it is.
    const { status, code, message, details } = answerFor(error);
    if (status === 500) throw error;
    return { problem: { status: status as ProblemStatus, code, message, details } };
  }
}
