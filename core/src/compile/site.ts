/** Where in a text something stands while it is compiled. */
import type { Condition } from '../template/condition.js';
import type { Test } from './program.js';
import type { Scope } from './scope.js';
import type { TextUnit } from './texts.js';

/** What shadows, governs and includes it. */
export interface Site {
  readonly unit: TextUnit;
  readonly scope: Scope | undefined;
  readonly path: readonly number[];
  readonly blocks: readonly string[];
  readonly conditions: readonly Condition[];
  /** Tests that every leaf inherits, where blocks of a text stand inside a line. */
  readonly tests: readonly Test[];
  /** Choices whose wordings are being compiled, to see loops. */
  readonly wordings: readonly string[];
}
