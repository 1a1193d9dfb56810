/** Files that texts are started from, sound and unsound. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync, strToU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { check, compile, render, type TextDocument } from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';
import type { Converted, Starter } from '@vocabula/contract';
import { start, type Started } from '../testing/start.js';

let server: Started;
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.stop());

const convert = (name: string, bytes: Uint8Array | string) =>
  server.call
    .post(`/api/convert?name=${encodeURIComponent(name)}`)
    .set('content-type', 'application/octet-stream')
    .send(Buffer.from(bytes as string));
const bodyOf = (document: TextDocument): string => (writeText(document).split('---\n')[2] ?? '').trimEnd();
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** Whether Python's library of OpenDocument files is here. */
const hasOdf = spawnSync('/usr/bin/python3', ['-c', 'import odf']).status === 0;
/** A document as that library writes it. */
function writtenOdt(): Uint8Array {
  const path = join(mkdtempSync(join(tmpdir(), 'odt-')), 'a.odt');
  const write = `
import sys
from odf.opendocument import OpenDocumentText
from odf.style import Style, TextProperties, ParagraphProperties
from odf.text import H, P, Span, A, LineBreak, List, ListItem, ListStyle, ListLevelStyleNumber, Note, NoteBody
from odf.table import Table, TableColumn, TableHeaderRows, TableRow, TableCell
doc = OpenDocumentText()
def style(name, family, *properties):
    made = Style(name=name, family=family)
    for each in properties: made.addElement(each)
    doc.automaticstyles.addElement(made)
    return made
bold = style('T1', 'text', TextProperties(fontweight='bold'))
italic = style('T2', 'text', TextProperties(fontstyle='italic'))
under = style('T3', 'text', TextProperties(textunderlinestyle='solid'))
pen = style('T4', 'text', TextProperties(backgroundcolor='#ffff00'))
middle = style('P1', 'paragraph', ParagraphProperties(textalign='center'))
numbers = ListStyle(name='L1'); numbers.addElement(ListLevelStyleNumber(level=1, numformat='1')); doc.automaticstyles.addElement(numbers)
doc.text.addElement(H(outlinelevel=1, text='Plan & map'))
p = P(text='Dear '); p.addElement(Span(stylename=bold, text='[Name]')); p.addText(', '); p.addElement(Span(stylename=italic, text='welcome')); p.addText(' ')
p.addElement(Span(stylename=under, text='here')); p.addElement(LineBreak()); p.addText('and '); p.addElement(A(href='https://larkmoor.example/visit', text='our page')); p.addText('.')
note = Note(noteclass='footnote'); body = NoteBody(); body.addElement(P(text='left out')); note.addElement(body); p.addElement(note)
doc.text.addElement(p)
doc.text.addElement(P(stylename=middle, text='In the middle'))
p = P(text='On '); p.addElement(Span(stylename=pen, text='Friday 4 June')); doc.text.addElement(p)
items = List()
for words in ('one', 'two'):
    item = ListItem(); item.addElement(P(text=words)); items.addElement(item)
inner = List(stylename=numbers)
for words in ('first', 'second'):
    sub = ListItem(); sub.addElement(P(text=words)); inner.addElement(sub)
item.addElement(inner)
doc.text.addElement(items)
table = Table(); table.addElement(TableColumn(numbercolumnsrepeated=2))
head = TableHeaderRows(); table.addElement(head)
for parent, cells in ((head, ('Day', 'Gate')), (table, ('Monday', 'north'))):
    row = TableRow(); parent.addElement(row)
    for words in cells:
        cell = TableCell(); cell.addElement(P(text=words)); row.addElement(cell)
doc.text.addElement(table)
doc.save(sys.argv[1])
`;
  const done = spawnSync('/usr/bin/python3', ['-c', write, path], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr);
  return readFileSync(path);
}

const docx = (xml: string, more: Record<string, Uint8Array> = {}): Uint8Array =>
  zipSync({
    '[Content_Types].xml': strToU8(
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    ),
    'word/document.xml': strToU8(
      `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${xml}</w:body></w:document>`,
    ),
    ...more,
  });
const paragraph = (text: string, form = ''): string =>
  `<w:p>${form}<w:r><w:t xml:space="preserve">${text}</w:t></w:r></w:p>`;

const MAIL = [
  'From: Old Desk <desk@larkmoor.example>',
  'To: "Ann, Lee" <ann@x.example>, bob@x.example',
  'Cc: log@larkmoor.example',
  'Reply-To: visits@larkmoor.example',
  'Subject: =?utf-8?Q?Your_visit=2C_{{name}}_=E2=9C=93?=',
  'MIME-Version: 1.0',
  'Content-Type: multipart/mixed; boundary=a',
  '',
  '--a',
  'Content-Type: multipart/related; boundary=b',
  '',
  '--b',
  'Content-Type: text/html; charset=utf-8',
  '',
  '<p>Dear [Name], <img src="cid:map@x" alt="Map"> <b>welcome</b>.</p><script>x</script>',
  '--b',
  'Content-Type: image/png; name=map.png',
  'Content-ID: <map@x>',
  'Content-Transfer-Encoding: base64',
  '',
  PNG.toString('base64'),
  '--b--',
  '--a',
  'Content-Type: application/pdf; name="Visit plan.pdf"',
  'Content-Disposition: attachment; filename="Visit plan.pdf"',
  'Content-Transfer-Encoding: base64',
  '',
  Buffer.from('%PDF-1.4 plan').toString('base64'),
  '--a--',
  '',
].join('\r\n');

describe('a text is started', () => {
  it('from a mail, with its envelope, images and attachments', async () => {
    const { document, suggestedTitle, notes } = (await convert('old.eml', MAIL).expect(200)).body as Converted;
    const written = writeText(document);
    expect(bodyOf(document)).toBe('Dear \\[Name\\], ![Map](assets/map.png) **welcome**.');
    expect(written).toContain('subject: "Your visit, \\\\{{name}} ✓"');
    expect(written).toContain('to: ["Ann, Lee <ann@x.example>", "bob@x.example"]');
    expect(written).toContain('cc: "log@larkmoor.example"');
    expect(written).toContain('reply_to: "visits@larkmoor.example"');
    expect(written).toContain('{ file: assets/visit-plan.pdf, name: "Visit plan.pdf" }');
    expect([document.attrs.front.title, suggestedTitle]).toEqual(['', 'Your visit, {{name}} ✓']);
    expect(notes.join()).toContain('desk@larkmoor.example');
    const asset = await server.call.get('/api/assets/map.png').expect(200);
    expect([asset.headers['content-type'], Buffer.compare(asset.body as Buffer, PNG)]).toEqual(['image/png', 0]);
  });

  it('from broken mail as far as it can be read', async () => {
    const broken = `${MAIL.slice(0, MAIL.indexOf('--b--') - 40)}\r\n--nowhere\r\n`;
    expect((await convert('old.eml', broken)).status).toBe(200);
    expect((await convert('old.eml', Buffer.alloc(200))).status).toBeLessThan(500);
  });

  it('from a Word document', async () => {
    const xml =
      paragraph('Plan', '<w:pPr><w:pStyle w:val="Heading1"/></w:pPr>') +
      '<w:p><w:r><w:rPr><w:b/></w:rPr><w:t>Bold</w:t></w:r><w:r><w:t xml:space="preserve"> and plain</w:t></w:r></w:p>';
    const styles = strToU8(
      '<?xml version="1.0"?><w:styles xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:style w:type="paragraph" w:styleId="Heading1"><w:name w:val="heading 1"/></w:style></w:styles>',
    );
    const rels = strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="s" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles" Target="styles.xml"/></Relationships>',
    );
    const bytes = docx(xml, { 'word/styles.xml': styles, 'word/_rels/document.xml.rels': rels });
    const { document, suggestedTitle } = (await convert('Visit_plan.docx', bytes).expect(200)).body as Converted;
    expect([bodyOf(document), suggestedTitle]).toEqual(['# Plan\n\n**Bold** and plain', 'Visit plan']);
  });

  it('from a Word document, with what stands in the middle or on the right', async () => {
    const xml =
      paragraph('Middle', '<w:pPr><w:jc w:val="center"/></w:pPr>') +
      paragraph('Right', '<w:pPr><w:jc w:val="right"/></w:pPr>') +
      paragraph('As usual', '<w:pPr><w:jc w:val="left"/></w:pPr>');
    const { document } = (await convert('a.docx', docx(xml)).expect(200)).body as Converted;
    expect(bodyOf(document)).toBe('<p align="center">Middle</p>\n\n<p align="right">Right</p>\n\nAs usual');
  });

  it('from a Word document, with what is highlighted in the nearest colour of the house', async () => {
    const run = (pen: string, words: string): string =>
      `<w:r><w:rPr><w:highlight w:val="${pen}"/></w:rPr><w:t xml:space="preserve">${words}</w:t></w:r>`;
    const xml = `<w:p>${run('yellow', 'Ann')}${run('none', ', ')}${run('green', 'Friday')}${run('darkRed', ' soon')}</w:p>`;
    const { document } = (await convert('a.docx', docx(xml)).expect(200)).body as Converted;
    expect(bodyOf(document)).toBe(
      '<mark data-colour="ochre">Ann</mark>, <mark data-colour="moss">Friday</mark><mark data-colour="brick"> soon</mark>',
    );
  });

  it.skipIf(!hasOdf)('from an OpenDocument text that another program wrote', async () => {
    const { document, suggestedTitle } = (await convert('Visit_plan.odt', writtenOdt()).expect(200)).body as Converted;
    expect(suggestedTitle).toBe('Visit plan');
    expect(bodyOf(document)).toBe(
      [
        '# Plan & map',
        '',
        'Dear **\\[Name\\]**, *welcome* <u>here</u>\\',
        'and [our page](https://larkmoor.example/visit).',
        '',
        '<p align="center">In the middle</p>',
        '',
        'On <mark data-colour="ochre">Friday 4 June</mark>',
        '',
        '- one',
        '- two',
        '',
        '  1. first',
        '  2. second',
        '',
        '| Day | Gate |',
        '| --- | --- |',
        '| Monday | north |',
      ].join('\n'),
    );
  });

  it('from a page, Markdown, plain text and a file of our own', async () => {
    const page = (await convert('a.html', '<title>Geese</title><p>a <b>b</b></p>').expect(200)).body as Converted;
    expect([bodyOf(page.document), page.suggestedTitle]).toEqual(['a **b**', 'Geese']);
    const markdown = (await convert('a.md', '# T\n\n{{x}}').expect(200)).body as Converted;
    expect(bodyOf(markdown.document)).toBe('# T\n\n\\{{x}}');
    const plain = (await convert('a.txt', 'Dear [Name],\r\n\r\n* not a list').expect(200)).body as Converted;
    expect(bodyOf(plain.document)).toBe('Dear \\[Name\\],\n\n\\* not a list');
    const own = '---\nvocabula: 1\nkind: message\ntitle: T\nsubject: S\n---\nb\n';
    expect(((await convert('a.md', own).expect(200)).body as Converted).suggestedTitle).toBe('T');
  });
});

describe('a file that cannot be read is refused with words', () => {
  it.each([
    ['a.docx', 'not a zip', 422, /Word document/],
    ['a.docx', zipSync({ 'x.txt': strToU8('x') }), 422, /Word document/],
    ['a.odt', 'not a zip', 422, /OpenDocument/],
    ['a.odt', zipSync({ 'content.xml': strToU8('<office:document/>') }), 422, /OpenDocument/],
    ['a.pdf', '%PDF', 422, /eml, docx, odt, html/],
    ['a.txt', '', 422, /empty/],
    ['a.txt', 'a\0b', 422, /NUL/],
    ['a.html', `<p>${'x'.repeat(2_000_100)}</p>`, 413, /2 MB/],
    ['a.md', '---\nvocabula: 1\ntitle: [\n---\n', 422, /line/],
  ])('%s %#', async (name, bytes, status, words) => {
    const answer = await convert(name, bytes);
    expect([answer.status, words.test((answer.body as { message: string }).message)]).toEqual([status, true]);
  });

  it('such as a document that unpacks to a hundred times what is taken', async () => {
    const bomb = docx(paragraph('a'), { 'word/huge.xml': new Uint8Array(100_000_000) });
    expect(bomb.length).toBeLessThan(1_000_000);
    const answer = await convert('bomb.docx', bomb);
    expect([answer.status, (answer.body as { code: string }).code]).toEqual([413, 'too-large']);
  });
});

describe('starters', () => {
  it('are ten occasions or more, without a finding, and render', async () => {
    const all = (await server.call.get('/api/starters').expect(200)).body as Starter[];
    expect(all.length).toBeGreaterThanOrEqual(10);
    for (const { name, title, description, document } of all) {
      const options = { library: { get: () => undefined } };
      expect([name, check({ name, document }, options)]).toEqual([name, []]);
      expect([title, description].every((words) => words.length > 5)).toBe(true);
      expect(render(compile({ name, document }, options), { today: '2026-11-24' }).text.length).toBeGreaterThan(10);
    }
  });
});
