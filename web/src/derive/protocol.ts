/** Messages between the page and the deriving worker. */
import type { PastWords } from '@vocabula/contract';
import type { Derived, FramePart, Settlement } from '@vocabula/core/derive';

export interface DeriveRequest {
  readonly mails: readonly PastWords[];
  readonly locale: string;
  readonly settled: readonly Settlement[];
  readonly frame: readonly FramePart[];
}
export type DeriveReply = { readonly share: number } | { readonly derived: Derived } | { readonly problem: string };
