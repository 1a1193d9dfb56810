/** The engine of patterns in a browser: nearly a third of what a message needs, so it is loaded when the first pattern is met. */
import type { Pattern } from './re2.js';

let engine: { compile(source: string): Pattern } | undefined;

/** As in `re2.ts`; begins to load the engine where it is not there. */
export const compileRe2 = (source: string): Pattern | undefined => {
  if (!engine) loadRe2().catch(() => undefined);
  return engine?.compile(source);
};
/** Makes sure that the engine is there. */
export async function loadRe2(): Promise<void> {
  engine ??= (await import('re2js')).RE2JS;
}
