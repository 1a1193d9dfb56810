/**
 * Keeps what one works on at the server, without being asked. A change is taken with the id it belongs to and its values
 * as they are then; sending waits for a pause in typing, goes one after the other, and is tried again while the server is
 * away. Showing something else, leaving and closing send at once what waits. Nothing is ever sent under another id.
 *
 * There is one keeper for each kind of thing, whatever page shows it: a page that was left and the one that is open
 * never try to keep two states of one thing against each other.
 */
import { getCurrentScope, onScopeDispose, ref, shallowReactive } from 'vue';
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
  /** The server took a state of it. What the page then looks up is waited for; the page itself says where that fails. */
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
  /** How far keeping one thing is; follows it where it is read reactively. */
  stateOf(id: string): KeepingState;
  /** Takes a change: it is sent under this id, whatever is shown by then. */
  keep(id: string, state: T): void;
  /**
   * Sends what waits now. With `only`, just the things that it is true of, and those too that were refused before: after
   * it the server has what is shown.
   * @throws the problem, where something of it could not be sent
   */
  flush(only?: (id: string, state: T) => boolean): Promise<void>;
  /** What waits under an id. */
  waiting(id: string): T | undefined;
  /** Lets go of what waits under an id. */
  forget(id: string): void;
  /** Hears of what is kept, as long as the page that asks stands; when it is left, what waits is sent at once. */
  hear(listener: KeeperListener<T, R>): void;
}

interface Entry<T> {
  readonly state: T;
  /** When it first changed since it was last sent. */
  readonly first: number;
  /** It was refused for good, and waits for a change. */
  readonly held: boolean;
  /** Why it could not be sent the last time. */
  readonly problem?: unknown;
}
const KEPT: KeepingState = { kind: 'kept', problem: undefined };
const KEEPING: KeepingState = { kind: 'keeping', problem: undefined };

/**
 * Whether it may go another time: the server is away, restarts, or has too much to do. Where it asks who one is, nothing
 * is tried again: the next to sign in here may be somebody else.
 */
export const isTemporary = (problem: unknown): boolean =>
  !(problem instanceof ApiProblem) || problem.status === 0 || problem.status >= 500 || problem.status === 429;

/** A keeper; made once for each kind of thing, beside the composable that works on it. */
// eslint-disable-next-line max-lines-per-function -- one keeper: its functions share what is kept and what is on its way
export function makeKeeper<T, R = void>(options: KeeperOptions<T, R>): Keeper<T, R> {
  const {
    send,
    after = 400,
    within = 2000,
    retryAfter = 3000,
    merge = (_, next: T) => next,
    refusal = 'drop',
  } = options;
  const entries = shallowReactive(new Map<string, Entry<T>>());
  /** The id that is on its way. */
  const current = ref<string>();
  const listeners = new Set<KeeperListener<T, R>>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Sends go one after the other, so that none overtakes another. */
  let sending: Promise<void> = Promise.resolve();

  function stateOf(id: string): KeepingState {
    const entry = entries.get(id);
    if (entry?.problem !== undefined) return { kind: 'failed', problem: entry.problem };
    return entry || current.value === id ? KEEPING : KEPT;
  }
  function schedule(pause: number): void {
    clearTimeout(timer);
    timer = setTimeout(attempt, pause);
  }
  const attempt = (): void => void flush().catch(() => undefined);
  function keep(id: string, next: T): void {
    const now = Date.now();
    const before = entries.get(id);
    const first = before?.first ?? now;
    // What was refused may be taken as it is now.
    entries.set(id, { ...before, state: merge(before?.state, next), first, held: false });
    schedule(Math.max(0, Math.min(after, first + within - now)));
  }

  function flush(only?: (id: string, state: T) => boolean): Promise<void> {
    clearTimeout(timer);
    const done = sending.then(() => sendAll(only ?? ((id) => entries.get(id)?.held === false)));
    sending = done.catch(() => undefined);
    return done;
  }
  async function sendAll(isMeant: (id: string, state: T) => boolean): Promise<void> {
    let failure: { readonly problem: unknown } | undefined;
    for (const [id, entry] of [...entries]) {
      if (entries.get(id) !== entry || !isMeant(id, entry.state)) continue;
      current.value = id;
      entries.delete(id);
      try {
        const result = await send(id, entry.state);
        await Promise.allSettled([...listeners].map(async ({ kept }) => kept?.(id, result, entry.state)));
      } catch (problem) {
        failure ??= { problem };
        putBack(id, entry, problem);
      }
      current.value = undefined;
    }
    if ([...entries.values()].some(({ held }) => !held)) schedule(failure ? retryAfter : after);
    if (failure) throw failure.problem;
  }
  /** What could not be sent waits again, under what was changed meanwhile. */
  function putBack(id: string, entry: Entry<T>, problem: unknown): void {
    const isLater = isTemporary(problem);
    if (isLater) for (const { failed } of listeners) failed?.(id, entry.state, problem);
    else if (refusalOf(id, entry.state, problem) === 'drop') return;
    const newer = entries.get(id);
    const state = newer ? merge(entry.state, newer.state) : entry.state;
    // What was changed since it was refused may be taken.
    entries.set(id, { state, first: entry.first, held: !isLater && newer === undefined, problem });
  }
  function refusalOf(id: string, refused: T, problem: unknown): Refusal {
    const said = [...listeners].map((each) => each.refused?.(id, refused, problem)).filter(Boolean);
    return said.includes('hold') ? 'hold' : (said[0] ?? refusal);
  }

  const forget = (id: string): void => void entries.delete(id);
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
  return { stateOf, keep, flush, waiting: (id) => entries.get(id)?.state, forget, hear };
}

/** How far keeping is, in words. */
export const keepingWords = ({ kind, problem }: KeepingState): string =>
  kind === 'kept' ? 'kept' : kind === 'keeping' ? 'keeping…' : problem instanceof Error ? problem.message : 'not kept';
