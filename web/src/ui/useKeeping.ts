/**
 * Keeps what one works on at the server, without being asked. A change is taken with the id it belongs to and its values
 * as they are then; sending waits for a pause in typing, goes one after the other, and is tried again while the server is
 * away. Showing something else, leaving and closing send at once what waits. Nothing is ever sent under another id.
 */
import { getCurrentScope, onScopeDispose, readonly, ref, type DeepReadonly, type Ref } from 'vue';
import { ApiProblem } from '../api/client';

export interface KeepingOptions<T> {
  /** Sends a state under its id. */
  readonly send: (id: string, state: T) => Promise<void>;
  /** How long after the last change it is sent, in milliseconds. */
  readonly after?: number;
  /** The longest that a change waits while changes go on, in milliseconds. */
  readonly within?: number;
  /** How long after a failure it is tried again, in milliseconds. */
  readonly retryAfter?: number;
  /** What is to be sent of what waits already and what is new; the new in its place where nothing is said. */
  readonly merge?: (waiting: T | undefined, next: T) => T;
  /** Hears of a failure that trying again does not mend. @returns whether the state waits for `release`, or is dropped */
  readonly refused?: (id: string, state: T, problem: unknown) => 'hold' | 'drop';
}
/** How far keeping is, for people. */
export interface KeepingState {
  readonly kind: 'kept' | 'keeping' | 'failed';
  /** Why it is not kept, where it failed. */
  readonly problem: unknown;
}
export interface Keeping<T> {
  readonly state: DeepReadonly<Ref<KeepingState>>;
  /** Takes a change: it is sent under this id, whatever is shown by then. */
  keep(id: string, state: T): void;
  /** Sends what waits. @throws the problem, where something of it could not be sent */
  flush(): Promise<void>;
  /** What waits under an id. */
  waiting(id: string): T | undefined;
  /** Lets go of what waits under an id. */
  forget(id: string): void;
  /** Sends what was held back after a refusal. */
  release(id: string): void;
}

interface Entry<T> {
  state: T;
  /** When it first changed since it was last sent, and when it last did. */
  readonly first: number;
  last: number;
  held: boolean;
}
const KEPT: KeepingState = { kind: 'kept', problem: undefined };

/** Whether it may go another time: the server is away, restarts, or has too much to do. */
export const isTemporary = (problem: unknown): boolean =>
  !(problem instanceof ApiProblem) || problem.status === 0 || problem.status >= 500 || problem.status === 429;

export function useKeeping<T>(options: KeepingOptions<T>): Keeping<T> {
  const { send, after = 400, within = 2000, retryAfter = 3000, merge = (_, next: T) => next, refused } = options;
  const state = ref(KEPT) as Ref<KeepingState>;
  const entries = new Map<string, Entry<T>>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Sends go one after the other, so that none overtakes another. */
  let sending: Promise<void> = Promise.resolve();

  function schedule(pause: number): void {
    clearTimeout(timer);
    timer = setTimeout(() => void flush().catch(() => undefined), pause);
  }
  function keep(id: string, next: T): void {
    const now = Date.now();
    const entry = entries.get(id);
    if (entry) {
      entry.state = merge(entry.state, next);
      entry.last = now;
      // What was refused may be taken as it is now.
      entry.held = false;
    } else entries.set(id, { state: merge(undefined, next), first: now, last: now, held: false });
    if (state.value.kind === 'kept') state.value = { kind: 'keeping', problem: undefined };
    const { first } = entries.get(id) ?? { first: now };
    schedule(Math.max(0, Math.min(after, first + within - now)));
  }

  function flush(): Promise<void> {
    clearTimeout(timer);
    const done = sending.then(sendAll);
    sending = done.catch(() => undefined);
    return done;
  }
  async function sendAll(): Promise<void> {
    let failure: { readonly problem: unknown } | undefined;
    for (const [id, entry] of [...entries]) {
      if (entry.held || entries.get(id) !== entry) continue;
      entries.delete(id);
      try {
        await send(id, entry.state);
      } catch (problem) {
        failure ??= { problem };
        putBack(id, entry, problem);
      }
    }
    if (failure) {
      state.value = { kind: 'failed', problem: failure.problem };
      if ([...entries.values()].some(({ held }) => !held)) schedule(retryAfter);
      throw failure.problem;
    }
    if (entries.size === 0) state.value = KEPT;
  }
  /** What could not be sent waits again, under what was changed meanwhile. */
  function putBack(id: string, entry: Entry<T>, problem: unknown): void {
    const temporary = isTemporary(problem);
    if (!temporary && refused?.(id, entry.state, problem) !== 'hold') return;
    const newer = entries.get(id);
    const merged = newer ? merge(entry.state, newer.state) : entry.state;
    entries.set(id, { state: merged, first: entry.first, last: newer?.last ?? entry.last, held: !temporary });
  }

  const forget = (id: string): void => {
    entries.delete(id);
    if (entries.size === 0) state.value = KEPT;
  };
  function release(id: string): void {
    const entry = entries.get(id);
    if (entry) entry.held = false;
  }

  // Leaving, by whatever way, does not wait for the pause.
  const leave = (): void => void flush().catch(() => undefined);
  window.addEventListener('pagehide', leave);
  window.addEventListener('online', leave);
  if (getCurrentScope())
    onScopeDispose(() => {
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('online', leave);
      // What cannot be sent now is tried again, although nothing shows it any more.
      leave();
    });
  return { state: readonly(state), keep, flush, waiting: (id) => entries.get(id)?.state, forget, release };
}

/** How far keeping is, in words. */
export const keepingWords = ({ kind, problem }: KeepingState): string =>
  kind === 'kept' ? 'kept' : kind === 'keeping' ? 'keeping…' : problem instanceof Error ? problem.message : 'not kept';
