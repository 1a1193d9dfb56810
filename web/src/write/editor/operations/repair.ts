/** Doing what a finding proposes. */
import type { Editor } from '@tiptap/core';
import type { Repair } from '@vocabula/core';
import { positionOf } from './places';

/** Does what a finding proposes; false where its place is no longer there. */
export function applyRepair(editor: Editor, repair: Repair): boolean {
  const { tr, doc, schema } = editor.state;
  const pos = positionOf(doc, repair.path);
  const node = pos === undefined ? null : doc.nodeAt(pos);
  if (pos === undefined || !node) return false;
  switch (repair.how) {
    case 'replace': {
      const from = pos + repair.offset;
      const to = from + repair.length;
      if (typeof repair.insert === 'string') tr.insertText(repair.insert, from, to);
      else {
        const nodes = repair.insert.map((each) => schema.nodeFromJSON(each).mark(node.marks));
        tr.replaceWith(from, to, nodes);
      }
      break;
    }
    case 'recolour': {
      const type = schema.marks[repair.mark];
      if (!type) return false;
      tr.removeMark(pos, pos + node.nodeSize, type);
      if (repair.name !== undefined) tr.addMark(pos, pos + node.nodeSize, type.create({ name: repair.name }));
      break;
    }
    case 'attributes':
      tr.setNodeMarkup(pos, undefined, { ...node.attrs, ...repair.attrs });
  }
  editor.view.dispatch(tr.scrollIntoView());
  return true;
}
