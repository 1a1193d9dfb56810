/** Files that journeys start from, made here so that what is in them can be read. */
import { zipSync, strToU8 } from 'fflate';

export interface GivenFile {
  readonly name: string;
  readonly mimeType: string;
  readonly buffer: Buffer;
}
const file = (name: string, mimeType: string, content: string | Uint8Array): GivenFile => ({
  name,
  mimeType,
  buffer: Buffer.from(content),
});

export const mail = file(
  'visit.eml',
  'message/rfc822',
  [
    'From: Maeve Aldous <maeve@larkmoor.example>',
    'To: Ann Lee <ann@lee.example>',
    'Subject: =?utf-8?q?Your_visit_=E2=80=93_Friday?=',
    'MIME-Version: 1.0',
    'Content-Type: multipart/mixed; boundary="b"',
    '',
    '--b',
    'Content-Type: text/html; charset=utf-8',
    'Content-Transfer-Encoding: quoted-printable',
    '',
    '<p>Dear <b>Ann</b>, bring caf=C3=A9 money.</p>',
    '--b',
    'Content-Type: text/plain; name="rules.txt"',
    'Content-Disposition: attachment; filename="rules.txt"',
    '',
    'No dogs.',
    '--b--',
    '',
  ].join('\r\n'),
);
export const brokenMail = file(
  'broken.eml',
  'message/rfc822',
  'Subject: Half\r\nContent-Type: multipart/mixed; boundary="never"\r\n\r\n--other\r\nContent-Type: text/html\r\n\r\n<p>Words',
);
export const page = file(
  'visit.html',
  'text/html',
  '<h1>Visit</h1><p onclick="x()">Come <i>soon</i>.</p><script>1</script>',
);
export const markdown = file('visit.md', 'text/markdown', '# Visit\n\nCome **soon**.\n');
export const plain = file('visit.txt', 'text/plain', 'Visit\n\nCome soon.\n');

const DOCUMENT = (body: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`;
const TYPES =
  '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>';
const RELATIONS =
  '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>';
const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const packed = (name: string, document: Uint8Array): GivenFile =>
  file(
    name,
    WORD,
    zipSync({
      '[Content_Types].xml': strToU8(TYPES),
      '_rels/.rels': strToU8(RELATIONS),
      'word/document.xml': document,
    }),
  );
export const wordDocument = packed(
  'visit.docx',
  strToU8(
    DOCUMENT(
      '<w:p><w:r><w:t xml:space="preserve">Come </w:t></w:r><w:r><w:rPr><w:b/></w:rPr><w:t>soon</w:t></w:r></w:p>',
    ),
  ),
);
/** Unpacks to 80 MB. */
export const bomb = (): GivenFile => packed('bomb.docx', new Uint8Array(80 * 1024 * 1024));
