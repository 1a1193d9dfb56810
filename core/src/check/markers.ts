/** Old hand-made markers: what people wrote where a value belongs, before they had variables. */

/** How a hand-made marker is written: `[name]`, `<<name>>`, `{name}`, `____`, `NAME`. */
export type MarkerKind = 'bracketed' | 'angled' | 'curly' | 'rule' | 'capitals';

/** A marker in a text, in UTF-16 units, with the words inside it (none for a rule). */
export interface Marker {
  readonly kind: MarkerKind;
  readonly start: number;
  readonly end: number;
  readonly words: string;
}

const PATTERNS: readonly (readonly [MarkerKind, RegExp])[] = [
  ['curly', /\{\{\s*([^{}\n]{1,60}?)\s*\}\}/gu],
  ['angled', /<<\s*([^<>\n]{1,60}?)\s*>>|«\s*([\p{L}][^«»\n]{0,30}?)\s*»|<((?:[\p{L}][\p{L} _-]{1,40}))>/gu],
  ['bracketed', /\[\s*([\p{L}][^[\]\n]{0,58}?)\s*\]/gu],
  ['rule', /_{3,}|\.{5,}|…{2,}/gu],
];

/** Words that in capitals ask to be replaced. Acronyms are not among them, so that a check need not cry wolf. */
const CAPITALS = new Set(
  (
    'NAME FIRSTNAME LASTNAME SURNAME DATE TIME DAY MONTH YEAR AMOUNT PRICE TOTAL FEE ADDRESS EMAIL PHONE TELEPHONE NUMBER COMPANY ORGANISATION ORGANIZATION SCHOOL CITY TOWN COUNTRY TITLE SUBJECT PLACE VENUE LINK ORDER INVOICE REFERENCE CUSTOMER CLIENT MEMBER VISITOR PLANT GARDEN GATE GUIDE COURSE WORKSHOP ' +
    'VORNAME NACHNAME DATUM BETRAG ANREDE UHRZEIT ORT PRÉNOM NOM MONTANT HEURE NOMBRE FECHA HORA IMPORTE'
  ).split(' '),
);
const CAPITAL_RUN = /(?<![\p{L}\p{N}])\p{Lu}{2,}(?:[ _-]\p{Lu}{2,}){0,3}(?![\p{L}\p{N}])/gu;

/** What every marker has in it; most text has none of it, and is not looked at further. */
const ANY = /[[<«{…]|_{3}|\.{5}|\p{Lu}{2}/u;

/** Finds markers in a text, in order, without overlaps. Footnote numbers, links and checkboxes are none. */
export function findMarkers(text: string): Marker[] {
  if (!ANY.test(text)) return [];
  const found: Marker[] = [];
  const taken = new Uint8Array(text.length);
  const free = (start: number, end: number): boolean => {
    if (taken.subarray(start, end).includes(1)) return false;
    taken.fill(1, start, end);
    return true;
  };
  const hasSmall = /\p{Ll}/u.test(text);
  for (const [kind, pattern] of PATTERNS) {
    for (const match of text.matchAll(pattern)) {
      const words = (match[1] ?? match[2] ?? match[3] ?? '').trim();
      const end = match.index + match[0].length;
      // `[words](` is a link, and `[x]` a ticked box.
      if (kind === 'bracketed' && (text[end] === '(' || /^x$/i.test(words))) continue;
      if (free(match.index, end)) found.push({ kind, start: match.index, end, words });
    }
  }
  for (const match of text.matchAll(CAPITAL_RUN)) {
    const end = match.index + match[0].length;
    const isMarker = match[0].split(/[ _-]/).some((word) => CAPITALS.has(word)) && hasSmall;
    if (isMarker && free(match.index, end))
      found.push({ kind: 'capitals', start: match.index, end, words: match[0].replace(/[_-]/g, ' ') });
  }
  return found.sort((a, b) => a.start - b.start);
}
