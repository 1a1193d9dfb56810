/** Word documents as HTML, unpacked with a limit. */
import { PackedProblem, unpackWithin } from '@vocabula/core/zip';
import { zipSync, type Unzipped } from 'fflate';
import mammoth from 'mammoth';
import { RequestProblem } from '../http/problem.js';

/** The most that a document may unpack to, in bytes. */
const MAX_UNPACKED = 60_000_000;

const broken = (): RequestProblem =>
  new RequestProblem(422, 'bad-file', 'This is not a Word document (.docx) that can be read.');

/** The HTML of a document, its images within it. */
export async function docxToHtml(
  bytes: Uint8Array,
): Promise<{ readonly html: string; readonly notes: readonly string[] }> {
  const parts = await unpack(bytes);
  if (!parts['word/document.xml']) throw broken();
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
