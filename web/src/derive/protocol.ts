/** What the page and the worker that derives tell each other. */
import type { PastWords } from '@vocabula/contract';
import type { Derived } from '@vocabula/core/derive';

export interface DeriveRequest {
  readonly mails: readonly PastWords[];
  readonly locale: string;
}
export type DeriveReply = { readonly share: number } | { readonly derived: Derived } | { readonly problem: string };
