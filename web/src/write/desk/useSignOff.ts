import { signOffLines, withoutSignOff } from '@vocabula/core';
import { computed } from 'vue';
import { useNotice } from '../../ui/notice';
import { applyDocument, documentOf } from '../editor/operations/apply';
import type { Manuscript } from '../useManuscript';

/** Lines that sign a template off by hand although a signature is added to it, and the offer to remove them. */
export function useSignOff(manuscript: Pick<Manuscript, 'editor' | 'front' | 'current'>, undo: () => void) {
  const notice = useNotice();
  const signOff = computed(() => {
    const { kind, signature } = manuscript.front.value;
    return kind === 'message' && signature !== 'none' ? signOffLines(manuscript.current.value) : [];
  });
  function takeSignOff(): void {
    applyDocument(manuscript.editor, withoutSignOff(documentOf(manuscript.editor)));
    notice.say('The typed signature is removed; the template’s or the sender’s own is used instead.', undo);
  }
  const offerSignOff = (): void =>
    notice.offer(`It has a typed signature: “${signOff.value.join(', ').slice(0, 60)}”.`, 'Remove it', takeSignOff);
  return { signOff, takeSignOff, offerSignOff };
}
