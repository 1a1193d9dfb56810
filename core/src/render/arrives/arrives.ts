/** How a message reads in each family of mail programs: what it keeps, and what is lost of it. */
import type { Message } from '../render.js';
import { readAloud, type Spoken } from './aloud.js';
import { forceDark } from './dark.js';
import { type Family } from './families.js';
import { keepOnly } from './support-filter.js';
import { Losses, MARK, type Loss } from './loss.js';
import { narrow } from './narrow.js';
import { SUPPORT } from './support.js';
import { declarationsOf, elementsOf, treeOf, written, type Document, type Element } from './tree.js';

/** A message as a family of mail programs shows it, with what is lost on the way. */
export interface Arrival {
  readonly family: Family;
  /** The message as it was made, whole, with the places of losses marked by `data-lost`, the number of the loss. */
  readonly original: string;
  /** What is shown of it, marked as well; undefined where it is not shown as HTML. */
  readonly html?: string;
  /** Of plain text. */
  readonly text?: string;
  /** Of what is read aloud. */
  readonly spoken?: readonly Spoken[];
  readonly losses: readonly Loss[];
}

/** What a message becomes in a family. @param locale of its words */
export function arriveIn(family: Family, { html, text }: Pick<Message, 'html' | 'text'>, locale: string): Arrival {
  const tree = treeOf(html);
  const all = [...elementsOf(tree.children)];
  const losses = new Losses();
  const spoken = family === 'aloud' ? readAloud(tree, locale, losses) : undefined;
  change(family, tree, losses);
  if (family !== 'plain' && family !== 'aloud' && isCut(html))
    losses.note('the end of the message', undefined, 'it is longer than 102 kB, where some programs cut');
  const original = treeOf(html);
  [...elementsOf(original.children)].forEach((element, at) => {
    const number = all[at]?.attribs[MARK];
    if (number !== undefined) element.attribs[MARK] = number;
  });
  return {
    family,
    original: written(original.children),
    ...(family === 'plain' ? { text } : spoken ? { spoken } : { html: written(tree.children) }),
    losses: losses.all,
  };
}

/** Beyond this many bytes some programs cut a message off and hide the rest behind a link. */
const SHOWN_WHOLE = 102_400;
const isCut = (html: string): boolean =>
  html.length * 3 > SHOWN_WHOLE && new TextEncoder().encode(html).length > SHOWN_WHOLE;

function change(family: Family, tree: Document, losses: Losses): void {
  switch (family) {
    case 'page':
    case 'inline':
    case 'word':
      return keepOnly(SUPPORT[family], tree, losses);
    case 'dark':
      keepOnly(SUPPORT.dark, tree, losses);
      return forceDark(tree, losses);
    case 'narrow':
      return narrow(tree, losses);
    case 'no-images':
      return blockImages(tree, losses);
    case 'plain':
      return plainOnly(tree, losses);
    case 'aloud':
      return;
  }
}

/** Shows the alternative text of every image in its place. */
function blockImages(tree: Document, losses: Losses): void {
  for (const image of elementsOf(tree.children)) {
    if (image.name !== 'img') continue;
    const { alt = '', width } = image.attribs;
    losses.note('an image', image, alt === '' ? 'nothing in its place' : 'its alternative text in its place');
    const room = width === undefined ? '' : `;max-width:${width}px`;
    image.name = 'span';
    image.attribs = {
      style: `display:inline-block;border:1px solid #857D6E;padding:4px 8px${room}`,
      ...(image.attribs[MARK] === undefined ? {} : { [MARK]: image.attribs[MARK] }),
    };
    image.children = treeOf(alt === '' ? ' ' : alt.replace(/&/g, '&amp;').replace(/</g, '&lt;')).children;
    for (const child of image.children) child.parent = image;
  }
}

/** What plain text cannot say. */
function plainOnly(tree: Document, losses: Losses): void {
  const look = (element: Element): string | undefined => {
    if (element.name === 'strong' || element.name === 'em' || element.name === 'u') return 'emphasis';
    if (element.name === 's') return 'words struck out';
    if (element.name === 'img') return 'an image';
    if (/^[ch]-/.test(element.attribs.class ?? '')) return 'colours';
    return /^p-/.test(element.attribs.class ?? '') ? 'the panel around words' : undefined;
  };
  for (const element of elementsOf(tree.children)) {
    const what = look(element);
    if (what !== undefined)
      losses.note(what, element, what === 'an image' ? 'its alternative text in its place' : undefined);
    else if (element.name === 'p' && declarationsOf(element).some(([property]) => property === 'text-align'))
      losses.note('the alignment', element);
  }
}
