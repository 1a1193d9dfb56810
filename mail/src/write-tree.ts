/**
 * Writes a MIME tree as bytes. The mail library builds the tree and its headers; its own writer passes every part
 * through several streams and turns of the event loop, which took most of the time of sending. Everything here is in
 * memory already, so one loop gives the same bytes: `write-tree.test.ts` compares the two.
 */
import type MimeNode from 'nodemailer/lib/mime-node/index.js';
import { encode as base64, wrap as wrapBase64 } from 'nodemailer/lib/base64/index.js';
import { encode as quotedPrintable, wrap as wrapQuotedPrintable } from 'nodemailer/lib/qp/index.js';

/**
 * Larger parts are left to the library: it encodes text in slices of this size, and lets others have their turn between
 * pieces of an attachment.
 */
const LONGEST = 64 * 1024;
const LINE = 76;
const [CR, LF] = [0x0d, 0x0a];

/** The bytes of a tree; undefined where only the library can write it, because a part is large or a stream. */
export function writtenTree(root: MimeNode): Buffer | undefined {
  const parts: (string | Buffer)[] = [];
  if (!write(root, parts)) return undefined;
  const bytes = Buffer.concat(parts.map((part) => (typeof part === 'string' ? Buffer.from(part) : part)));
  const end = bytes.at(-1);
  // A message ends with a line break; of one that ends with half of it, the other half is added.
  return end === LF ? bytes : Buffer.concat([bytes, Buffer.from(end === CR ? '\n' : '\r\n')]);
}

function write(node: MimeNode, into: (string | Buffer)[]): boolean {
  into.push(node.buildHeaders(), '\r\n\r\n');
  if (node.content) {
    const written = contentOf(node.content, node.getTransferEncoding() || '', node.contentType ?? '');
    if (written === undefined) return false;
    into.push(written);
  }
  if (!node.multipart) return true;
  for (const [index, child] of node.childNodes.entries()) {
    into.push(`${index > 0 ? '\r\n' : ''}--${String(node.boundary)}\r\n`);
    if (!write(child, into)) return false;
  }
  into.push(`\r\n--${String(node.boundary)}--\r\n`);
  return true;
}

function contentOf(
  content: NonNullable<MimeNode['content']>,
  encoding: string,
  contentType: string,
): string | Buffer | undefined {
  if (typeof content !== 'string' && !Buffer.isBuffer(content)) return undefined;
  const bytes = typeof content === 'string' ? Buffer.from(content) : content;
  if (bytes.length > LONGEST) return undefined;
  if (encoding === 'base64') return wrapBase64(base64(bytes), LINE);
  if (encoding !== 'quoted-printable') return content;
  // Line breaks that are data, in what is not text, are for the library to tell apart.
  return /^text\//i.test(contentType) ? quoted(bytes) : undefined;
}

/** As the library's stream does it: white space at the very end is encoded by itself, behind the last line. */
function quoted(bytes: Buffer): string {
  let end = bytes.length;
  while (end > 0 && (bytes[end - 1] === 0x20 || bytes[end - 1] === 0x09)) end -= 1;
  const lines = wrapQuotedPrintable(quotedPrintable(bytes.subarray(0, end)), LINE);
  if (end === bytes.length) return lines;
  const last = lines.lastIndexOf('\n') + 1;
  return lines.slice(0, last) + wrapQuotedPrintable(lines.slice(last) + quotedPrintable(bytes.subarray(end)), LINE);
}
