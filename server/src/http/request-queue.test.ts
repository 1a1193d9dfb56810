import type { IncomingMessage, ServerResponse } from 'node:http';
import { setImmediate as turn } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { inTurns } from './request-queue.js';

const given = (name: number): [IncomingMessage, ServerResponse] => [
  { name } as unknown as IncomingMessage,
  {} as ServerResponse,
];
const nameOf = (request: IncomingMessage): number => (request as unknown as { name: number }).name;
const busy = (ms: number): void => {
  const until = performance.now() + ms;
  while (performance.now() < until);
};

describe('requests in turns', () => {
  it('begin in the order they came, each once, also those that come meanwhile', async () => {
    const begun: number[] = [];
    const listener = inTurns((request) => void begun.push(nameOf(request)));
    for (let at = 0; at < 40; at += 1) listener(...given(at));
    for (let at = 0; at < 6; at += 1) {
      await turn();
      listener(...given(40 + at));
    }
    for (let at = 0; at < 200; at += 1) await turn();
    expect(begun).toEqual(Array.from({ length: 46 }, (_, at) => at));
  });
  it('let the loop go round between them when they take long', async () => {
    let begun = 0;
    const listener = inTurns(() => {
      begun += 1;
      busy(8);
    });
    for (let at = 0; at < 12; at += 1) listener(...given(at));
    let rounds = 0;
    while (begun < 12) {
      await turn();
      rounds += 1;
    }
    expect(rounds).toBeGreaterThanOrEqual(6);
  });
});
