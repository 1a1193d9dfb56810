/** Which version of a trial a recipient gets: the same one each time, in shares as the weights say. */
import { createHash } from 'node:crypto';
import type { TrialRow } from './store.js';

/** Six bytes of a digest are a whole number that JavaScript holds exactly. */
const BYTES = 6;

/**
 * The version for a recipient, from a digest (SHA-256) of the trial and the address. No record is needed for it to stay
 * the same, and what somebody gets in one trial says nothing of another.
 * @param address bare and folded
 */
export function versionFor({ id, arms }: Pick<TrialRow, 'id' | 'arms'>, address: string): number {
  const digest = createHash('sha256').update(`${id}\n${address}`).digest();
  const total = arms.reduce((sum, { weight }) => sum + weight, 0);
  let left = (digest.readUIntBE(0, BYTES) / 2 ** (8 * BYTES)) * total;
  for (const { version, weight } of arms) if ((left -= weight) < 0) return version;
  throw new RangeError('a trial has versions with weights');
}
