/** What worker threads can do. The code of a task is loaded when it is first asked for, so that a thread begins at once. */
import { answerFor, type ProblemStatus, type RequestProblem } from '../http/problem.js';

/** By name: loads the code of a task. */
export const TASKS = {
  call: async () => (await import('./service-calls.js')).call,
  letter: async () => (await import('../mailroom/reading.js')).letterColumns,
  letters: async () => (await import('../mailroom/reading.js')).columnsOfLetters,
  shownLetter: async () => (await import('../mailroom/reading.js')).shownLetter,
  incoming: async () => (await import('../mailroom/reading.js')).incomingMails,
  mailbox: async () => (await import('../mailroom/reading.js')).mailbox,
  broughtBy: async () => (await import('../convert/reading.js')).broughtBy,
  pastMails: async () => (await import('../convert/past.js')).pastMails,
  readAs: async () => (await import('../convert/reading.js')).readAs,
  original: async () => (await import('../fills/original.js')).originalOf,
};

export type Task = keyof typeof TASKS;
type Work<K extends Task> = Awaited<ReturnType<(typeof TASKS)[K]>>;
export type TaskInput<K extends Task> = Parameters<Work<K>>[0];
export type TaskResult<K extends Task> = Awaited<ReturnType<Work<K>>>;

/** What a thread is given. */
export interface Given {
  readonly task: Task;
  readonly input: unknown;
  /** Set to 1 when the thread begins with the work itself, its code being loaded. */
  readonly began: Int32Array;
}
/** What a thread gives back: errors of classes do not cross, so a problem goes as its fields. */
export type Performed =
  { readonly value: unknown } | { readonly problem: Pick<RequestProblem, 'status' | 'code' | 'message' | 'details'> };

export async function perform({ task, input, began }: Given): Promise<Performed> {
  // The pool has matched task and input; across threads that is known no more.
  const work = (await TASKS[task]()) as (given: unknown) => Promise<unknown>;
  Atomics.store(began, 0, 1);
  try {
    return { value: await work(input) };
  } catch (error) {
    // A full disk, or another process that writes, is an answer as well; a fault of ours is thrown as it is.
    const { status, code, message, details } = answerFor(error);
    if (status === 500) throw error;
    return { problem: { status: status as ProblemStatus, code, message, details } };
  }
}
