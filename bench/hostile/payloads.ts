/** Bytes that are small to send and were expensive to read. All of them are made here; none is kept as a file. */
import { strToU8, zipSync } from 'fflate';
import type { Block, Inline, TextDocument } from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';

/** Repeats a unit up to about so many bytes. */
export const repeated = (unit: string, bytes: number): Buffer =>
  Buffer.from(unit.repeat(Math.max(1, Math.floor(bytes / Buffer.byteLength(unit)))));

const zipped = (parts: Readonly<Record<string, string | Uint8Array>>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(parts).map(([name, content]) => [name, typeof content === 'string' ? strToU8(content) : content]),
    ),
    { level: 9 },
  );

/** A workbook whose sheet holds these rows, as XML. */
export const workbook = (rows: string): Uint8Array =>
  zipped({
    '[Content_Types].xml':
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
    '_rels/.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
    'xl/_rels/workbook.xml.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/workbook.xml':
      '<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="rId1"/></sheets></workbook>',
    'xl/worksheets/sheet1.xml': `<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows}</sheetData></worksheet>`,
  });

/** One cell in the last column of the last row there is. */
export const farCell = (): Uint8Array => workbook('<row r="1048576"><c r="XFD1048576"><v>1</v></c></row>');
/** Rows that pack to almost nothing. */
export const packedWorkbook = (megabytes: number): Uint8Array =>
  workbook('<row><c><v>1</v></c></row>'.repeat((megabytes * 1_000_000) / 30));
/** A Word document whose text packs to almost nothing. */
export const packedDocument = (megabytes: number): Uint8Array =>
  zipped({
    '[Content_Types].xml':
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
    '_rels/.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    'word/document.xml': `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${'<w:p/>'.repeat((megabytes * 1_000_000) / 6)}</w:body></w:document>`,
  });
/** A library of so many texts. */
export const libraryOf = (count: number): Uint8Array =>
  zipped(
    Object.fromEntries(
      Array.from({ length: count }, (_, at) => [
        `text-${at}.md`,
        `---\nvocabula: 1\nkind: message\ntitle: Text ${at}\nsubject: Hello {{name}}\nvariables:\n  name: { type: text }\n---\nDear {{name}},\n\nThis is text ${at}, with some words of its own.\n`,
      ]),
    ),
  );

const BASE = '---\nvocabula: 1\nkind: message\ntitle: Hostile\nsubject: Hello\nto: "{{recipient.email}}"\n---\nWords\n';
export const documentOf = (source = BASE): TextDocument => readText(source).document;

/** A document with that body. */
export const withBody = (body: readonly Block[], source = BASE): TextDocument => {
  const document = documentOf(source);
  return {
    ...document,
    content: document.content.map((part) => (part.type === 'body' ? { ...part, content: body } : part)),
  } as TextDocument;
};
const text = (words: string, bold = false): Inline =>
  ({ type: 'text', text: words, ...(bold ? { marks: [{ type: 'bold' }] } : {}) }) as Inline;
export const paragraph = (...content: readonly Inline[]): Block => ({ type: 'paragraph', content }) as Block;
export const words = (value: string): TextDocument => withBody([paragraph(text(value))]);

const tableBlock = (rows: number, columns: number, span: number): Block =>
  ({
    type: 'table',
    content: Array.from({ length: rows }, () => ({
      type: 'tableRow',
      attrs: { when: [] },
      content: Array.from({ length: columns }, () => ({
        type: 'tableCell',
        attrs: { align: null, colspan: span, rowspan: span, colwidth: null },
        content: [paragraph(text('x'))],
      })),
    })),
  }) as unknown as Block;
/** A table of so many rows and columns whose cells all span that much. */
export const tableOf = (rows: number, columns: number, span: number): TextDocument =>
  withBody([tableBlock(rows, columns, span)]);
/** Tables of two cells that span, each as large a grid as one table may be. */
export const spanningTables = (count: number): TextDocument =>
  withBody(Array.from({ length: count }, () => tableBlock(1, 2, 70)));
export const runs = (count: number): TextDocument =>
  withBody([paragraph(...Array.from({ length: count }, (_, at) => text('a', at % 2 === 0)))]);
export const paragraphs = (count: number): TextDocument =>
  withBody(Array.from({ length: count }, () => paragraph(text('a b'))));

/** Calculated values, each of which goes through a list within a list. */
export const calculated = (count: number): string => {
  const values = Array.from(
    { length: count },
    (_, at) => `  v${at}: { type: number, value: "sum(rows.map(a, sum(rows.map(b, a.n * b.n + ${at}.0))))" }\n`,
  ).join('');
  return `---\nvocabula: 1\nkind: message\ntitle: Calculated\nsubject: Hello\nto: "{{recipient.email}}"\nvariables:\n  rows:\n    type: list\n    columns:\n      n: { type: number }\n${values}---\n${Array.from({ length: count }, (_, at) => `{{v${at}}} `).join('')}\n`;
};

export const mail = (body: string, type = 'text/html'): Buffer =>
  Buffer.from(
    `From: Ann <ann@x.example>\r\nTo: me@larkmoor.example\r\nSubject: Hello\r\nMIME-Version: 1.0\r\nContent-Type: ${type}\r\n\r\n${body}\r\n`,
  );
export const manyParts = (count: number): Buffer =>
  mail(
    `${Array.from({ length: count }, () => '--b\r\nContent-Type: text/plain\r\n\r\nx\r\n').join('')}--b--\r\n`,
    'multipart/mixed; boundary=b',
  );
export const mailbox = (bytes: number): Buffer => {
  const one = 'From a Thu Jan  1 00:00:00 2026\nFrom: Bo <bo@x.example>\nSubject: Two\n\n';
  const count = 400;
  const filler = 'Some words that fill a line of this mail.\n'.repeat(Math.floor(bytes / count / 42));
  return Buffer.from(Array.from({ length: count }, () => `${one}${filler}\n`).join(''));
};
export const csv = (bytes: number): Buffer =>
  Buffer.from(
    `email,first_name,last_name,note\n${Array.from({ length: Math.floor(bytes / 60) }, (_, at) => `p${at}@x.example,Ann,Lee ${at},some words of a note here`).join('\n')}\n`,
  );
