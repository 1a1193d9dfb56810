/** What reads pasted HTML, Markdown and plain words. It is large, and loaded with the first key pressed in the manuscript. */
export { nearestColour, readHtml } from '@vocabula/core/html';
export { looksLikeMarkdown, pastedHead, readMarkdown, readPlain } from '@vocabula/core/plain';
