import type { House } from '../house/house.js';
import type { Library } from './texts.js';

/** What a template is compiled with. */
export interface CompileOptions {
  readonly library: Library;
  readonly house?: House;
  /** The name of the sender's signature, for messages that bring none of their own. */
  readonly senderSignature?: string | undefined;
  /** The day that relative limits in declarations are checked against; only their form matters. */
  readonly today?: string;
}
