/** What programs do that turn light messages dark by themselves, and whether words can still be read. */
import { isTag } from 'domhandler';
import { contrast, ENOUGH_CONTRAST, isHex, PAGE, turned } from '../../house/colour.js';
import type { Losses } from './loss.js';
import { declarationsOf, elementsOf, putDeclarations, wordsIn, type Document, type Element } from './tree.js';

const COLOUR = /#[0-9a-f]{6}\b/gi;
const DARK_GROUND = '#121212';

/** A colour on the dark page: the page itself stays a little lighter than black, as screens show it. */
const onDark = (hex: string): string => (hex.toUpperCase() === PAGE ? DARK_GROUND : turned(hex));

/** Turns all colours of a tree in place, and notes words that can be read no more. */
export function forceDark(tree: Document, losses: Losses): void {
  for (const { words, element } of wordsIn(tree.children)) {
    const [ink, ground] = [inForce(element, 'color') ?? '#000000', inForce(element, 'background-color') ?? PAGE];
    if (!isHex(ink) || !isHex(ground)) continue;
    const now = contrast(onDark(ink), onDark(ground));
    if (now < ENOUGH_CONTRAST && words !== '')
      losses.note(
        'enough contrast',
        element,
        `contrast ${(Math.floor(now * 10) / 10).toFixed(1)}; words need ${ENOUGH_CONTRAST}`,
      );
  }
  for (const element of elementsOf(tree.children)) {
    if (element.name === 'style') continue;
    if (element.attribs.bgcolor) element.attribs.bgcolor = onDark(element.attribs.bgcolor);
    const declarations = declarationsOf(element).map(
      ([property, value]) => [property, value.replace(COLOUR, onDark)] as const,
    );
    if (element.name === 'body') putDeclarations(element, [...declarations, ['background-color', DARK_GROUND]]);
    else if (declarations.length > 0) putDeclarations(element, declarations);
  }
}

/** The value of a property that is in force for the words of an element: of colours all are inherited or shine through. */
function inForce(element: Element, property: 'color' | 'background-color'): string | undefined {
  for (let each: Element['parent'] = element; each && isTag(each); each = each.parent) {
    const value = declarationsOf(each).findLast(([name]) => name === property)?.[1];
    if (value !== undefined) return value;
  }
  return undefined;
}
