/** The answer to a request that cannot be done. */
import * as z from 'zod';

z.config({ jitless: true });

/** Why a request was not done. */
export const problemSchema = z.object({
  /** Stable, for programs: `bad-request`, `not-found`, `stale-revision` … */
  code: z.string(),
  /** Words for people. */
  message: z.string(),
  /** What helps to go on: findings with lines, both texts of a conflict. */
  details: z.unknown().optional(),
});
export type Problem = z.infer<typeof problemSchema>;
