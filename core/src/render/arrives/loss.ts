/** What a family of mail programs takes from a message: as data, with its words made last. */
import { textIn, type Element } from './tree.js';

/** One kind of loss, and every place of it. */
export interface Loss {
  /** What is lost, in a few words. */
  readonly what: string;
  /** What becomes of it, where that is not plain. */
  readonly instead?: string;
  /** The number that marks its places, from 1. */
  readonly number: number;
  /** The first words of each place; the empty string stands for the whole message. */
  readonly places: readonly string[];
}

/** The attribute that marks a place: the number of its loss. */
export const MARK = 'data-lost';
const MOST_WORDS = 48;

/** Gathers losses, those of one kind together. */
export class Losses {
  private readonly found = new Map<string, { readonly loss: Loss; readonly places: string[] }>();

  /** Notes that an element loses something, and marks it. */
  note(what: string, element?: Element, instead?: string): void {
    const key = `${what} ${instead ?? ''}`;
    let entry = this.found.get(key);
    if (!entry) {
      const places: string[] = [];
      const number = this.found.size + 1;
      entry = { places, loss: { what, number, places, ...(instead === undefined ? {} : { instead }) } };
      this.found.set(key, entry);
    }
    const words = element ? excerpt(element) : '';
    if (!entry.places.includes(words)) entry.places.push(words);
    if (element) element.attribs[MARK] ??= String(entry.loss.number);
  }

  get all(): readonly Loss[] {
    return [...this.found.values()].map(({ loss }) => loss);
  }
}

function excerpt(element: Element): string {
  const words = element.name === 'img' ? (element.attribs.alt ?? '') : textIn(element.children);
  return words.length > MOST_WORDS ? `${words.slice(0, MOST_WORDS).trimEnd()}…` : words || 'an image';
}
