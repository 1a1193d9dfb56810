/** Plain text and Markdown, as pasted or from a file. */
export { looksLikeMarkdown, readMarkdown, readPlain } from './read.js';
export { pastedHead, withPastedHead, type PastedHead } from './head.js';
