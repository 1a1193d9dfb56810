/** Words of a message changed where they stand: one line at a time, never the template. */
import { PROOF_DATA, readLineAddress } from '@vocabula/core';
import { nodeAt } from '@vocabula/core';
import {
  inlineOf,
  ownPath,
  readEdited,
  valuesInWords,
  writtenOver,
  type EditedRun,
  type Rewording,
} from '@vocabula/core/filling';
import { computed, shallowRef } from 'vue';
import type { Worked } from './useMessage';

/** A line of the page, and where it stands: in its text's own document, and in the one it was rendered from. */
export interface LinePlace {
  readonly element: HTMLElement;
  /** As the page has it. */
  readonly address: string;
  readonly text: string;
  readonly shownPath: readonly number[];
  readonly path: readonly number[];
}

const samePlace = (a: Pick<Rewording, 'text' | 'path'>, b: Pick<Rewording, 'text' | 'path'>): boolean =>
  a.text === b.text && a.path.join('.') === b.path.join('.');

export function useRewording({ fill, changes, texts, program, input }: Worked) {
  const editing = shallowRef<LinePlace>();
  let shown: readonly EditedRun[] = [];

  function placeOf(element: HTMLElement): LinePlace | undefined {
    const address = element.getAttribute(PROOF_DATA.line) ?? '';
    const place = readLineAddress(address);
    const own = fill.value?.texts[0];
    if (!place || !own) return undefined;
    const { text, path: shownPath } = place;
    const path = text === own.name ? ownPath(own.document, changes.value, shownPath) : shownPath;
    return path && { element, address, text, shownPath, path };
  }
  const isFixed = ({ text }: Pick<LinePlace, 'text'>): boolean => fill.value?.fixed.includes(text) ?? false;
  const rewordingAt = (place: Pick<Rewording, 'text' | 'path'>): Rewording | undefined =>
    changes.value.reworded.find((each) => samePlace(each, place));

  /** What a line says, as the document has it. */
  const contentOf = (kind: 'own' | 'shown', { text, path, shownPath }: LinePlace) => {
    const from = kind === 'own' ? fill.value?.texts : texts.value;
    const document = from?.find((each) => each.name === text)?.document;
    const node = document && nodeAt(document, kind === 'own' ? path : shownPath);
    return node ? inlineOf(node) : [];
  };

  function put(place: Pick<Rewording, 'text' | 'path'>, rewording: Rewording | undefined): void {
    const others = changes.value.reworded.filter((each) => !samePlace(each, place));
    changes.value = { ...changes.value, reworded: rewording ? [...others, rewording] : others };
  }

  function begin(place: LinePlace): void {
    if (isFixed(place)) return;
    const { element } = place;
    editing.value = place;
    shown = runsOf(element);
    element.setAttribute('contenteditable', 'plaintext-only');
    element.spellcheck = true;
    element.focus();
    const selection = element.ownerDocument.getSelection();
    selection?.selectAllChildren(element);
    selection?.collapseToEnd();
  }
  /** Ends typing; `keep` takes what was typed. */
  function end(keep: boolean): void {
    const place = editing.value;
    if (!place) return;
    const edited = runsOf(place.element);
    place.element.removeAttribute('contenteditable');
    editing.value = undefined;
    if (!keep || JSON.stringify(edited) === JSON.stringify(shown) || !program.value) return;
    const before = contentOf('own', place);
    const after = readEdited(contentOf('shown', place), shown, edited);
    const { text, path } = place;
    const same = JSON.stringify(after) === JSON.stringify(before);
    const over = valuesInWords(program.value, input.value, writtenOver(before, after));
    put(place, same ? undefined : { text, path, before, after, over });
  }
  const putBack = (place: Pick<Rewording, 'text' | 'path'>): void => put(place, undefined);
  /** Keeps the words although what they were written over has changed: it is asked again at the next change. */
  const keepWords = (rewording: Rewording): void => {
    if (!program.value) return;
    const over = valuesInWords(program.value, input.value, Object.keys(rewording.over));
    put(rewording, { ...rewording, over });
  };
  const takeOut = (rewording: Rewording): void => put(rewording, rewording);

  /** The addresses of changed lines, as the page has them. */
  const reworded = computed(() => {
    const [own] = fill.value?.texts ?? [];
    return new Set(
      changes.value.reworded.map(({ text, path }) => {
        const shownAt = own && text === own.name ? shownPathOf(path) : path;
        return `${text}:${shownAt.join('.')}`;
      }),
    );
  });
  function shownPathOf(path: readonly number[]): readonly number[] {
    const [of = 0, block = 0, ...rest] = path;
    return [of, block + changes.value.parts.filter(({ at }) => at <= block).length, ...rest];
  }
  return { editing, begin, end, placeOf, isFixed, rewordingAt, putBack, keepWords, takeOut, reworded };
}

/** A line of the page as runs: each with the inline node that it is of, and its words. */
export function runsOf(element: Element): EditedRun[] {
  const runs: EditedRun[] = [];
  const gather = (node: Node, of: number | undefined): void => {
    if (node.nodeType === 3) {
      if (node.textContent) runs.push({ of, words: node.textContent });
      return;
    }
    const inner = node as Element;
    if (inner.tagName === 'BR') {
      runs.push({ of, words: '\n' });
      return;
    }
    const index = inner.getAttribute?.(PROOF_DATA.node);
    const own = index === null || index === undefined ? of : Number(index);
    node.childNodes.forEach((child) => gather(child, own));
  };
  element.childNodes.forEach((child) => gather(child, undefined));
  return runs;
}
