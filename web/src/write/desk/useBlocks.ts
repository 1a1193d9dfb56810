/** Blocks while writing: put in live or as a copy, made of a selection, turned into a copy. */
import type { Editor } from '@tiptap/core';
import { Fragment, type Node as PmNode } from '@tiptap/pm/model';
import { NodeSelection } from '@tiptap/pm/state';
import {
  bodyOf,
  emptyDocument,
  keyFromLabel,
  namesIn,
  normalise,
  renameVariable,
  usesOf,
  type Block,
  type Inline,
  type TextDocument,
  type Variable,
} from '@vocabula/core';
import { api } from '../../api/client';
import { ensureText, knownText, putText } from '../../ui/library';
import { useNotice } from '../../ui/notice';
import { placeBlock } from '../editor/operations/insert';
import type { Range } from '../editor/operations/places';
import { setVariables, variablesOf } from '../editor/operations/variables';
import { targetOf } from '../editor/operations/wrap';
import { TAKES_BRACKETS } from '../editor/bracketRemoval';

/** A text's words and variables, ready to stand in another: keys that mean something else there are changed. */
function readied(block: TextDocument, into: readonly Variable[]): { blocks: readonly Block[]; variables: Variable[] } {
  const taken = new Set([...into, ...block.attrs.variables].map(({ key }) => key));
  let own = block;
  for (const { key, type, label } of block.attrs.variables) {
    const other = into.find((each) => each.key === key);
    if (!other || other.type === type) continue;
    const next = keyFromLabel(label ?? key, taken);
    taken.add(next);
    own = renameVariable(own, key, next);
  }
  const missing = own.attrs.variables.filter(({ key }) => !into.some((each) => each.key === key));
  return { blocks: bodyOf(own), variables: missing };
}

/** A block before it is kept, and the stretch that it would stand for. */
interface Draft extends Range {
  readonly document: TextDocument;
  readonly inLine: boolean;
}

/** The variables that a text uses, and those from which these are worked out. */
function variablesUsed(document: TextDocument): Variable[] {
  const used = new Set(usesOf(document).flatMap(({ key, kind }) => (kind === 'expression' ? [] : [key])));
  const { variables } = document.attrs;
  for (let size = -1; size !== used.size;) {
    size = used.size;
    for (const { key, value, columns = [] } of variables)
      if (used.has(key))
        for (const source of [value, ...columns.map((column) => column.value)])
          if (source !== undefined) for (const { name } of namesIn(source)) used.add(name);
  }
  return variables.filter(({ key }) => used.has(key));
}

export function useBlocks(editor: Editor, undo: () => void, refresh: () => Promise<void>) {
  const notice = useNotice();
  const nodes = (blocks: readonly (Block | Inline)[]): PmNode[] =>
    blocks.map((each) => editor.schema.nodeFromJSON(each));

  async function textOf(name: string): Promise<TextDocument> {
    await ensureText(name);
    const text = knownText(name);
    if (!text) throw new Error(`There is no block “${name}”.`);
    return text;
  }

  /** Puts a block's words in at the caret, with the variables that are missing here. */
  async function copy(name: string): Promise<void> {
    const { blocks, variables } = readied(await textOf(name), variablesOf(editor.state.doc));
    const tr = setVariables(editor.state.tr, [...variablesOf(editor.state.doc), ...variables]);
    const [only] = blocks;
    const inLine =
      editor.state.selection.$from.parent.content.size > 0 && blocks.length === 1 && only?.type === 'paragraph';
    if (inLine) editor.view.dispatch(tr.replaceSelection(editor.schema.nodeFromJSON(only).slice(0)).scrollIntoView());
    else placeBlock(editor, nodes(blocks), tr);
    notice.say('Its words are here now, and stay as they are when the block changes.', undo);
  }

  /** Puts a block's words where it is included. */
  async function toCopy(pos: number): Promise<void> {
    const node = editor.state.doc.nodeAt(pos);
    if (node?.type.name !== 'inclusion' && node?.type.name !== 'inlineInclusion') return;
    const { blocks, variables } = readied(await textOf(String(node.attrs.name)), variablesOf(editor.state.doc));
    const { tr } = editor.state;
    const content =
      node.type.name === 'inclusion'
        ? nodes(blocks)
        : blocks.flatMap((block) =>
            block.type === 'paragraph'
              ? nodes(block.content ?? []).map((each) => each.mark(each.marks.concat(node.marks)))
              : [],
          );
    tr.replaceWith(pos, pos + node.nodeSize, content);
    setVariables(tr, [...variablesOf(tr.doc), ...variables]);
    editor.view.dispatch(tr.scrollIntoView());
    notice.say('It is a copy now.', undo);
  }

  /** The block that a selection would become, with its variables: of whole blocks, or of words of one line. */
  function draft(range: Range): Draft | undefined {
    const { doc, selection } = editor.state;
    const target = targetOf(doc, range, selection);
    if (!target || 'parent' in target) return undefined;
    const inLine = target.form === 'phrase';
    const json = doc.slice(target.from, target.to).content.toJSON() as (Block | Inline)[];
    const blocks = inLine ? [{ type: 'paragraph' as const, content: json as Inline[] }] : (json as Block[]);
    const { front, variables } = doc.attrs as TextDocument['attrs'];
    const empty = emptyDocument({ kind: 'block', title: '', ...(front.locale ? { locale: front.locale } : {}) });
    const whole: TextDocument = {
      ...empty,
      attrs: { ...empty.attrs, variables },
      content: empty.content.map((part) => (part.type === 'body' ? { ...part, content: blocks } : part)),
    };
    const document = normalise({ ...whole, attrs: { ...whole.attrs, variables: variablesUsed(whole) } });
    return { document, from: target.from, to: target.to, inLine };
  }

  /** The other places where the same blocks stand, one after the other. */
  function sameElsewhere(range: Range): Range[] {
    const content = draft(range);
    if (!content || content.inLine) return [];
    const wanted = editor.state.doc.slice(content.from, content.to).content;
    const found: Range[] = [];
    editor.state.doc.descendants((node, pos) => {
      if (node.isTextblock) return false;
      for (let index = 0; index + wanted.childCount <= node.childCount; index += 1) {
        const run = Array.from({ length: wanted.childCount }, (_, at) => node.child(index + at));
        if (!run.every((child, at) => child.eq(wanted.child(at)))) continue;
        let from = pos + 1;
        for (let before = 0; before < index; before += 1) from += node.child(before).nodeSize;
        const to = from + wanted.size;
        if (to <= content.from || from >= content.to) found.push({ from, to });
      }
      return true;
    });
    return found;
  }

  /** Makes a block of a selection; it takes its variables along, and stands live where its words were. */
  async function fromSelection(title: string, range: Range, elsewhere: readonly Range[]): Promise<void> {
    const content = draft(range);
    if (!content) throw new Error('Whole blocks, or words of one line, can become a block.');
    const { front, variables } = content.document.attrs;
    const document = { ...content.document, attrs: { front: { ...front, title }, variables } };
    const made = await api.createText({ kind: 'block', title, document });
    putText(made.name, made.document);
    const { tr, schema } = editor.state;
    const type = schema.nodes[content.inLine ? 'inlineInclusion' : 'inclusion'];
    const places = [{ from: content.from, to: content.to }, ...elsewhere].sort((a, b) => b.from - a.from);
    for (const { from, to } of places)
      if (type) tr.replaceWith(from, to, Fragment.from(type.create({ name: made.name })));
    if (!content.inLine) tr.setSelection(NodeSelection.create(tr.doc, tr.mapping.map(content.from, -1)));
    editor.view.dispatch(tr.setMeta(TAKES_BRACKETS, true).scrollIntoView());
    await refresh();
    notice.say(`“${title}” is a block now, included here.`, undo);
  }

  return { copy, toCopy, draft, sameElsewhere, fromSelection };
}

export type Blocks = ReturnType<typeof useBlocks>;
