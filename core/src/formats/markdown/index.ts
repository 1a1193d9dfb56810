/** The open file format: Markdown with tags, and YAML front matter (format notes). */
export { readText, type ReadText, type SourceMap } from './read.js';
export { readLine, writeLine } from './line.js';
export { readBody, readInline } from './read-body.js';
export { Reading } from './inline.js';
export { writeText } from './write.js';
export { writeBody, writeWording } from './write-body.js';
export { inclusionTag, placeholderTag, scanTag, tagsIn, type Tag } from './tags.js';
