/** Messages between the page and the deriving worker. */
import type { PastWords } from '@vocabula/contract';
import type { Derived, Settlement } from '@vocabula/core/derive';

export interface DeriveRequest {
  readonly mails: readonly PastWords[];
  readonly locale: string;
  readonly settled: readonly Settlement[];
}
export type DeriveReply = { readonly share: number } | { readonly derived: Derived } | { readonly problem: string };
