/**
 * The sentences of findings. A finding is told by its code and its fields; its sentence is made here and nowhere else.
 * The fields that a code has are the parameters of its function, so the type `FindingData` follows from these tables.
 */

type Sentence = (fields: never) => string;
type FieldsOf<S> = S extends (fields: infer F) => string ? F : never;

/** The sentences of a code that has several cases, told apart by `why`. */
function byCase<T extends Readonly<Record<string, Sentence>>>(
  sentences: T,
): (fields: { [W in keyof T]: { readonly why: W } & FieldsOf<T[W]> }[keyof T]) => string {
  return (fields) => (sentences[fields.why] as (fields: unknown) => string)(fields);
}

/** Shortens what a file or a person gave, to show it in a sentence. */
const cut = (text: string, length = 60): string => text.slice(0, length);
/** Names that lead to each other. */
const chained = (names: readonly string[]): string => names.join(' → ');

/** What a type says about its own attributes. */
const declaration = ({ key, says }: { readonly key: string; readonly says: string }): string => `“${key}”: ${says}`;
/** What stands in a list of things with names, such as a column or an option. */
export type Declared = 'entry' | 'variable' | 'column' | 'option' | 'fact' | 'colour';

/** Sentences of errors. A text with one of them cannot be trusted to send. */
const ERRORS = {
  'bad-file': byCase({
    'not-yaml': ({ says }: { says: string }) => `This is not YAML: ${says}`,
    unquoted: () => 'A value that begins with {{ must stand in quotes.',
    'no-entries': ({ name, example }: { name?: string; example?: string }) =>
      `${name === undefined ? 'The front matter' : `“${name}”`} must have entries${example ? `, such as ${example}` : ''}.`,
    'key-not-word': () => 'A key must be a word.',
    alias: () => 'Anchors and aliases are not read.',
    'not-one-value': ({ name }: { name: string }) => `“${name}” must be one value.`,
    'not-list': ({ name, example }: { name: string; example: string }) =>
      `“${name}” must be a list${example.startsWith('{') ? ' of' : ', such as'} ${example}.`,
    'no-attributes': ({ what, key }: { what: Declared; key: string }) =>
      `The ${what} “${key}” needs attributes, such as { type: text }.`,
    'no-version': ({ where }: { where: 'front matter' | 'file' }) => `The ${where} must say “vocabula: 1”.`,
    'other-version': ({ version }: { version: string }) =>
      `This file is of version ${version} of the format; only 1 is read.`,
    'no-title': () => 'The front matter must have a title.',
    'too-nested': () => 'The text is nested too deep to be read whole.',
    'no-rows': () => 'A table without rows.',
    'wide-row': () => 'This row has more cells than the head of its table.',
    'spanned-cell': () => 'A cell beside it or above spans this one, so it must be empty.',
    'same-name': ({ file }: { file: string }) => `There is another text of this name: ${file}.`,
    'no-asset': ({ file }: { file: string }) => `“${file}” is not in the library.`,
    'too-large': () => 'The file is larger than 2 MB.',
    'nul-byte': () => 'The file holds a NUL byte, so it is not text.',
    'no-front': () => 'The file must begin with front matter between two lines of “---”.',
  }),
  'unknown-type': ({
    what,
    key,
    type,
    known,
  }: {
    what: Declared;
    key: string;
    type?: string;
    known: readonly string[];
  }) =>
    type === undefined
      ? `The ${what} “${key}” has no type.`
      : `There is no type “${type}”. There are: ${known.join(', ')}.`,
  'unknown-attribute': byCase({
    declared: ({ what, name, type }: { what: Declared; name: string; type?: string }) =>
      `A${what === 'option' ? 'n' : ''} ${what}${type === undefined ? '' : ` of type ${type}`} has no attribute “${name}”.`,
    front: ({ name }: { name: string }) => `The front matter has no attribute “${name}”.`,
    attachment: ({ name }: { name: string }) => `An attachment has no attribute “${name}”.`,
    here: ({ name }: { name: string }) => `There is no attribute “${name}” here.`,
  }),
  'unknown-variable': byCase({
    variable: ({ name }: { name: string }) => `There is no variable “${name}”.`,
    fact: ({ name }: { name: string }) => `There is no fact “${name}”.`,
    column: ({ list, name }: { list: string; name: string }) => `The list “${list}” has no column “${name}”.`,
  }),
  'unknown-view': byCase({
    'list-plain': () => 'A list has no plain view: name a column, or count.',
    missing: ({ name, view, known }: { name: string; view: string; known: readonly string[] }) =>
      `“${name}” has no view “${view}”${known.length > 0 ? `; there are: ${known.join(', ')}` : ''}.`,
  }),
  'unknown-block': byCase({
    missing: ({ name }: { name: string }) => `There is no block “${name}”.`,
    'of-house': ({ name }: { name: string }) =>
      `There is no block “${name}”, which the house style puts in every message.`,
    'missing-signature': ({ name }: { name: string }) => `There is no signature “${name}”.`,
    'no-signature': ({ name }: { name: string }) => `“${name}” is not a signature.`,
    'no-signature-name': ({ name }: { name: string }) => `“${name}” is not the name of a signature.`,
    unpublished: ({ title }: { title: string }) =>
      `“${title}” is not published: colleagues would miss it. Publish it first.`,
  }),
  'unsupported-tag': byCase({
    'three-braces': () => 'Three braces would put a value in unescaped. Write two.',
    ampersand: () => 'A tag with & would put a value in unescaped. Leave the & out.',
    delimiters: () => 'The delimiters of tags cannot be changed.',
  }),
  'bad-key': byCase({
    key: ({ what, key }: { what: Declared; key: string }) =>
      `“${key}” cannot be a ${what}'s key: small letters, digits and underscores, beginning with a letter, 40 at most.`,
    colour: ({ key }: { key: string }) => `A colour is named in small letters, digits and underscores: “${key}”.`,
    text: ({ name }: { name: string }) => `“${name}” is not the name of a text: small letters, digits and hyphens.`,
    condition: ({ name }: { name: string }) => `“${name}” is not the name of a condition, such as guide or gate.river.`,
    variable: ({ name }: { name: string }) =>
      `“${name}” is not the name of a variable: small letters, digits and underscores.`,
    declaration,
  }),
  'reserved-key': byCase({
    key: ({ key }: { key: string }) => `“${key}” has a meaning of its own in the template language.`,
    declaration,
  }),
  'duplicate-key': byCase({
    'call-word': ({ word, file }: { word: string | undefined; file: string }) =>
      `The call word “${word}” is taken by ${file}.`,
    key: ({ what, key }: { what: Declared; key: string }) =>
      `There are two ${what === 'entry' ? 'entries' : `${what}s`} “${key}”.`,
    declaration,
  }),
  'unclosed-passage': ({ name }: { name: string }) =>
    `The passage “${name}” is not opened and closed in the same place.`,
  'not-a-condition': byCase({
    type: ({ of }: { of: string }) =>
      `“${of}” is neither a yes-no, a choice nor a list, so nothing can depend on it. For a condition on data, declare a yes-no with a value.`,
    'no-options': ({ of }: { of: string }) => `“${of}” has no options.`,
    'option-missing': ({ of, example }: { of: string; example: string }) =>
      `“${of}” is a choice: name the options, as in ${of}.${example}.`,
    'unknown-option': ({ of, option }: { of: string; option: string }) => `“${of}” has no option “${option}”.`,
  }),
  'repeat-in-line': ({ list }: { list: string }) =>
    `A list does not repeat inside a line: use {{${list}.column}}, or a block of its own.`,
  'block-loop': ({ chain }: { chain: readonly string[] }) => `This block includes itself: ${chained(chain)}.`,
  'too-deep': byCase({
    nested: ({ most, chain }: { most: number; chain: readonly string[] }) =>
      `Blocks nest ${most} deep at most: ${chained(chain)}.`,
    many: ({ most }: { most: number }) => `More than ${most} blocks would be included.`,
    large: () => 'The included blocks are more together than one message may be.',
  }),
  'block-in-line': ({ name }: { name: string }) =>
    `“${name}” is more than one paragraph, so it cannot stand inside a line.`,
  'two-signatures': ({ first, second }: { first: string; second: string }) =>
    `A message carries one signature: “${first}” stands there already, so “${second}” is left out.`,
  'value-loop': byCase({
    values: ({ chain }: { chain: readonly string[] }) => `These values wait for each other: ${chained(chain)}.`,
    wording: ({ name }: { name: string }) => `The wording of “${name}” holds itself.`,
  }),
  'type-clash': byCase({
    texts: ({ key, attribute, one, other }: { key: string; attribute: string; one: string; other: string }) =>
      `“${key}” differs in its ${attribute} between ${one} and ${other}.`,
    column: ({ key, attribute, other }: { key: string; attribute: string; other: string }) =>
      `“${key}” differs in its ${attribute} between the list it repeats over and ${other}.`,
  }),
  'bad-expression': byCase({
    operator: ({ operator }: { operator: string }) => `“${operator}” cannot be used here.`,
    literal: () => 'Only numbers, text in quotes, true and false can be written here.',
    function: ({ name }: { name: string }) => `There is no function “${name}”.`,
    'one-name': ({ name }: { name: string }) => `“${name}” takes one name.`,
    'variable-name': ({ name }: { name: string }) => `“${name}” takes the name of a variable.`,
    nested: () => 'exists, all, map and filter nest two deep at most.',
    'row-name-missing': ({ name }: { name: string }) => `“${name}” takes a name for the row and what to ask of it.`,
    'row-name': ({ name }: { name: string }) => `“${name}” cannot name a row.`,
    'too-long': ({ most }: { most: number }) => `An expression has ${most} characters at most.`,
    type: ({ given, needed }: { given: string; needed: string }) => `This gives ${given}, where ${needed} is needed.`,
    unreadable: ({ says }: { says: string }) => `This cannot be calculated: ${says}.`,
  }),
  'bad-value': byCase({
    declaration,
    answer: ({ label, says }: { label: string; says: string }) => `${label}: ${says}`,
    blank: ({ label }: { label: string }) => `${label} is still blank.`,
    default: ({ key, says }: { key: string; says: string }) => `The default of “${key}” does not fit: ${says}`,
    'computed-and-prefilled': ({ key }: { key: string }) => `“${key}” is calculated, so it cannot also be prefilled.`,
    'from-elsewhere': ({ key }: { key: string }) =>
      `“${key}” can be prefilled from recipient.x, sender.x, last or clipboard.`,
    'not-remembered': ({ type }: { type: string }) => `A value of type ${type} is never remembered.`,
    zone: ({ zone }: { zone: string }) => `“${zone}” is not a zone, such as Europe/Dublin.`,
    'ends-before': ({ from, until }: { from: string; until: string }) =>
      `It would end on ${until}, before it begins on ${from}.`,
    'not-one-of': ({ name, allowed }: { name: string; allowed: readonly string[] }) =>
      `“${name}” must be one of: ${allowed.join(', ')}.`,
    form: ({ key, name, says }: { key: string; name: string; says: string }) => `“${name}” of “${key}” ${says}.`,
    'option-empty': ({ key }: { key: string }) =>
      `The option “${key}” needs a label or wording, such as { label: North }.`,
    'invitation-start': ({ text }: { text: string }) =>
      `When the invitation starts cannot be told from “${cut(text)}”.`,
    'invitation-length': ({ text }: { text: string }) =>
      `How long the invitation takes cannot be told from “${cut(text)}”.`,
    font: () => 'A font is a list of families, such as Georgia, serif.',
    'block-name': ({ name }: { name: string }) => `“${name}” is not the name of a block.`,
    'unknown-colour': ({ name }: { name: string }) => `There is no colour “${name}” among the named colours.`,
    pixels: ({ name, least, most }: { name: string; least: number; most: number }) =>
      `“${name}” must be a number of pixels from ${least} to ${most}.`,
    headings: () => '“headings” must be three sizes in pixels, such as [22, 18, 16].',
    colour: ({ name }: { name: string }) =>
      `“${name}” must be a colour, such as { light: "#3B6B2E", dark: "#9CCB8D" }.`,
    'fact-type': ({ type }: { type: string }) => `A fact cannot be a ${type}.`,
    'fact-value': ({ key, value, says }: { key: string; value: string; says: string }) => `“${key}”, ${value}: ${says}`,
    day: ({ text }: { text: string }) => `“${text}” is not a day, such as 2027-01-01.`,
    holidays: ({ text }: { text: string | undefined }) =>
      `“holidays” must be days, such as [2026-12-25]${text ? `; “${text}” is none` : ''}.`,
  }),
  'bad-step': byCase({
    none: () => 'A series needs one step at least.',
    many: ({ most }: { most: number }) => `A series has ${most} steps at most.`,
    form: ({ step }: { step: number }) =>
      `Step ${step} must say its template, such as { text: welcome, wait: 3 days }.`,
    wait: ({ step, text }: { step: number; text: string }) =>
      `“${cut(text)}” is no wait of step ${step}. It is written as “3 days”, “2 working days”, “5 days before visit_date” or “on visit_date”.`,
    clock: ({ step, text }: { step: number; text: string }) =>
      `“${cut(text)}” is no time of day for step ${step}. It is written as 09:30.`,
    missing: ({ step, name }: { step: number; name: string }) => `There is no template “${name}” for step ${step}.`,
    'no-message': ({ step, title }: { step: number; title: string }) =>
      `“${title}”, of step ${step}, is no template that is sent as a message.`,
    reply: ({ step, title }: { step: number; title: string }) =>
      `“${title}”, of step ${step}, is a reply: there is no mail that it would answer.`,
    'no-day': ({ step, name }: { step: number; name: string }) =>
      `Step ${step} is counted from “${name}”, which is no date among the values of the series.`,
    taken: ({ name }: { name: string }) =>
      `“${name}” says in a series what became of earlier messages, so no variable of its templates can be called that.`,
    elsewhere: () => 'Only a series has steps.',
  }),
  'no-subject': () => 'The template has no subject.',
  'bad-address': ({ address }: { address: string }) => `“${cut(address, 80)}” is not an address.`,
  'unsafe-link': byCase({
    written: ({ href }: { href: string }) => `“${cut(href)}” is not an address that a message may link to.`,
    filled: ({ href }: { href: string }) => `A link would lead to “${cut(href)}”.`,
    image: ({ href }: { href: string }) => `An image cannot come from “${cut(href)}”.`,
  }),
  'too-costly': () =>
    'This message is more work than one may be: its lists are too long for what is repeated or calculated with them.',
} as const satisfies Readonly<Record<string, Sentence>>;

/** Sentences of warnings and notes, which advise and stop nothing. */
const ADVICE = {
  'leftover-marker': byCase({
    marker: ({ text }: { text: string }) => `“${text}” looks like a marker that was to be replaced.`,
    unfinished: ({ text }: { text: string }) => `“${text}” says that something is not finished.`,
  }),
  'joined-in-repeat': ({ of, column }: { of: string; column: string }) =>
    `In the repeat of “${of}”, {{${of}.${column}}} says what all its rows say, in every row; {{${column}}} says what this row says.`,
  'unused-variable': ({ key }: { key: string }) => `“${key}” is not used anywhere.`,
  'never-kept': byCase({
    against: ({ condition, outer }: { condition: string; outer: string }) =>
      `“${condition}” can never be kept inside “${outer}”.`,
    constant: ({ condition }: { condition: string }) => `“${condition}” is never kept: its condition asks nothing.`,
    'every-option': ({ condition }: { condition: string }) => `“${condition}” names every option.`,
  }),
  'always-kept': byCase({
    implied: ({ condition }: { condition: string }) =>
      `“${condition}” is always kept here, since what is around it asks the same.`,
    constant: ({ condition }: { condition: string }) => `“${condition}” is always kept: its condition asks nothing.`,
    'every-option': ({ condition }: { condition: string }) => `“${condition}” names every option.`,
  }),
  'unsupported-html': byCase({
    html: ({ html }: { html: string }) => `HTML is kept as text: ${cut(html)}`,
    'link-title': ({ title }: { title: string }) => `A link's title is not kept: “${title}”.`,
  }),
  'unknown-locale': ({ locale, instead }: { locale: string; instead: string }) =>
    `The language “${locale}” is not known here; ${instead} stands in.`,
  'doubled-word': ({ word }: { word: string }) => `“${word}” stands twice.`,
  'doubled-space': ({ count }: { count: number }) => `${count} spaces stand together.`,
  'attachment-missing': ({ text }: { text: string }) => `“${text}” promises an attachment, and there is none.`,
  'weekday-mismatch': byCase({
    'no-day': ({ text }: { text: string }) => `“${text}” is no day of the calendar.`,
    written: ({ day, right, wrong }: { day: string; right: string; wrong: string }) =>
      `${day} is a ${right}, not a ${wrong}.`,
    filled: ({ label, right }: { label: string; right: string }) =>
      `${label} is a ${right}, and another weekday is written before it.`,
  }),
  'long-subject': ({ length, shown }: { length: number; shown: number }) =>
    `The subject has about ${length} characters; most lists show ${shown}.`,
  'missing-alt': () => 'This image has no alternative text.',
  'off-style': ({ colour, use }: { colour: string; use: 'panel' | 'colour' | 'highlight' }) =>
    `The house style has no colour “${colour}”, which ${COLOUR_USES[use]}.`,
  'fact-as-text': ({ text, label }: { text: string; label: string }) =>
    `“${text}” is what the fact “${label}” says; as fixed text it stays when that changes.`,
  'past-date': ({ text }: { text: string }) => `${text} is in the past.`,
  'fixed-date': ({ text }: { text: string }) => `${text} is fixed text: from the day after, this message is wrong.`,
  'stray-value': ({ text }: { text: string }) => `“${text}” is a sample recipient’s, and stands here as fixed text.`,
  'broken-series': ({ how, text }: { how: keyof typeof BROKEN_SERIES; text: string }) =>
    how === 'nothing-before' ? `“${text}” follows what is left out.` : `${BROKEN_SERIES[how]} “${text}”.`,
  'sentence-start': ({ text }: { text: string }) =>
    `A line begins with a small letter: “${cut(text, 40)}”, for its opening is left out.`,
  'vague-link': ({ text }: { text: string }) => `“${text}” does not say where it leads.`,
  'bare-link': byCase({
    shown: () => 'A long address stands bare; words that say what is there read better.',
    unlinked: ({ text }: { text: string }) =>
      `“${cut(text)}” is written but leads nowhere: not every mail program makes it a link.`,
  }),
  'heading-skipped': ({ level, before }: { level: number; before: number }) =>
    `Heading ${level} follows heading ${before}; ${before + 1} is left out.`,
  'table-without-header': () => 'This table has no head that says what its columns hold.',
  'title-as-subject': () => 'The subject is the title. The title is for finding; the recipient reads the subject.',
  'mixed-greeting': byCase({
    twice: ({ second }: { second: string }) => `“${second}” greets a second time in the same message.`,
    apart: ({ greeting, closing }: { greeting: string; closing: string }) =>
      `“${greeting}” and “${closing}” do not go together.`,
  }),
  'a-or-an': ({ written, right }: { written: string; right: string }) => `“${written}” should be “${right}”.`,
  'unbalanced-punctuation': ({ sign, opens }: { sign: string; opens: boolean }) =>
    opens ? `“${sign}” is opened and not closed.` : `“${sign}” closes what was not opened.`,
  'low-contrast': ({ pages, ...contrast }: Contrast & { pages: 'light' | 'dark' }) =>
    contrastIn(contrast, `on ${pages} pages`),
  'lost-look': byCase({
    'dark-colours': ({ share, ...contrast }: Contrast & { share: string }) =>
      contrastIn(contrast, `where a mail program forces dark colours (${share})`),
    'wide-table': ({ width, room, share }: { width: number; room: number; share: string }) =>
      `This table is about ${width} px wide at least; on a small screen (${share}) it has ${room} px and is moved sideways to be read.`,
    'words-in-image': ({ alt, share }: { alt: string; share: string }) =>
      `The image “${cut(alt, 40)}…” seems to carry words. Where images are blocked or there is only text (${share}), its alternative text stands alone: write what matters as text.`,
  }),
  'large-message': ({ bytes }: { bytes: number }) =>
    `The message has ${Math.round(bytes / 1000)} kB of HTML; from about 100 kB mail programs cut it off.`,
  'other-language': byCase({
    'no-passage': ({ what }: { what: string }) => `The original has a passage “${what}” that this version lacks.`,
    'own-passage': ({ what }: { what: string }) => `“${what}” stands only in this version.`,
    'no-tag': ({ tag, words }: { tag: string; words: string }) =>
      `“${words}” lacks ${tag}, which stands there in the original.`,
    'own-tag': ({ tag, words }: { tag: string; words: string }) =>
      `“${words}” has ${tag}, which does not stand there in the original.`,
    'no-variable': ({ key }: { key: string }) => `The original asks for “${key}”, and this version does not.`,
    'own-variable': ({ key }: { key: string }) => `“${key}” is asked for only in this version.`,
    'other-attribute': ({ key, attribute }: { key: string; attribute: string }) =>
      `“${key}” has another “${attribute}” than in the original.`,
    'no-option': ({ key, option }: { key: string; option: string }) =>
      `“${key}” lacks “${option}”, which the original has.`,
    'own-option': ({ key, option }: { key: string; option: string }) =>
      `“${key}” has “${option}” only in this version.`,
  }),
  'review-overdue': ({ review }: { review: string }) => `It was to be reviewed by ${review}.`,
  counted: () => 'Opening this message, and following its links, is counted.',
} as const satisfies Readonly<Record<string, Sentence>>;

const COLOUR_USES = {
  panel: 'a panel asks for',
  colour: 'these words ask for',
  highlight: 'these words are to be highlighted in',
} as const;

const BROKEN_SERIES = {
  begins: 'A line begins with',
  'two-marks': 'There are two marks in a row:',
  ends: 'A series ends with',
  'two-words': 'A series says',
  'nothing-before': '',
} as const;

interface Contrast {
  readonly text: string;
  readonly colour: string;
  readonly ground?: string | undefined;
  /** The ratio in words, such as `2.1`. */
  readonly contrast: string;
  readonly enough: number;
}

const contrastIn = ({ text, colour, ground, contrast, enough }: Contrast, where: string): string =>
  `“${cut(text, 40)}” in ${colour}${ground ? ` on ${ground}` : ''} has a contrast of ${contrast} ${where}; words need ${enough}.`;

type Table = typeof ERRORS & typeof ADVICE;

/** The code of an error. */
export type ErrorCode = keyof typeof ERRORS;
/** The code of a warning or a note. */
export type AdviceCode = keyof typeof ADVICE;
/** The code of any finding. Codes are stable: programs may go by them. */
export type FindingCode = ErrorCode | AdviceCode;

/** What was found, as data: a union by code, each with the fields that its sentence is made from. */
export type FindingData<C extends FindingCode = FindingCode> = {
  [K in C]: { readonly code: K } & FieldsOf<Table[K]>;
}[C];

/** Codes that are always errors. */
export const ERROR_CODES = Object.keys(ERRORS) as readonly ErrorCode[];
/** Codes of the checks that advise rather than stop. */
export const ADVICE_CODES = Object.keys(ADVICE) as readonly AdviceCode[];

const SENTENCES: Table = { ...ERRORS, ...ADVICE };

/** The sentence of what was found, in English. */
export const sentenceOf = (data: FindingData): string => (SENTENCES[data.code] as (fields: unknown) => string)(data);
