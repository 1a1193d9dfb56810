/** Coloured words of a document, with what lies under them. */
import { contrast, darkTint, DARK_PAGE, PAGE, tint, turned } from '../house/colour.js';
import type { HouseStyle, NamedColour } from '../house/house.js';
import type { Inline, Node, TextDocument } from '../template/document.js';
import { childrenOf } from '../template/walk.js';

/** A stretch of words with a colour or a highlight, and where it stands. */
export interface ColouredWords {
  readonly words: string;
  readonly path: readonly number[];
  /** The names of their colour, and of that of the highlight or panel under them; undefined for the page. */
  readonly colour: string;
  readonly ground: string | undefined;
}

/** Every run of words that has a colour of the house, in order. */
export function colouredWords(document: TextDocument, { colours }: HouseStyle): ColouredWords[] {
  const found: ColouredWords[] = [];
  const go = (node: Node, path: readonly number[], panel: string): void => {
    const under = node.type === 'panel' ? (node.attrs as { colour?: string }).colour || panel : panel;
    const colour = nameIn(node, 'colour');
    if (node.type === 'text' && colour !== undefined && Object.hasOwn(colours, colour)) {
      const ground = nameIn(node, 'highlight') ?? under;
      found.push({
        words: node.text.trim(),
        path,
        colour,
        ground: Object.hasOwn(colours, ground) ? ground : undefined,
      });
    }
    childrenOf(node).forEach((child, index) => go(child, [...path, index], under));
  };
  go(document, [], '');
  return found;
}

function nameIn(node: Node, type: 'colour' | 'highlight'): string | undefined {
  const mark = 'marks' in node ? (node as Inline).marks?.find((each) => each.type === type) : undefined;
  return mark && 'attrs' in mark ? ((mark.attrs as { name?: string }).name ?? undefined) : undefined;
}

/** How words of a colour stand out on a ground: on light pages, on dark ones, and where a program turns all colours. */
export function contrasts(
  colour: NamedColour,
  ground: NamedColour | undefined,
): { readonly light: number; readonly dark: number; readonly turned: number } {
  const under = ground ? tint(ground.light) : PAGE;
  return {
    light: contrast(colour.light, under),
    dark: contrast(colour.dark, ground ? darkTint(ground.light) : DARK_PAGE),
    turned: contrast(turned(colour.light), turned(under)),
  };
}
/** A contrast in words, never rounded up. */
export const contrastInWords = (value: number): string => (Math.floor(value * 10) / 10).toFixed(1);
