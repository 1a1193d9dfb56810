/** Old hand-made markers: what people wrote where a value belongs, before they had variables. */

/**
 * How a hand-made marker is written: `[name]`, `<<name>>`, `{name}`, `____`, `NAME`; `[choose: a / b]`; words that are
 * there sometimes, as `[If a group: words]` or `words (delete if not needed)`. Words that are highlighted are found by their
 * colour, not in a text.
 */
export type MarkerKind = 'bracketed' | 'angled' | 'curly' | 'rule' | 'capitals' | 'choose' | 'optional' | 'highlighted';

/** A marker in a text, in UTF-16 units, with the words inside it (none for a rule, nor where nothing is said of when). */
export interface Marker {
  readonly kind: MarkerKind;
  readonly start: number;
  readonly end: number;
  readonly words: string;
  /** Of words that are there sometimes: where they stand themselves, and whether they do where the condition is not met. */
  readonly inner?: { readonly start: number; readonly end: number };
  readonly not?: boolean;
}

const PATTERNS: readonly (readonly [MarkerKind, RegExp])[] = [
  ['curly', /\{\{\s*([^{}\n]{1,60}?)\s*\}\}/gu],
  ['angled', /<<\s*([^<>\n]{1,60}?)\s*>>|«\s*([\p{L}][^«»\n]{0,30}?)\s*»|<((?:[\p{L}][\p{L} _-]{1,40}))>/gu],
  ['bracketed', /\[\s*([\p{L}][^[\]\n]{0,58}?)\s*\]/gu],
  ['rule', /_{3,}|\.{5,}|…{2,}/gu],
];

/** How a choice is written out: `[choose: a / b]`, `*choose: a / b*`, `(delete as appropriate: a / b)`. */
const CHOOSE =
  /[[(*]\s*(?:choose(?: one)?|select(?: one)?|delete as (?:appropriate|applicable|needed)|auswahl|bitte wählen|choisir|elegir)\s*:\s*([^[\]()*\n]{3,200}?)\s*[\])*]/giu;
/** What begins words that are there sometimes, and says when: `[If vegetarian: `. */
const WHEN =
  /\[\s*(?:only\s+)?(?:if|when|falls|wenn|si|se)\s+(not\s+|no\s+|kein\s+|nicht\s+)?([\p{L}][^:[\]\n]{0,58}?)\s*:\s*/giu;
/** What says behind a line that it is there sometimes. */
const NOT_NEEDED =
  /\s*[[(*]\s*(?:please\s+)?(?:delete|remove|omit|leave out|streichen|löschen)\s+(?:this\s+)?(?:line\s+|paragraph\s+|sentence\s+)?(?:if|when|falls|wenn)\s+(?:it is\s+)?(?:not\s+(?:needed|applicable|relevant|required|true)|nicht (?:nötig|zutreffend))\s*[\])*]\s*$/iu;

/** Words that in capitals ask to be replaced. Acronyms are not among them, so that a check need not cry wolf. */
const CAPITALS = new Set(
  (
    'NAME FIRSTNAME LASTNAME SURNAME DATE TIME DAY MONTH YEAR AMOUNT PRICE TOTAL FEE ADDRESS EMAIL PHONE TELEPHONE NUMBER COMPANY ORGANISATION ORGANIZATION SCHOOL CITY TOWN COUNTRY TITLE SUBJECT PLACE VENUE LINK ORDER INVOICE REFERENCE CUSTOMER CLIENT MEMBER VISITOR PLANT GARDEN GATE GUIDE COURSE WORKSHOP ' +
    'VORNAME NACHNAME DATUM BETRAG ANREDE UHRZEIT ORT PRÉNOM NOM MONTANT HEURE NOMBRE FECHA HORA IMPORTE'
  ).split(' '),
);
const CAPITAL_RUN = /(?<![\p{L}\p{N}])\p{Lu}{2,}(?:[ _-]\p{Lu}{2,}){0,3}(?![\p{L}\p{N}])/gu;

/** The heading of one of several ways of putting something. */
const OPTION = /(?<![\p{L}\p{N}])(?:option|alternative|version|variante|variant)\s+([A-H]|[1-8])\s*[:.)–-]\s*/giu;
/** What every marker has in it; most text has none of it, and is not looked at further. */
const ANY = /[[<«{…(*]|_{3}|\.{5}|\p{Lu}{2}/u;

/** Whether a text may hold markers or written alternatives: quickly said, and never no where there are some. */
export const mayHoldMarkers = (text: string): boolean => ANY.test(text) || text.search(OPTION) >= 0;

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
  for (const optional of optionalWords(text)) {
    const { start, end, inner = { start, end } } = optional;
    // What stands in them may hold markers of its own.
    if (free(start, inner.start) && free(inner.end, end)) found.push(optional);
  }
  for (const match of text.matchAll(CHOOSE)) {
    const end = match.index + match[0].length;
    const words = match[1] ?? '';
    if (words.includes('/') && free(match.index, end)) found.push({ kind: 'choose', start: match.index, end, words });
  }
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

/** Words that are there sometimes: those that a bracket says it of, with brackets inside them, and a whole line. */
function optionalWords(text: string): Marker[] {
  const found: Marker[] = [];
  for (const match of text.matchAll(WHEN)) {
    const from = match.index + match[0].length;
    const close = closing(text, from);
    if (close === undefined || text.slice(from, close).trim() === '') continue;
    const inner = { start: from, end: from + text.slice(from, close).trimEnd().length };
    found.push({
      ...{ kind: 'optional', start: match.index, end: close + 1, words: (match[2] ?? '').trim(), inner },
      ...(match[1] === undefined ? {} : { not: true }),
    });
  }
  const note = NOT_NEEDED.exec(text);
  if (note && text.slice(0, note.index).trim() !== '') {
    const start = text.length - text.trimStart().length;
    found.push({ kind: 'optional', start, end: text.length, words: '', inner: { start, end: note.index } });
  }
  return found;
}

/** Where the bracket closes that is open before a place; undefined where it does not on this line. */
function closing(text: string, from: number): number | undefined {
  let depth = 0;
  for (let at = from; at < text.length; at += 1) {
    if (text[at] === '[') depth += 1;
    else if (text[at] === ']' && depth > 0) depth -= 1;
    else if (text[at] === ']') return at;
  }
  return undefined;
}

/** Ways of putting something, one of which is kept: `Option A: …`, `Option B: …`. */
export interface WrittenAlternative {
  /** The line it stands in, by its index. */
  readonly line: number;
  /** Where its heading begins, and where its own words stand, in UTF-16 units of the line. */
  readonly start: number;
  readonly inner: { readonly start: number; readonly end: number };
}

/**
 * Alternatives that are written out, in a line or in lines that follow each other, each run of them together. A heading
 * alone is none: there are at least two, and they count on from A or 1.
 */
export function writtenAlternatives(lines: readonly string[]): WrittenAlternative[][] {
  const runs: WrittenAlternative[][] = [];
  let run: WrittenAlternative[] = [];
  const done = (): void => {
    if (run.length >= 2) runs.push(run);
    run = [];
  };
  for (const [line, text] of lines.entries()) {
    const heads = [...text.matchAll(OPTION)];
    // Only a line that begins with a heading goes on.
    if (heads.length === 0 || text.slice(0, heads[0]?.index).trim() !== '') {
      if (text.trim() !== '') done();
      continue;
    }
    for (const [at, head] of heads.entries()) {
      const name = (head[1] ?? '').toUpperCase();
      const number = /\d/.test(name) ? Number(name) : name.charCodeAt(0) - 64;
      if (number !== run.length + 1) done();
      if (number !== run.length + 1) continue;
      const from = head.index + head[0].length;
      const end = heads[at + 1]?.index ?? text.length;
      const inner = { start: from, end: from + text.slice(from, end).trimEnd().length };
      if (inner.end > inner.start) run.push({ line, start: head.index, inner });
    }
  }
  done();
  return runs;
}
