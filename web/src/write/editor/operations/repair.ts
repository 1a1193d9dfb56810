/** Doing what a finding proposes, as one step of undo. */
import type { Editor } from '@tiptap/core';
import { repaired, type Repair } from '@vocabula/core';
import { applyDocument, documentOf } from './apply';

/** Does what a finding proposes; false where its place is no longer there. */
export function applyRepair(editor: Editor, repair: Repair): boolean {
  const next = repaired(documentOf(editor), repair);
  return next !== undefined && applyDocument(editor, next);
}
