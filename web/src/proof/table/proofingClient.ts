/** The page's side of the proofing worker: sends requests, and gives replies to whom they belong. */
import type { Family } from '@vocabula/core/arrives';
import type { ComparedParagraph, Explanation, Filling } from '@vocabula/core/proof';
import type { ProofingReply, ProofingRequest, ShownArrivals, ShownMessage, Which } from './protocol';

type Question = Extract<ProofingRequest, { readonly id: number }>;
type Asked = Question extends infer R ? (R extends Question ? Omit<R, 'id'> : never) : never;
/** Replies that answer no question. */
export type ProofingNews = Exclude<ProofingReply, { readonly id: number }>;

/**
 * The worker begins with the first request and is kept, so that coming back to a template is quick.
 * @param onNews called with every reply that answers no question
 */
export function proofingClient(onNews: (news: ProofingNews) => void) {
  let worker: Worker | undefined;
  let lastId = 0;
  const waiting = new Map<number, (reply: ProofingReply) => void>();

  function receive(reply: ProofingReply): void {
    if (!('id' in reply)) return onNews(reply);
    waiting.get(reply.id)?.(reply);
    waiting.delete(reply.id);
  }
  function send(request: ProofingRequest): void {
    if (!worker) {
      worker = new Worker(new URL('./proofing.worker.ts', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<ProofingReply>) => receive(data));
    }
    // A worker takes plain data, and refs hold proxies; rows come as the server gave them.
    worker.postMessage(request.what === 'recipients' ? request : JSON.parse(JSON.stringify(request)));
  }
  function ask<T extends ProofingReply['what']>(question: Asked): Promise<Extract<ProofingReply, { what: T }>> {
    lastId += 1;
    const id = lastId;
    return new Promise((resolve) => {
      waiting.set(id, resolve as (reply: ProofingReply) => void);
      send({ ...question, id } as ProofingRequest);
    });
  }
  return {
    send,
    /** A message with its findings and origins; undefined if its recipient is gone. */
    message: async (which: Which): Promise<ShownMessage | undefined> =>
      (await ask<'message'>({ what: 'message', which })).message,
    arrivals: async (which: Which, families: readonly Family[]): Promise<ShownArrivals | undefined> =>
      (await ask<'arrivals'>({ what: 'arrivals', which, families })).shown,
    explain: async (which: Which, part: 'subject' | 'body', stretch: number): Promise<Explanation | undefined> =>
      (await ask<'explain'>({ what: 'explain', which, part, stretch })).explanation,
    compare: async (left: Which, right: Which): Promise<readonly ComparedParagraph[]> =>
      (await ask<'compare'>({ what: 'compare', left, right })).paragraphs,
    fillings: async (of: readonly Which[]): Promise<readonly (Filling | undefined)[]> =>
      (await ask<'fillings'>({ what: 'fillings', of })).fillings,
  };
}
