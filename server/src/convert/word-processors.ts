/** Documents of word processors as HTML, unpacked with a limit. */
import { odtToHtml } from '@vocabula/core/odt';
import { PackedProblem, unpackWithin } from '@vocabula/core/zip';
import { zipSync, type Unzipped } from 'fflate';
import mammoth from 'mammoth';
import { RequestProblem } from '../http/problem.js';

/** The most that a document may unpack to, in bytes, and its text alone, which the reader keeps whole many times over. */
const MAX_UNPACKED = 60_000_000;
const MAX_TEXT = 12_000_000;
/** The most elements that its text may have. */
const MAX_ELEMENTS = 300_000;

/** A document as HTML, its images within it. */
interface AsHtml {
  readonly html: string;
  readonly notes: readonly string[];
}
/** What of an archive is looked at, and how it is called where it cannot be read. */
interface Kind {
  readonly parts: RegExp;
  readonly words: string;
}
const DOCX: Kind = { parts: /^(?:\[Content_Types\]\.xml|_rels\/|word\/)/, words: 'a Word document (.docx)' };
const ODT: Kind = { parts: /^(?:content|styles)\.xml$|^Pictures\//, words: 'an OpenDocument text (.odt)' };

const broken = ({ words }: Kind): RequestProblem =>
  new RequestProblem(422, 'bad-file', `This is not ${words} that can be read.`);

/** Paragraphs that are centred or stand on the right are marked by styles, which the reader of documents knows. */
const SIDES = ['center', 'right'] as const;
const styleNamed = (side: string): string => `vocabula ${side}`;
interface Paragraph {
  readonly alignment?: string | null;
  readonly styleName?: string | null;
}
const withSides = (
  mammoth as unknown as { transforms: { paragraph(change: (p: Paragraph) => Paragraph): unknown } }
).transforms.paragraph((paragraph) =>
  SIDES.some((side) => side === paragraph.alignment) && !/heading|title|list|quote/i.test(paragraph.styleName ?? '')
    ? { ...paragraph, styleName: styleNamed(paragraph.alignment ?? '') }
    : paragraph,
);

/** The pens of Word documents (ECMA-376, 17.18.40) by their names there, and the colours of CSS that they count as. */
const PENS = {
  ...{ yellow: 'yellow', green: 'lime', cyan: 'cyan', magenta: 'magenta', blue: 'blue', red: 'red' },
  ...{ darkYellow: 'olive', darkGreen: 'green', darkCyan: 'teal', darkMagenta: 'magenta', darkBlue: 'blue' },
  ...{ darkRed: 'red', darkGray: 'gray', lightGray: 'silver', black: 'gray' },
} as const;

/** The HTML of a .docx. */
export async function docxToHtml(bytes: Uint8Array): Promise<AsHtml> {
  const parts = await unpack(bytes, DOCX);
  if (!parts['word/document.xml']) throw broken(DOCX);
  demandBounded(parts);
  try {
    // Packed again from parts of known size, so that the reader unpacks no more than was measured.
    const buffer = Buffer.from(zipSync(parts, { level: 0 }));
    const { value, messages } = await mammoth.convertToHtml(
      { buffer },
      {
        styleMap: [
          'u => u',
          'strike => s',
          ...Object.entries(PENS).map(([pen, colour]) => `highlight[color='${pen}'] => mark.vocabula-${colour}`),
          "p[style-name='Quote'] => blockquote:fresh",
          ...SIDES.map((side) => `p[style-name='${styleNamed(side)}'] => p.vocabula-${side}:fresh`),
        ],
        transformDocument: withSides as never,
      },
    );
    const html = SIDES.reduce(
      (all, side) => all.replaceAll(`<p class="vocabula-${side}">`, `<p style="text-align:${side}">`),
      value,
    ).replaceAll(/<mark class="vocabula-(\w+)">/g, '<mark style="background-color:$1">');
    const odd = messages.filter(({ type }) => type === 'error').length;
    return { html, notes: odd > 0 ? [`${odd} parts of the document could not be read.`] : [] };
  } catch {
    throw broken(DOCX);
  }
}

/** The HTML of an .odt. */
export async function odtAsHtml(bytes: Uint8Array): Promise<AsHtml> {
  const parts = await unpack(bytes, ODT);
  const { 'content.xml': content, 'styles.xml': styles } = parts;
  if (!content) throw broken(ODT);
  demandBounded(parts);
  const text = new TextDecoder();
  const html = odtToHtml({
    content: text.decode(content),
    ...(styles ? { styles: text.decode(styles) } : {}),
    image(path) {
      const picture = Object.hasOwn(parts, path) ? parts[path] : undefined;
      const type = /\.([a-z0-9]+)$/i.exec(path)?.[1]?.toLowerCase() ?? 'png';
      return picture && `data:image/${type};base64,${Buffer.from(picture).toString('base64')}`;
    },
  });
  if (html === undefined) throw broken(ODT);
  return { html, notes: [] };
}

/** Counts before anything is made of them: the reader builds a tree of all elements. */
function demandBounded(parts: Unzipped): void {
  let elements = 0;
  let size = 0;
  for (const [name, content] of Object.entries(parts)) {
    if (!/\.(?:xml|rels)$/.test(name)) continue;
    size += content.length;
    for (const byte of content) if (byte === 0x3c) elements += 1;
  }
  if (size > MAX_TEXT || elements > MAX_ELEMENTS)
    throw new RequestProblem(413, 'too-large', 'This document is too long to start a text from. Take a part of it.');
}

/** The parts that text is made of. */
async function unpack(bytes: Uint8Array, kind: Kind): Promise<Unzipped> {
  try {
    return await unpackWithin(bytes, kind.parts, MAX_UNPACKED);
  } catch (problem) {
    if (!(problem instanceof PackedProblem)) throw problem;
    if (problem.why === 'damaged') throw broken(kind);
    throw new RequestProblem(413, 'too-large', `This document unpacks to more than ${MAX_UNPACKED / 1_000_000} MB.`);
  }
}
