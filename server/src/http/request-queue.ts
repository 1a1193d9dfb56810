/**
 * A queue of requests. The database driver is synchronous, so a request runs within one turn of the event loop, and Node
 * accepts one new connection a turn. Without the queue, all waiting requests run before the next connection is accepted:
 * under many readers, a save waited for seconds. The queue starts a few requests a turn.
 */
import type { RequestListener } from 'node:http';

/** Milliseconds of requests that are begun before the loop goes round. */
const TURN = 4;
/** The most that are begun in one turn, however quick they are. */
const MOST = 16;

/** Passes requests on in order, as many per turn as take about `TURN` milliseconds together. */
export function inTurns(handle: RequestListener): RequestListener {
  const waiting: Parameters<RequestListener>[] = [];
  /** How long a request takes, in milliseconds: a moving mean. */
  let usual = 1;
  let planned = false;
  const plan = (): void => {
    const count = Math.min(waiting.length, Math.max(1, Math.min(MOST, Math.floor(TURN / usual))));
    const begun = performance.now();
    let left = count;
    for (let at = 0; at < count; at += 1)
      setImmediate(() => {
        const next = waiting.shift();
        if (next) handle(...next);
        left -= 1;
        if (left > 0) return;
        // What was begun goes on in microtasks, which are done before this is.
        setImmediate(() => {
          usual = usual * 0.8 + ((performance.now() - begun) / count) * 0.2;
          planned = waiting.length > 0;
          if (planned) plan();
        });
      });
  };
  return (request, response) => {
    waiting.push([request, response]);
    if (planned) return;
    planned = true;
    plan();
  };
}
