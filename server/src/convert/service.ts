/** Texts out of files that people have: mail, Word documents, pages, plain text, Markdown, and our own format. */
import { MAX_ASSET, type Converted } from '@vocabula/contract';
import {
  ADDRESS_PARTS,
  emptyDocument,
  hasErrors,
  normalise,
  placeInWords,
  type Block,
  type Inline,
  type Part,
  type TextDocument,
} from '@vocabula/core';
import { HtmlProblem, readHtml } from '@vocabula/core/html';
import { readLine, readText } from '@vocabula/core/markdown';
import { looksLikeMarkdown, readMarkdown, readPlain } from '@vocabula/core/plain';
import { decodeText } from '@vocabula/core/tables';
import { MailProblem, readEml, type ReadMail } from '@vocabula/mail';
import type { AssetService } from '../assets/service.js';
import { imageType } from '../assets/sniff.js';
import { RequestProblem } from '../http/problem.js';
import type { Asker } from '../people/asker.js';
import { docxToHtml } from './docx.js';

const NAMES = {
  eml: 'mail',
  docx: 'Word document',
  html: 'page',
  htm: 'page',
  md: 'Markdown',
  txt: 'plain text',
} as const;
const problem = (message: string, code = 'bad-file', status: 413 | 422 = 422): RequestProblem =>
  new RequestProblem(status, code, message);

/** Images that were found inside a file, by what its HTML calls them. */
type Found = ReadonlyMap<string, { readonly name: string; readonly content: Uint8Array }>;

export class ConvertService {
  constructor(private readonly assets: AssetService) {}

  /** Reads a file into a text without a title. Nothing but the images and attachments it brings is kept. */
  async convert(name: string, bytes: Uint8Array, asker: Asker): Promise<Converted> {
    const ending = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';
    if (bytes.length === 0) throw problem('The file is empty.');
    const title = name
      .replace(/^.*[/\\]/, '')
      .replace(/\.[a-z0-9]+$/i, '')
      .replace(/[_-]+/g, ' ');
    switch (ending) {
      case 'eml':
        return this.fromMail(bytes, asker);
      case 'docx': {
        const { html, notes } = await docxToHtml(bytes);
        return this.fromHtml(html, new Map(), title, notes, asker);
      }
      case 'html':
      case 'htm':
        return this.fromHtml(textOf(bytes), new Map(), title, [], asker);
      case 'md':
        return fromMarkdown(textOf(bytes), title);
      case 'txt': {
        const text = textOf(bytes);
        return converted(looksLikeMarkdown(text) ? readMarkdown(text) : readPlain(text), title);
      }
      default:
        throw problem(
          `A text can be started from ${[...new Set(Object.values(NAMES))].join(', ')} (${Object.keys(NAMES).join(', ')}), not from “${name}”.`,
        );
    }
  }

  private async fromHtml(
    html: string,
    found: Found,
    title: string,
    notes: readonly string[],
    asker: Asker,
  ): Promise<Converted> {
    const { blocks, notes: more } = await this.readHtml(html, found, asker);
    const heading = /<title[^>]*>([^<]{1,200})<\/title>/i.exec(html)?.[1]?.replace(/\s+/g, ' ').trim();
    return converted(blocks, heading || title, [...notes, ...more]);
  }

  /** Reads HTML twice: once to learn which images it holds, and, when those are kept, to name them. */
  private async readHtml(
    html: string,
    found: Found,
    asker: Asker,
  ): Promise<{ readonly blocks: readonly Block[]; readonly notes: readonly string[] }> {
    try {
      const wanted = new Set<string>();
      readHtml(html, { image: (source) => void wanted.add(source) });
      const kept = new Map<string, string>();
      for (const source of wanted) {
        const image = imageOf(source, found);
        if (!image || imageType(image.content) === undefined) continue;
        const asset = await this.assets.add(image.name, image.content, false, asker).catch(() => undefined);
        if (asset) kept.set(source, asset.path);
      }
      const { blocks, imagesLeftOut } = readHtml(html, { image: (source) => kept.get(source) });
      return { blocks, notes: imagesLeftOut > 0 ? [`${imagesLeftOut} images could not be brought along.`] : [] };
    } catch (error) {
      if (error instanceof HtmlProblem) throw problem(error.message, 'too-large', 413);
      throw error;
    }
  }

  private async fromMail(bytes: Uint8Array, asker: Asker): Promise<Converted> {
    const mail = await readEml(bytes).catch((error: unknown) => {
      if (error instanceof MailProblem) throw problem(error.message);
      throw error;
    });
    const found = new Map(mail.files.flatMap((file) => (file.cid ? [[`cid:${file.cid}`, file] as const] : [])));
    const { blocks, notes } =
      mail.html === undefined
        ? { blocks: readPlain(mail.text ?? ''), notes: [] }
        : await this.readHtml(mail.html, found, asker);
    const shown = new Set([...(mail.html ?? '').matchAll(/cid:([^"'\s)>]+)/g)].map(([, cid = '']) => cid));
    const files = mail.files.filter(({ cid }) => cid === undefined || !shown.has(cid));
    const size = files.reduce((sum, { content }) => sum + content.length, 0);
    if (size > MAX_ASSET)
      throw problem(
        `Its attachments have ${Math.round(size / 1_000_000)} MB together; ${MAX_ASSET / 1_000_000} MB at most are taken.`,
        'too-large',
        413,
      );
    const attachments: { readonly file: string; readonly name: string }[] = [];
    const refused: string[] = [];
    for (const file of files) {
      const asset = await this.assets.add(file.name, file.content, false, asker).catch(() => undefined);
      if (asset) attachments.push({ file: asset.path, name: file.name });
      else refused.push(file.name);
    }
    return {
      ...converted(blocks, mail.subject, [
        ...notes,
        ...(refused.length > 0 ? [`Not taken: ${refused.join(', ')}.`] : []),
        ...(mail.from ? [`It came from ${mail.from}; who sends is not part of a text.`] : []),
      ]),
      document: withEnvelope(documentOf(blocks), mail, attachments),
    };
  }
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
