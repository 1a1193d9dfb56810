/**
 * Requests begin on turns of the event loop of their own. Work with the database does not leave the microtasks of a turn,
 * so requests that are there already would all be answered before the loop comes round to accept a new connection: a
 * crowd of busy readers would keep others, such as those who save, waiting for seconds.
 */
import type { RequestListener } from 'node:http';

/** Milliseconds of requests that are begun before the loop goes round. */
const TURN = 4;
/** The most that are begun in one turn, however quick they are. */
const MOST = 16;

/** Hands requests on in the order they came, so many a turn as take about `TURN` together. */
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
