/** Puts what messages propose into the working copies of their texts. */
import { withProposals, type Proposal } from '@vocabula/core/insight';
import { api } from '../api/client';

/**
 * Puts proposals into the working copy of each text that they are about, which is kept as it was before.
 * @returns those that a working copy has no place for any more
 * @throws if none could be put in, or a working copy cannot be saved
 */
export async function putInWrite(proposals: readonly Proposal[]): Promise<readonly Proposal[]> {
  const left: Proposal[] = [];
  for (const text of new Set(proposals.map((each) => each.text))) {
    const own = proposals.filter((each) => each.text === text);
    const { document, revision } = await api.text(text);
    const changed = withProposals(document, own);
    left.push(...changed.left);
    if (changed.left.length === own.length) continue;
    await api.checkpoint(text, 'conversion').catch(() => undefined);
    await api.saveText(text, { document: changed.document, revision });
  }
  if (left.length === proposals.length)
    throw new Error('The working copy no longer has this sentence. Change it in Write.');
  return left;
}
