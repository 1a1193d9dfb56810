/** Patterns that texts must have. RE2 runs in linear time, so no pattern can hang. */
import { compileRe2, loadRe2, type Pattern } from '#re2';

const patterns = new Map<string, Pattern | null>();

/**
 * The compiled pattern; null if it is not one. Undefined in a browser that has not loaded the engine: nothing is judged
 * then. What leaves is always rendered by the server, which judges everything.
 */
export function compilePattern(source: string): Pattern | null | undefined {
  let pattern: Pattern | null | undefined = patterns.get(source);
  if (pattern === undefined) {
    try {
      pattern = compileRe2(source);
    } catch {
      pattern = null;
    }
    if (patterns.size > 500) patterns.clear();
    if (pattern !== undefined) patterns.set(source, pattern);
  }
  return pattern;
}

/**
 * Waits for the engine of patterns, where it is not always there. Where it cannot be had, as without a connection,
 * nothing is judged until it is asked for again: no error.
 */
export const loadPatterns = (): Promise<void> => loadRe2().catch(() => undefined);
