/** Workers judge patterns too: what they are asked waits until the engine of patterns is there, if a text needs it. */
import type { TextDocument } from '@vocabula/core';
import { loadPatterns } from '@vocabula/core/patterns';

const hasPattern = ({ attrs: { variables = [] } }: TextDocument): boolean =>
  variables.some(({ pattern, columns = [] }) => [pattern, ...columns.map((column) => column.pattern)].some(Boolean));

/**
 * Handles requests in their order. The first whose texts have a pattern, and all after it, wait for the engine to be
 * loaded; others are handled at once.
 */
export function oncePatternsAreReady<Request>(
  textsOf: (request: Request) => readonly (TextDocument | undefined)[],
  handle: (request: Request) => void,
): (request: Request) => void {
  let ready = false;
  let before: Promise<void> | undefined;
  return (request) => {
    if (!before && !ready && textsOf(request).some((text) => text && hasPattern(text)))
      before = loadPatterns().then(() => {
        ready = true;
        before = undefined;
      });
    if (!before) handle(request);
    else void before.then(() => handle(request));
  };
}
