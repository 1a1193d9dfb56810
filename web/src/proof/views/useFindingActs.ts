import { normalise, repaired } from '@vocabula/core';
import { api } from '../../api/client';
import { useNotice } from '../../ui/notice';
import type { FindingGroup } from '../table/findings';
import { useProofing } from '../table/useProofing';

/** What can be done with a finding: repair it in the working copy, set it aside with a reason, bring it back. */
export function useFindingActs() {
  const proofing = useProofing();
  const notice = useNotice();
  async function repair(group: FindingGroup): Promise<void> {
    const { repair: how } = group.finding;
    const own = proofing.texts.find(({ name }) => name === proofing.name);
    const next = how && own && repaired(own.document, how);
    if (!how || !next) return notice.fail(new Error('Its place is no longer there; look again.'));
    try {
      const before = own.document;
      const saved = await api.saveText(proofing.name, { document: normalise(next), revision: proofing.revision });
      await proofing.open(proofing.name);
      notice.say(`${how.label}: done in the working copy.`, async () => {
        await api.saveText(proofing.name, { document: before, revision: saved.revision });
        await proofing.open(proofing.name);
      });
    } catch (problem) {
      notice.fail(problem);
    }
  }
  async function setAside({ fingerprint, finding }: FindingGroup, reason: string): Promise<void> {
    try {
      await api.setAside(proofing.name, {
        fingerprint,
        code: finding.code,
        message: finding.message.slice(0, 2000),
        reason,
      });
      await proofing.reload();
      notice.say('Set aside.', () => bringBack(fingerprint));
    } catch (problem) {
      notice.fail(problem);
    }
  }
  async function bringBack(fingerprint: string): Promise<void> {
    try {
      await api.bringBack(proofing.name, fingerprint);
      await proofing.reload();
    } catch (problem) {
      notice.fail(problem);
    }
  }
  return { repair, setAside, bringBack };
}
