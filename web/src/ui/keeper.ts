/**
 * Keeps what one works on at the server, without being asked. A change is taken with the id it belongs to and its values
 * as they are then; sending waits for a pause in typing, goes one after the other, and is tried again while the server is
 * away. Showing something else, leaving and closing send at once what waits. Nothing is ever sent under another id.
 *
 * There is one keeper for each kind of thing, whatever page shows it: a page that was left and the one that is open
 * never try to keep two states of one thing against each other.
 */
import { getCurrentScope, onScopeDispose, readonly, ref, type DeepReadonly, type Ref } from 'vue';
import { ApiProblem } from '../api/client';

/** What is done with a state that is refused for good: it waits for the next change, or is let go of. */
export type Refusal = 'hold' | 'drop';

export interface KeeperOptions<T, R> {
  /** Sends a state under its id. It knows nothing of what is shown. @returns what the server has by then */
  readonly send: (id: string, state: T) => Promise<R>;
  /** How long after the last change it is sent, in milliseconds. */
  readonly after?: number;
  /** The longest that a change waits while changes go on, in milliseconds. */
  readonly within?: number;
  /** How long after a failure it is tried again, in milliseconds. */
  readonly retryAfter?: number;
  /** What is to be sent of what waits already and what is new; the new in its place where nothing is said. */
  readonly merge?: (waiting: T | undefined, next: T) => T;
  /** What becomes of a refused state where no page says it. */
  readonly refusal?: Refusal;
}
/** What a page that shows such things hears of keeping them; also of those that it does not show at the moment. */
export interface KeeperListener<T, R> {
  /** A state of it was taken by the server. What a page then looks up for itself is waited for; where that goes wrong, the page says it. */
  readonly kept?: (id: string, result: R, state: T) => unknown;
  /** Trying again does not mend it. */
  readonly refused?: (id: string, state: T, problem: unknown) => Refusal;
  /** It could not be sent just now, and is tried again. */
  readonly failed?: (id: string, state: T, problem: unknown) => unknown;
}
/** How far keeping is, for people. */
export interface KeepingState {
  readonly kind: 'kept' | 'keeping' | 'failed';
  /** Why it is not kept, where it failed. */
  readonly problem: unknown;
}
export interface Keeper<T, R> {
  readonly state: DeepReadonly<Ref<KeepingState>>;
  /** Takes a change: it is sent under this id, whatever is shown by then. */
  keep(id: string, state: T): void;
  /** Sends what waits. @throws the problem, where something of it could not be sent */
  flush(): Promise<void>;
  /** What waits under an id. */
  waiting(id: string): T | undefined;
  /** Lets go of what waits under an id. */
  forget(id: string): void;
  /** Hears of what is kept, as long as the page that asks stands; when it is left, what waits is sent at once. */
  hear(listener: KeeperListener<T, R>): void;
}

interface Entry<T> {
  state: T;
  /** When it first changed since it was last sent, and when it last did. */
  readonly first: number;
  last: number;
  held: boolean;
}
const KEPT: KeepingState = { kind: 'kept', problem: undefined };

/** Whether it may go another time: the server is away, restarts, has too much to do, or asks who one is. */
export const isTemporary = (problem: unknown): boolean =>
  !(problem instanceof ApiProblem) ||
  problem.status === 0 ||
  problem.status >= 500 ||
  [401, 429].includes(problem.status);

/** A keeper; made once for each kind of thing, beside the composable that works on it. */
export function makeKeeper<T, R = void>(options: KeeperOptions<T, R>): Keeper<T, R> {
  const {
    send,
    after = 400,
    within = 2000,
    retryAfter = 3000,
    merge = (_, next: T) => next,
    refusal = 'drop',
  } = options;
  const state = ref(KEPT) as Ref<KeepingState>;
  const entries = new Map<string, Entry<T>>();
  const listeners = new Set<KeeperListener<T, R>>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Sends go one after the other, so that none overtakes another. */
  let sending: Promise<void> = Promise.resolve();

  function schedule(pause: number): void {
    clearTimeout(timer);
    timer = setTimeout(attempt, pause);
  }
  const attempt = (): void => void flush().catch(() => undefined);
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
        const result = await send(id, entry.state);
        await Promise.allSettled([...listeners].map(async ({ kept }) => kept?.(id, result, entry.state)));
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
    const isLater = isTemporary(problem);
    if (isLater) for (const { failed } of listeners) failed?.(id, entry.state, problem);
    else if (refusalOf(id, entry.state, problem) === 'drop') return;
    const newer = entries.get(id);
    const merged = newer ? merge(entry.state, newer.state) : entry.state;
    entries.set(id, { state: merged, first: entry.first, last: newer?.last ?? entry.last, held: !isLater });
  }
  function refusalOf(id: string, refused: T, problem: unknown): Refusal {
    const said = [...listeners].map((each) => each.refused?.(id, refused, problem)).filter(Boolean);
    return said.includes('hold') ? 'hold' : (said[0] ?? refusal);
  }

  const forget = (id: string): void => {
    entries.delete(id);
    if (entries.size === 0) state.value = KEPT;
  };
  function hear(listener: KeeperListener<T, R>): void {
    listeners.add(listener);
    if (!getCurrentScope()) return;
    onScopeDispose(() => {
      listeners.delete(listener);
      attempt();
    });
  }

  // Leaving, by whatever way, does not wait for the pause; nor does coming back to the network.
  globalThis.addEventListener?.('pagehide', attempt);
  globalThis.addEventListener?.('online', attempt);
  return { state: readonly(state), keep, flush, waiting: (id) => entries.get(id)?.state, forget, hear };
}

/** How far keeping is, in words. */
export const keepingWords = ({ kind, problem }: KeepingState): string =>
  kind === 'kept' ? 'kept' : kind === 'keeping' ? 'keeping…' : problem instanceof Error ? problem.message : 'not kept';
