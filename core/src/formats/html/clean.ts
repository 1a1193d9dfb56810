/** What of foreign HTML is content: what nobody sees does not get in, whatever it is made of. */
import type { ChildNode, Element, Text } from 'domhandler';

/** Whether a node of parsed HTML is an element. */
export const isElement = (node: ChildNode): node is Element =>
  node.type === 'tag' || node.type === 'script' || node.type === 'style';
/** Whether a node of parsed HTML is text. */
export const isText = (node: ChildNode): node is Text => node.type === 'text';

/** Never content: code, metadata, forms, frames, drawings. */
const DROPPED = new Set(
  (
    'script style head title meta link base template noscript object embed applet iframe frame frameset svg math ' +
    'canvas audio video source track map area form input select option textarea button datalist progress meter ' +
    'dialog colgroup col'
  ).split(' '),
);

/** An element's inline style by property, lower case, `!important` taken off. */
export function styleOf(element: Element): ReadonlyMap<string, string> {
  const style = new Map<string, string>();
  for (const declaration of (element.attribs.style ?? '').slice(0, 4000).split(';')) {
    const colon = declaration.indexOf(':');
    if (colon < 0) continue;
    const value = declaration.slice(colon + 1).replace(/!important/i, '');
    style.set(declaration.slice(0, colon).trim().toLowerCase(), value.trim().toLowerCase());
  }
  return style;
}

const isNothing = (size: string | undefined): boolean => /^0(?:\.0+)?(?:px|pt|em|rem|%)?$/.test(size ?? '');

/** True for elements that a reader of the page would not see, or that are no content. */
export function isLeftOut(element: Element): boolean {
  if (DROPPED.has(element.name) || element.name.includes(':')) return !WORD_WRAPPERS.has(element.name);
  if ('hidden' in element.attribs) return true;
  const style = styleOf(element);
  return (
    style.get('display') === 'none' ||
    style.get('visibility') === 'hidden' ||
    style.get('mso-hide') === 'all' ||
    isNothing(style.get('font-size')) ||
    isNothing(style.get('opacity')) ||
    (isNothing(style.get('max-height')) && style.get('overflow') === 'hidden')
  );
}

/** Wrappers of word processors that hold content: smart tags. `o:p` holds what a paragraph of theirs needs to be empty. */
const WORD_WRAPPERS = new Set(['o:p', 'st1:place', 'st1:city', 'st1:date', 'st1:personname']);

/** A length in pixels; undefined if it is none, or relative. */
export function pixels(length: string | undefined): number | undefined {
  const [, number = '', unit = ''] = /^\s*(\d{1,5}(?:\.\d+)?)\s*(px|pt)?\s*$/.exec(length ?? '') ?? [];
  return number === '' ? undefined : Math.round(Number(number) * (unit === 'pt' ? 4 / 3 : 1));
}

/** True for images that are there to be counted, not seen, or only to keep a distance. */
export function isSpacer(image: Element): boolean {
  const style = styleOf(image);
  const sizes = [image.attribs.width, image.attribs.height, style.get('width'), style.get('height')];
  return sizes.some((size) => (pixels(size) ?? 99) <= 2) || !(image.attribs.src ?? '').trim();
}
