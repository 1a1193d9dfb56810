/** Plain text and Markdown, as pasted or from a file. */
export { looksLikeMarkdown, readMarkdown, readPlain } from './read.js';
