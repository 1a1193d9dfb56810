/** Reads address cards: vCard 4 (RFC 6350), and 3 as far as it says the same. */
import ICAL from 'ical.js';

/** True for text that begins as a card does. */
export const isVcard = (text: string): boolean => /^\s*BEGIN:VCARD/i.test(text);

type Card = InstanceType<typeof ICAL.Component>;

/** What is taken of a card, by the name of its column. */
const COLUMNS: readonly (readonly [name: string, of: (card: Card) => string])[] = [
  ['Name', (card) => first(card, 'fn')],
  ['First name', (card) => part(card, 'n', 1)],
  ['Last name', (card) => part(card, 'n', 0)],
  ['Email', (card) => first(card, 'email').replace(/^mailto:/i, '')],
  ['Phone', (card) => first(card, 'tel').replace(/^tel:/i, '')],
  ['Organisation', (card) => part(card, 'org', 0)],
  ['Title', (card) => first(card, 'title')],
  ['Street', (card) => part(card, 'adr', 2)],
  ['Town', (card) => part(card, 'adr', 3)],
  ['Postcode', (card) => part(card, 'adr', 5)],
  ['Country', (card) => part(card, 'adr', 6)],
  ['Birthday', (card) => first(card, 'bday')],
  ['Link', (card) => first(card, 'url')],
  ['Note', (card) => first(card, 'note')],
];

/** A grid of cards, a row each, the names of the columns first; columns that no card fills are left out. */
export function readVcards(text: string): string[][] {
  const parsed: unknown = ICAL.parse(text.trim());
  // One card is given as itself, several as a list of them.
  const list = (Array.isArray(parsed) && typeof parsed[0] === 'string' ? [parsed] : parsed) as unknown[];
  const cards = list.map((each) => new ICAL.Component(each as ConstructorParameters<typeof ICAL.Component>[0]));
  const rows = cards.map((card) => COLUMNS.map(([, of]) => of(card)));
  const used = COLUMNS.map((_, at) => rows.some((row) => row[at] !== ''));
  const kept = <T>(cells: readonly T[]): T[] => cells.filter((_, at) => used[at]);
  return [kept(COLUMNS.map(([name]) => name)), ...rows.map((row) => kept(row))];
}

/** The value that is preferred, or the first. */
function preferred(card: Card, name: string): unknown {
  const all = card.getAllProperties(name);
  const pref = all.find(
    (each) => each.getParameter('pref') !== undefined || /pref/i.test(String(each.getParameter('type'))),
  );
  return (pref ?? all[0])?.getFirstValue();
}

const words = (value: unknown): string =>
  value === undefined || value === null ? '' : Array.isArray(value) ? value.map(words).join(' ') : String(value).trim();
const first = (card: Card, name: string): string => words(preferred(card, name));
function part(card: Card, name: string, at: number): string {
  const value = preferred(card, name);
  return Array.isArray(value) ? words(value[at]) : at === 0 || name === 'org' ? words(value) : '';
}
