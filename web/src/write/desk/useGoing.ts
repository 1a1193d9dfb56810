/** Going to places: of the proof, of findings, of variables, of blanks. */
import type { Editor } from '@tiptap/core';
import type { Finding, Use } from '@vocabula/core';
import { ref, type ComputedRef, type Ref } from 'vue';
import { goTo, positionOf, selectNode, type Range } from '../editor/operations/places';

export interface GoingNeeds {
  readonly editor: Editor;
  readonly findings: Readonly<Ref<readonly Finding[]>>;
  readonly blanks: ComputedRef<readonly string[]>;
  readonly uses: ComputedRef<readonly Use[]>;
  /** Opens a variable's details, at an option where one is meant. */
  readonly openVariable: (key: string, option?: string) => void;
  readonly openVariableIs: () => string | undefined;
  readonly isDeclared: (key: string) => boolean;
  readonly showFindings: () => void;
}

export function useGoing(needs: GoingNeeds) {
  const { editor } = needs;
  const finding = ref(-1);
  const stepped = new Map<string, number>();

  const show = (place: Range): void => goTo(editor, place);
  /** Puts the caret into the node that a place of the proof came from. */
  function showPath(path: readonly number[]): void {
    const pos = positionOf(editor.state.doc, path);
    if (pos !== undefined) show(startOf(pos));
  }
  /** The caret’s place at the beginning of a node: before words, inside what holds them. */
  function startOf(pos: number): Range {
    const from = editor.state.doc.nodeAt(pos)?.isInline ? pos : pos + 1;
    return { from, to: from };
  }
  function showFinding(index: number): void {
    const all = needs.findings.value;
    finding.value = (index + all.length) % Math.max(1, all.length);
    needs.showFindings();
    const one = all[finding.value];
    if (!one) return;
    const { variable, path, text, offset = 0, length } = one.place;
    if (variable && needs.isDeclared(variable)) return needs.openVariable(variable);
    const pos = path && !text ? positionOf(editor.state.doc, path) : undefined;
    if (pos === undefined) return;
    show(length === undefined ? startOf(pos) : { from: pos + offset, to: pos + offset + length });
  }

  /** Goes to the next place where a variable stands, in text or wordings, from the first again after the last. */
  function stepTo(key: string, back = false): void {
    const uses = needs.uses.value.filter((use) => use.key === key);
    if (uses.length === 0) return;
    const at = ((stepped.get(key) ?? (back ? 0 : -1)) + (back ? -1 : 1) + uses.length) % uses.length;
    stepped.set(key, at);
    const use = uses[at] as Use;
    if (!use.path) return needs.openVariable(use.variable ?? key, use.option);
    const pos = positionOf(editor.state.doc, use.path);
    if (pos === undefined) return;
    const node = editor.state.doc.nodeAt(pos);
    if (node?.type.spec.selectable === false || !node?.isAtom)
      show({ from: pos, to: pos + (node?.isText ? node.nodeSize : 0) });
    else selectNode(editor, pos);
  }
  function nextBlank(back: boolean): void {
    const all = needs.blanks.value;
    const now = all.indexOf(needs.openVariableIs() ?? '');
    const next = all[(now + (back ? -1 : 1) + all.length) % Math.max(1, all.length)];
    if (!next) return;
    needs.openVariable(next);
    stepTo(next);
  }
  return { finding, show, showPath, showFinding, showVariable: needs.openVariable, stepTo, nextBlank };
}
export type Going = ReturnType<typeof useGoing>;
