/** The engine of patterns where it is always there: servers, commands, tests. Browsers have `re2.browser.ts` in its place. */
import { RE2JS } from 're2js';

/** A compiled pattern. */
export interface Pattern {
  /** Whether the whole text has the form. */
  matches(text: string): boolean;
}
/** Compiles RE2 syntax; throws where it is none. Undefined while the engine is not there yet. */
export const compileRe2 = (source: string): Pattern | undefined => RE2JS.compile(source);
/** Makes sure that the engine is there. */
export const loadRe2 = (): Promise<void> => Promise.resolve();
