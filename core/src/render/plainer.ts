/** A message's HTML with less in it, for programs that keep less. */

const TAG = /<[a-z][^<>]*>/gi;
const LOOK = /\s(?:style|class|width|height|bgcolor|align)="[^"]*"/g;

/** Headings, lists, tables, emphasis and links without fonts, colours and spacing: what it is pasted into says those. */
export const structureOnly = (html: string): string =>
  html.replace(/<style>.*?<\/style>/gs, '').replace(TAG, (tag) => tag.replace(LOOK, ''));

/** With the words for its images in their place. */
export const withoutImages = (html: string): string =>
  html.replace(/<img\b[^<>]*?\salt="([^"]*)"[^<>]*>/g, (_image, alt: string) => (alt !== '' ? `[${alt}]` : ''));
