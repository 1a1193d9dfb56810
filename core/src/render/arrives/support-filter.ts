/** Takes out of a message what a family of mail programs does not keep, by the tested support of its programs. */
import type { Losses } from './loss.js';
import { declarationsOf, elementsOf, putDeclarations, type Document, type Element } from './tree.js';

/** Where a property is kept; one of which nothing is said here is kept nowhere. */
export interface Limit {
  /** The only elements on which it is kept. */
  readonly only?: readonly string[];
  /** Elements on which it is not kept. */
  readonly not?: readonly string[];
  /** Values of it that are not kept. */
  readonly values?: readonly string[];
}
/** What at least half of the tested programs of a family leave out. */
export interface Support {
  /** How many programs were tested. */
  readonly programs: number;
  /** By property of a style. */
  readonly properties: Readonly<Record<string, Limit>>;
  readonly features: readonly string[];
}

/** Properties in the words of whoever reads of a loss. */
const PROPERTY_WORDS: Readonly<Record<string, string>> = {
  'background-color': 'the colour behind words',
  border: 'lines around it',
  'border-bottom': 'the line below',
  'border-left': 'the line at the side',
  'border-radius': 'round corners',
  'border-top': 'the line above',
  'font-family': 'the font',
  'font-size': 'the size of words',
  'font-weight': 'bold words',
  'line-height': 'the height of lines',
  margin: 'space between blocks',
  'margin-left': 'the indent',
  'margin-right': 'the indent',
  'max-width': 'the limit of its width',
  padding: 'room around words',
  'text-align': 'the alignment',
  'text-decoration': 'underlining',
  'white-space': 'wrapping of long lines',
  width: 'the width',
};
/** What an attribute says as well need not be said by a style. */
const ATTRIBUTES: Readonly<Record<string, string>> = {
  width: 'width',
  'max-width': 'width',
  height: 'height',
  'background-color': 'bgcolor',
};
/** Values that say what is so anyway: where they are not kept, nothing is lost. */
const NOTHING = /^(?:0|auto|none|0 0 0 0)$/;

/** Changes the tree in place. */
export function keepOnly({ properties, features }: Support, tree: Document, losses: Losses): void {
  const lacks = new Set(features);
  for (const element of [...elementsOf(tree.children)]) {
    if (element.name === 'style' && (lacks.has('style') || lacks.has('dark partners'))) {
      losses.note('colours for dark pages', undefined, 'the program chooses its own');
      element.parent?.children.splice(element.parent.children.indexOf(element), 1);
      continue;
    }
    if (element.name === 'body' && lacks.has('body style')) delete element.attribs.style;
    const declarations = declarationsOf(element);
    const kept = declarations.filter(([property, value]) => {
      const limit = properties[property];
      const goes =
        (limit !== undefined && isLost(limit, element, value)) || (lacks.has('min()') && value.includes('min('));
      if (goes && isSeen(element, property, value)) losses.note(PROPERTY_WORDS[property] ?? property, element);
      return !goes;
    });
    if (kept.length < declarations.length) putDeclarations(element, kept);
  }
}

function isLost({ only, not, values }: Limit, { name }: Element, value: string): boolean {
  if (only) return !only.includes(name);
  if (not?.includes(name)) return true;
  if (values) return value.split(/\s+/).some((each) => values.includes(each));
  return not === undefined;
}

/** Whether a reader would notice. */
function isSeen({ name, attribs }: Element, property: string, value: string): boolean {
  const attribute = ATTRIBUTES[property];
  if (attribute !== undefined && attribute in attribs) return false;
  // Images are as high as they are wide asks for, and no wider than they are; `<pre>` keeps its lines by itself.
  if (name === 'img' && (property === 'height' || property === 'max-width')) return false;
  return !NOTHING.test(value);
}
