/** Foreign HTML, read into the document's own blocks. */
export { HtmlProblem, MAX_HTML, readHtml, type HtmlOptions, type ReadHtml } from './read.js';
export { nearestColour } from './highlight.js';
