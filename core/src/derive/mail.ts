/** Past mails, prepared for comparison: quoted text and signatures are set aside, the rest is split into units. */
import { MAX_HTML, readHtml } from '../formats/html/index.js';
import { readPlain } from '../formats/plain/index.js';
import type { Block, Cell } from '../template/document.js';
import { sentenceSegmenter } from '../values/intl.js';
import { readMailbox } from '../values/mailbox.js';
import { bodyText } from '../words/lines.js';
import { token, tokensOfLine, tokensOfText, trimmed, type Token } from './tokens.js';

/** A sent message with its headers. */
interface MailHead {
  /** Identifies it to the user: a file name, or a day and a recipient. */
  readonly file: string;
  readonly subject: string;
  /** Mailboxes: `Ann Lee <ann@x.example>`. */
  readonly from?: string | undefined;
  readonly to: readonly string[];
  /** The ISO day it was written on. */
  readonly day?: string | undefined;
}
/** A sent message with its body as HTML, as text, or both. */
export interface PastWords extends MailHead {
  readonly html?: string | undefined;
  readonly text?: string | undefined;
}
/** A sent message with its body as blocks. */
export interface PastMail extends MailHead {
  readonly body: readonly Block[];
}

/** A paragraph, list item or table row: what is aligned between mails. */
export interface Unit {
  /** Its form: `paragraph`, `heading 2`, `bullet`, `number`, `row 3`, `head 3`, or the type of a block kept whole. */
  readonly shape: string;
  readonly tokens: readonly Token[];
  readonly sentences: readonly (readonly Token[])[];
  /** Only for a block that is compared as a whole. */
  readonly block?: Block;
}
/** A mail, ready for comparison. */
export interface MailContent {
  readonly mail: PastMail;
  readonly subject: readonly Token[];
  readonly units: readonly Unit[];
  readonly recipient: Readonly<Record<string, string>>;
  readonly sender: Readonly<Record<string, string>>;
  readonly today: string;
  /** Quoted text and signatures, line by line. */
  readonly setAside: readonly string[];
  /** The signature among it, line by line. */
  readonly signature: readonly string[];
  /** Units beyond the longest mail that is compared; none for ordinary mails. */
  readonly beyond: number;
}

/** Reads the body of a message; HTML takes precedence over text. A body over 2 MB counts as empty. */
export function pastMailOf({ html, text = '', ...mail }: PastWords): PastMail {
  if ((html ?? text).length > MAX_HTML) return { ...mail, body: [] };
  return { ...mail, body: html === undefined ? readPlain(text) : readHtml(html).blocks };
}

/** The day that relative dates are read from when a mail has no date of its own. */
const SOME_DAY = '2026-01-01';
/** Limits that keep alignment in bounds; ordinary mails are far below them. */
const [MOST_UNITS, MOST_TOKENS] = [400, 3000];
/** How mail programs introduce what they quote, in several languages. */
const QUOTE_INTRODUCTION =
  /^(?:(?:on .{4,120} wrote|am .{4,120} schrieb.{0,80}|le .{4,120} a écrit\s?|el .{4,120} escribió|il .{4,120} ha scritto|op .{4,120} schreef.{0,80}):|-{2,} ?(?:original message|ursprüngliche nachricht|message d.origine|forwarded message) ?-{2,})$/i;

/** What the application itself puts around a message: the house's header and footer, and a signature, line by line. */
export interface FramePart {
  readonly what: 'header' | 'footer' | 'signature';
  readonly lines: readonly string[];
}

/** Prepares a mail. Never throws. @param frame what is set apart where a mail begins or ends with it, outermost first */
export function mailContent(mail: PastMail, locale: string, frame: readonly FramePart[] = []): MailContent {
  const unquoted = withoutQuotes(mail.body);
  const { own, framed, signed } = withoutFrame(unquoted.own, frame);
  const setAside = [...framed, ...unquoted.setAside];
  const signature = signed.length > 0 ? signed : unquoted.signature;
  const units = own.flatMap((block) => unitsOf(block, locale));
  return {
    mail,
    subject: tokensOfText(mail.subject.trim().replace(/\s+/g, ' '), [], locale),
    units: units.slice(0, MOST_UNITS),
    recipient: personFields(mail.to[0]),
    sender: senderFields(mail.from),
    today: mail.day ?? SOME_DAY,
    setAside,
    signature,
    beyond: Math.max(0, units.length - MOST_UNITS),
  };
}

/** What a mail says in its own words: without what it quotes, and without a signature below its `--` line. */
export const ownWords = (mail: Pick<PastWords, 'html' | 'text'>): string =>
  withoutQuotes(pastMailOf({ file: '', subject: '', to: [], ...mail }).body)
    .own.flatMap(bodyText)
    .join('\n');

/** What organisations put below all mail: for whom it was meant, in the usual languages. */
const DISCLAIMER =
  /\b(?:confidential|privileged|intended (?:only|solely)|intended recipient|vertraulich\w*|confidentiel\w*|confidencial\w*|riservat\w*)\b/i;
/** Words that a disclaimer has at least: less is something that the mail itself says. */
const DISCLAIMING = 15;
const isDisclaimer = (block: Block | undefined): boolean => {
  const words = block?.type === 'paragraph' ? bodyText(block).join(' ') : '';
  return DISCLAIMER.test(words) && words.split(/\s+/).length >= DISCLAIMING;
};

/**
 * Sets aside a signature below its `--` line, a quotation with its introduction, and disclaimers and quotations at the
 * end.
 */
function withoutQuotes(body: readonly Block[]): { own: readonly Block[]; setAside: string[]; signature: string[] } {
  const firstLine = (block: Block | undefined): string => (block ? (bodyText(block)[0] ?? '').trim() : '');
  const introduced = body.findIndex(
    (block) => QUOTE_INTRODUCTION.test(firstLine(block)) || /^--$/.test(firstLine(block)),
  );
  let end = introduced < 0 ? body.length : introduced;
  // A quotation with words of one's own below it is part of the mail.
  const isQuoted = (block: Block | undefined): boolean =>
    block?.type === 'blockquote' || firstLine(block).startsWith('>');
  while (end > 0 && (isQuoted(body[end - 1]) || isDisclaimer(body[end - 1]))) end -= 1;
  const after = body.slice(end);
  const stop = after.findIndex(
    (block) => isQuoted(block) || isDisclaimer(block) || QUOTE_INTRODUCTION.test(firstLine(block)),
  );
  const signed = (stop < 0 ? after : after.slice(0, stop)).flatMap(bodyText).map((words) => words.trim());
  const signature = signed[0] === '--' ? signed.slice(1).filter((words) => words !== '') : [];
  return { own: body.slice(0, end), setAside: after.flatMap(bodyText), signature };
}

function withoutFrame(
  body: readonly Block[],
  frame: readonly FramePart[],
): { readonly own: readonly Block[]; readonly framed: readonly string[]; readonly signed: readonly string[] } {
  let own = body;
  let signed: readonly string[] = [];
  const framed: string[] = [];
  for (const { what, lines } of frame) {
    const reversed = what === 'header' ? own : own.toReversed();
    const count = blocksSaying(reversed, what === 'header' ? lines : lines.toReversed(), what !== 'header');
    if (count === 0) continue;
    framed.push(...lines);
    if (what === 'signature') signed = lines;
    own = what === 'header' ? own.slice(count) : own.slice(0, own.length - count);
  }
  return { own, framed, signed };
}
/** How many of the first blocks say just these lines; 0 where they say anything else. */
function blocksSaying(blocks: readonly Block[], lines: readonly string[], backwards: boolean): number {
  let at = 0;
  for (const [count, block] of blocks.entries()) {
    const said = bodyText(block).map((line) => line.trim().replace(/\s+/g, ' '));
    for (const line of backwards ? said.reverse() : said) {
      if (line === '') continue;
      if (line !== lines[at]) return 0;
      at += 1;
    }
    if (at === lines.length) return at === 0 ? 0 : count + 1;
  }
  return 0;
}
/** What a part of a frame says, line by line, as it is compared. @param html as it is rendered by itself */
export const frameLines = (html: string): string[] =>
  ownWords({ html })
    .split('\n')
    .map((line) => line.trim().replace(/\s+/g, ' '))
    .filter((line) => line !== '');

/** The recipient fields that a mailbox gives. */
function personFields(mailbox: string | undefined): Record<string, string> {
  const read = mailbox === undefined ? undefined : readMailbox(mailbox);
  if (!read) return {};
  const name = read.name.trim();
  const [first = '', ...rest] = name.split(/\s+/);
  return {
    email: read.address,
    ...(name === '' ? {} : { name, first_name: first, ...(rest.length > 0 ? { last_name: rest.join(' ') } : {}) }),
  };
}
const senderFields = (mailbox: string | undefined): Record<string, string> =>
  Object.fromEntries(Object.entries(personFields(mailbox)).filter(([field]) => field === 'email' || field === 'name'));

/** Splits a block into units. A block with a structure that is not aligned stays whole. */
export function unitsOf(block: Block, locale: string): Unit[] {
  switch (block.type) {
    case 'paragraph':
      return lineUnit(block, `paragraph${layoutKey(block.attrs)}`, tokensOfLine(block.content ?? [], locale), locale);
    case 'heading':
      return lineUnit(block, `heading ${block.attrs.level}`, tokensOfLine(block.content ?? [], locale), locale);
    case 'bulletList':
    case 'orderedList': {
      const simple = block.content.every(({ content }) => content.length === 1 && content[0]?.type === 'paragraph');
      if (!simple) return [wholeUnit(block)];
      const shape = block.type === 'bulletList' ? 'bullet' : 'number';
      return block.content.flatMap(({ content: [paragraph] }) =>
        paragraph?.type === 'paragraph'
          ? lineUnit(paragraph, shape, tokensOfLine(paragraph.content ?? [], locale), locale)
          : [],
      );
    }
    case 'table': {
      const width = block.content[0]?.content.length ?? 0;
      const plain = block.content.every(
        ({ content }) =>
          content.length === width && content.every(({ attrs }) => attrs.colspan === 1 && attrs.rowspan === 1),
      );
      return plain && width > 0 ? block.content.map(({ content }) => rowUnit(content, locale)) : [wholeUnit(block)];
    }
    case 'comment':
      return [];
    default:
      return [wholeUnit(block)];
  }
}
const layoutKey = (attrs: { readonly align?: unknown; readonly indent?: unknown } = {}): string =>
  JSON.stringify(Object.fromEntries(Object.entries(attrs).filter(([, value]) => Boolean(value))));

function lineUnit(block: Block, shape: string, tokens: readonly Token[], locale: string): Unit[] {
  if (tokens.length === 0) return [];
  return tokens.length > MOST_TOKENS ? [wholeUnit(block)] : [{ shape, tokens, sentences: sentences(tokens, locale) }];
}
function rowUnit(cells: readonly Cell[], locale: string): Unit {
  const head = cells.every(({ type }) => type === 'tableHeader');
  const tokens = cells.flatMap(({ content: [paragraph] }, at) => {
    const own = tokensOfLine(paragraph.content ?? [], locale);
    // Header cells are bold by themselves.
    const plain = head ? own.map((each) => token(each.text, each.kind, each.marks.filter(isNotBold))) : own;
    return at > 0 ? [token('', 'cell'), ...plain] : plain;
  });
  const aligned = cells.map(({ attrs }) => attrs.align ?? '').join(',');
  return { shape: `${head ? 'head' : 'row'} ${cells.length} ${aligned}`, tokens, sentences: [tokens] };
}
const isNotBold = ({ type }: { readonly type: string }): boolean => type !== 'bold';
/** One token that reads as the block's text and is equal only for equal blocks. */
function wholeUnit(block: Block): Unit {
  const text = bodyText(block).join('\n');
  const tokens = [{ ...token(text, 'sign'), key: JSON.stringify(block) }];
  return { shape: block.type, tokens, sentences: [tokens], block };
}

/** The sentences of a line. White space between two sentences belongs to the second, so that it goes with it. */
export function sentences(tokens: readonly Token[], locale: string): Token[][] {
  const text = tokens.map((each) => each.text).join('');
  const starts = new Set([...sentenceSegmenter(locale).segment(text)].map(({ index }) => index));
  const out: Token[][] = [];
  let [at, pending] = [0, false];
  for (const each of tokens) {
    // A sentence that would begin within a token begins after it.
    for (let index = at; index < at + Math.max(1, each.text.length); index += 1) pending ||= starts.has(index);
    const last = out.at(-1);
    if (last && (!pending || trimmed(last).length === 0)) last.push(each);
    else out.push([...(last ? takeTrailingBlanks(last) : []), each]);
    pending = false;
    at += each.text.length;
  }
  return out;
}
function takeTrailingBlanks(sentence: Token[]): Token[] {
  const length = sentence.indexOf(trimmed(sentence).at(-1) as Token) + 1;
  return sentence.splice(length);
}
