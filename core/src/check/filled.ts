/** What a check of a rendered message is: it looks where values stand and where something was left out. */
import type { Origin, Program } from '../compile/program.js';
import type { AdviceCode, FindingData, Level } from '../findings/finding.js';
import type { Message } from '../render/render.js';
import type { TracedLine } from '../proof/trace/lines.js';
import type { TextDocument } from '../template/document.js';
import type { Value } from '../values/index.js';

/** What checks of a filled message look at. */
export interface FilledContext {
  /** The template's own document. */
  readonly document: TextDocument;
  readonly program: Program;
  readonly message: Message;
  readonly lines: readonly TracedLine[];
  readonly language: string;
  /** ISO day of the message. */
  readonly today: string;
  value(key: string): Value | undefined;
}

/** What such a check noticed, and in which piece. */
export interface Noticed {
  readonly data: FindingData<AdviceCode>;
  readonly origin?: Origin;
  readonly level?: Exclude<Level, 'error'>;
}

/** One check of a filled message, made after rendering. */
export interface FilledCheck {
  /** Languages it knows; left out, it knows every one. */
  readonly languages?: readonly string[];
  run(context: FilledContext): readonly Noticed[];
}
