/** Word documents as HTML, unpacked with a limit. */
import { PackedProblem, unpackWithin } from '@vocabula/core/zip';
import { zipSync, type Unzipped } from 'fflate';
import mammoth from 'mammoth';
import { RequestProblem } from '../http/problem.js';

/** The most that a document may unpack to, in bytes, and its text alone, which the reader keeps whole many times over. */
const MAX_UNPACKED = 60_000_000;
const MAX_TEXT = 12_000_000;
/** The most elements that its text may have. */
const MAX_ELEMENTS = 300_000;

const broken = (): RequestProblem =>
  new RequestProblem(422, 'bad-file', 'This is not a Word document (.docx) that can be read.');

/** The HTML of a document, its images within it. */
export async function docxToHtml(
  bytes: Uint8Array,
): Promise<{ readonly html: string; readonly notes: readonly string[] }> {
  const parts = await unpack(bytes);
  if (!parts['word/document.xml']) throw broken();
  demandBounded(parts);
  try {
    // Packed again from parts of known size, so that the reader unpacks no more than was measured.
    const buffer = Buffer.from(zipSync(parts, { level: 0 }));
    const { value, messages } = await mammoth.convertToHtml(
      { buffer },
      { styleMap: ['u => u', 'strike => s', "p[style-name='Quote'] => blockquote:fresh"] },
    );
    const odd = messages.filter(({ type }) => type === 'error').length;
    return { html: value, notes: odd > 0 ? [`${odd} parts of the document could not be read.`] : [] };
  } catch {
    throw broken();
  }
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
async function unpack(bytes: Uint8Array): Promise<Unzipped> {
  try {
    return await unpackWithin(bytes, /^(?:\[Content_Types\]\.xml|_rels\/|word\/)/, MAX_UNPACKED);
  } catch (problem) {
    if (!(problem instanceof PackedProblem)) throw problem;
    if (problem.why === 'damaged') throw broken();
    throw new RequestProblem(413, 'too-large', `This document unpacks to more than ${MAX_UNPACKED / 1_000_000} MB.`);
  }
}
