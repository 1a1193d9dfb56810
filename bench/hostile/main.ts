/**
 * What small requests can do to everybody else: the longest that another process waits for the server's health while
 * each is worked on, and the most memory the server took.
 */
import { longestPauses } from '../pauses.js';
import { CASES } from './cases.js';

/** The longest pause that is allowed: 100 ms, and 1 ms for each 100 kB that was sent. */
const allowed = (bytes: number): number => 100 + bytes / 100_000;

export async function bench(): Promise<void> {
  const over = (await longestPauses(CASES, allowed)).filter((share) => share > 1).length;
  console.log(`\n${over} of ${CASES.length} acts hold everybody up for longer than is allowed.`);
}
