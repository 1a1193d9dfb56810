/**
 * Asks a server for its health again and again from a process of its own, and knows the longest it waited.
 * Told over IPC: `{ begin: url }` starts a new measurement, `{ read: true }` answers `{ longest }` in milliseconds.
 */
import { Agent, get } from 'node:http';

const agent = new Agent({ keepAlive: true, maxSockets: 1 });
const PAUSE = 4;
let url = '';
let longest = 0;
let startedAt = 0;

function ask() {
  if (url === '') return setTimeout(ask, PAUSE);
  startedAt = performance.now();
  const done = () => {
    longest = Math.max(longest, performance.now() - startedAt);
    startedAt = 0;
    setTimeout(ask, PAUSE);
  };
  get(`${url}/api/health`, { agent }, (response) => response.resume().on('end', done)).on('error', done);
}

process.on('message', ({ begin, read }) => {
  if (begin !== undefined) {
    url = begin;
    longest = 0;
  }
  // A question that has no answer yet counts as long as it has waited.
  if (read) process.send({ longest: Math.max(longest, startedAt ? performance.now() - startedAt : 0) });
});
ask();
