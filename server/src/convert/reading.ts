/**
 * Reading of files that texts are started from: mail, Word documents, pages, plain text, Markdown, and our own format.
 * Run in a worker thread, twice where a file brings others: once to find them, once to read with the paths they got.
 */
import type { Converted } from '@vocabula/contract';
import { MAX_ASSET } from '@vocabula/contract';
import {
  ADDRESS_PARTS,
  beyondBounds,
  emptyDocument,
  hasErrors,
  normalise,
  placeInWords,
  type Block,
  type House,
  type Inline,
  type Part,
  type TextDocument,
} from '@vocabula/core';
import { HtmlProblem, nearestColour, readHtml } from '@vocabula/core/html';
import { readLine, readText } from '@vocabula/core/markdown';
import { looksLikeMarkdown, readMarkdown, readPlain } from '@vocabula/core/plain';
import { decodeText } from '@vocabula/core/tables';
import { MailProblem, readEml, type ReadMail } from '@vocabula/mail';
import { imageType } from '../assets/sniff.js';
import { RequestProblem } from '../http/problem.js';
import { docxToHtml, odtAsHtml } from './word-processors.js';

const NAMES = {
  eml: 'mail',
  docx: 'Word document',
  odt: 'OpenDocument text',
  html: 'page',
  htm: 'page',
  md: 'Markdown',
  txt: 'plain text',
} as const;
const problem = (message: string, code = 'bad-file', status: 413 | 422 = 422): RequestProblem =>
  new RequestProblem(status, code, message);

/** Images that were found inside a file, by what its HTML calls them. */
type Found = ReadonlyMap<string, { readonly name: string; readonly content: Uint8Array }>;

/** A file that another brought along. */
export interface BroughtFile {
  /** What the file calls it: the source of an image, or its name for an attachment. */
  readonly source: string;
  readonly name: string;
  readonly content: Uint8Array;
}
/** What a file brings along, before anything of it is kept. */
export interface Brought {
  readonly images: readonly BroughtFile[];
  readonly attachments: readonly BroughtFile[];
}
/** Under which paths what was brought is kept, by its source; what is not among them is left out. */
export interface KeptFiles {
  readonly images: Readonly<Record<string, string>>;
  readonly attachments: Readonly<Record<string, string>>;
}
/** Colours of the house, which stand for those that words are highlighted with. */
type Colours = House['style']['colours'];
export interface FileToRead {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const endingOf = (name: string): string => /\.([a-z0-9]{1,8})$/i.exec(name)?.[1]?.toLowerCase() ?? '';
const titleOf = (name: string): string =>
  name
    .slice(-300)
    .replace(/^.*[/\\]/, '')
    .replace(/\.[a-z0-9]+$/i, '')
    .replace(/[_-]+/g, ' ');

/** The HTML that a file is read from, with the images it holds; undefined for a file that is none. */
async function htmlOf({
  name,
  bytes,
}: FileToRead): Promise<
  | { readonly html: string; readonly found: Found; readonly notes: readonly string[]; readonly mail?: ReadMail }
  | undefined
> {
  switch (endingOf(name)) {
    case 'docx':
    case 'odt': {
      const { html, notes } = await (endingOf(name) === 'docx' ? docxToHtml : odtAsHtml)(bytes);
      return { html, found: new Map(), notes };
    }
    case 'html':
    case 'htm':
      return { html: textOf(bytes), found: new Map(), notes: [] };
    case 'eml': {
      const mail = await readEml(bytes).catch((error: unknown) => {
        if (error instanceof MailProblem) throw problem(error.message);
        throw error;
      });
      const found = new Map(mail.files.flatMap((file) => (file.cid ? [[`cid:${file.cid}`, file] as const] : [])));
      return { html: mail.html ?? '', found, notes: [], mail };
    }
    default:
      return undefined;
  }
}

/** What a file brings along: the images it shows and, of mail, what is attached. */
export async function broughtBy(file: FileToRead): Promise<Brought> {
  demandReadable(file);
  const read = await htmlOf(file);
  if (!read) return { images: [], attachments: [] };
  const images: BroughtFile[] = [];
  const seen = new Set<string>();
  htmlBlocks(read.html, (source) => {
    if (seen.has(source)) return undefined;
    seen.add(source);
    const image = imageOf(source, read.found);
    if (image && imageType(image.content) !== undefined) images.push({ source, ...image });
    return undefined;
  });
  return { images, attachments: read.mail ? attachmentsOf(read.mail) : [] };
}

function attachmentsOf({ html = '', files }: ReadMail): BroughtFile[] {
  const shown = new Set([...html.matchAll(/cid:([^"'\s)>]+)/g)].map(([, cid = '']) => cid));
  const attached = files.filter(({ cid }) => cid === undefined || !shown.has(cid));
  const size = attached.reduce((sum, { content }) => sum + content.length, 0);
  if (size > MAX_ASSET)
    throw problem(
      `Its attachments have ${Math.round(size / 1_000_000)} MB together; ${MAX_ASSET / 1_000_000} MB at most are taken.`,
      'too-large',
      413,
    );
  return attached.map(({ name, content }, at) => ({ source: `${at}`, name, content }));
}

/**
 * Reads a file into a text without a title.
 * @param given `kept` says where what it brings is kept
 * @throws RequestProblem for what cannot be read, or comes to more than a text may have
 */
export async function readAs(
  given: FileToRead & { readonly kept: KeptFiles; readonly colours: Colours },
): Promise<Converted> {
  const read = await readWhole(given);
  const beyond = beyondBounds(read.document);
  if (beyond !== undefined) throw problem(beyond, 'too-large', 413);
  return read;
}

async function readWhole(
  given: FileToRead & { readonly kept: KeptFiles; readonly colours: Colours },
): Promise<Converted> {
  const { name, bytes, kept, colours } = given;
  demandReadable(given);
  const title = titleOf(name);
  const read = await htmlOf(given);
  if (read?.mail) return mailAsText(read.mail, kept, colours);
  if (read) {
    const { blocks, notes } = htmlBlocks(read.html, (source) => kept.images[source], colours);
    const heading = /<title[^>]{0,200}>([^<]{1,200})<\/title>/i.exec(read.html.slice(0, 20_000))?.[1];
    return converted(blocks, heading?.replace(/\s+/g, ' ').trim() || title, [...read.notes, ...notes]);
  }
  const text = textOf(bytes);
  if (endingOf(name) === 'md') return fromMarkdown(text, title);
  return converted(looksLikeMarkdown(text) ? readMarkdown(text) : readPlain(text), title);
}

function mailAsText(mail: ReadMail, kept: KeptFiles, colours: Colours): Converted {
  const { blocks, notes } =
    mail.html === undefined
      ? { blocks: readPlain(mail.text ?? ''), notes: [] }
      : htmlBlocks(mail.html, (source) => kept.images[source], colours);
  const brought = attachmentsOf(mail);
  const attachments = brought.flatMap(({ source, name }) => {
    const file = kept.attachments[source];
    return file === undefined ? [] : [{ file, name }];
  });
  const refused = brought.filter(({ source }) => kept.attachments[source] === undefined).map(({ name }) => name);
  return {
    ...converted(blocks, mail.subject, [
      ...notes,
      ...(refused.length > 0 ? [`Not taken: ${refused.join(', ')}.`] : []),
      ...(mail.from ? [`It came from ${mail.from}; who sends is not part of a text.`] : []),
    ]),
    document: withEnvelope(documentOf(blocks), mail, attachments),
  };
}

/** The blocks of HTML. @param image the path under which an image is kept; undefined leaves it out */
function htmlBlocks(
  html: string,
  image: (source: string) => string | undefined,
  colours: Colours = {},
): { readonly blocks: readonly Block[]; readonly notes: readonly string[] } {
  try {
    const { blocks, imagesLeftOut } = readHtml(html, { image, highlight: (colour) => nearestColour(colour, colours) });
    return { blocks, notes: imagesLeftOut > 0 ? [`${imagesLeftOut} images could not be brought along.`] : [] };
  } catch (error) {
    if (error instanceof HtmlProblem) throw problem(error.message, 'too-large', 413);
    throw error;
  }
}

function demandReadable({ name, bytes }: FileToRead): void {
  if (bytes.length === 0) throw problem('The file is empty.');
  if (!(endingOf(name) in NAMES))
    throw problem(
      `A text can be started from ${[...new Set(Object.values(NAMES))].join(', ')} (${Object.keys(NAMES).join(', ')}), not from “${name}”.`,
    );
}

/** What a source names, if the file holds it. */
function imageOf(source: string, found: Found): { readonly name: string; readonly content: Uint8Array } | undefined {
  const [, type = '', data = ''] = /^data:image\/([a-z0-9.+-]+);base64,([A-Za-z0-9+/=\s]+)$/.exec(source) ?? [];
  if (data !== '') return { name: `image.${type}`, content: Buffer.from(data, 'base64') };
  return found.get(source);
}

/** Text in any of the encodings that tables are read in. */
function textOf(bytes: Uint8Array): string {
  const { text } = decodeText(bytes);
  if (text.includes('\0')) throw problem('This file holds NUL bytes, so it is no text.');
  if (text.length > 2_000_000) throw problem('This is more than 2 MB of text.', 'too-large', 413);
  return text;
}

/** A file of our own format is taken as it is; any other is a body. */
function fromMarkdown(text: string, title: string): Converted {
  if (!/^\uFEFF?---\r?\n[\s\S]*?^vocabula:/m.test(text)) return converted(readMarkdown(text), title);
  const { document, findings } = readText(text);
  const first = findings.find((finding) => finding.level === 'error');
  if (first && hasErrors(findings)) throw problem(`${placeInWords(first.place)}: ${first.message}`);
  return { document, suggestedTitle: document.attrs.front.title, notes: [] };
}

function documentOf(blocks: readonly Block[]): TextDocument {
  const empty = emptyDocument({ kind: 'message', title: '' });
  return normalise({
    ...empty,
    content: empty.content.map((part): Part => (part.type === 'body' ? { ...part, content: blocks } : part)),
  });
}

const converted = (blocks: readonly Block[], suggestedTitle: string, notes: readonly string[] = []): Converted => ({
  document: documentOf(blocks),
  suggestedTitle: suggestedTitle.slice(0, 200),
  notes,
});

/** A text with the envelope of a mail. Braces in it are words: nobody meant them as tags. */
function withEnvelope(
  document: TextDocument,
  mail: ReadMail,
  attachments: readonly { readonly file: string; readonly name: string }[],
): TextDocument {
  const line = (text: string): { content?: readonly Inline[] } => {
    const content = readLine(text.replace(/\{\{/g, '\\{{'));
    return content.length > 0 ? { content } : {};
  };
  const given = { to: mail.to, cc: mail.cc, bcc: mail.bcc, reply_to: mail.replyTo };
  return normalise({
    ...document,
    content: document.content.map((part): Part => {
      if (part.type === 'subject') return { type: 'subject', ...line(mail.subject) };
      const name = ADDRESS_PARTS.find((each) => each === part.type);
      if (name && given[name].length > 0)
        return { type: name, content: given[name].map((address) => ({ type: 'address', ...line(address) })) };
      return part.type === 'attachments' && attachments.length > 0
        ? {
            type: 'attachments',
            content: attachments.map(({ file, name: words }) => ({
              type: 'attachment',
              attrs: { file },
              ...line(words),
            })),
          }
        : part;
    }),
  });
}
