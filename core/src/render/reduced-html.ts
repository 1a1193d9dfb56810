/** A message's HTML with less in it, for programs that keep less. */
import type { Program } from '../compile/program.js';
import { direction } from '../values/intl.js';
import { escapeHtml } from '../words/escape.js';
import type { Message } from './render.js';

const TAG = /<\/?[a-z][^<>]*>/gi;
const LOOK = /\s(?:style|class|width|height|bgcolor|align|cellpadding|cellspacing|border)="[^"]*"/g;
const TABLE_PARTS = new Set(['table', 'tbody', 'tr', 'td']);

/**
 * Headings, lists, tables, emphasis and links without fonts, colours and spacing: what it is pasted into says those.
 * Tables that only lay out, such as those of panels and buttons, become plain blocks.
 */
export function structureOnly(html: string): string {
  /** Of each open table: whether it only lays out. */
  const open: boolean[] = [];
  const bare = (tag: string): string => tag.replace(LOOK, '');
  return html.replace(/<style>.*?<\/style>/gs, '').replace(TAG, (tag) => {
    const [, end = '', name = ''] = /^<(\/?)([a-z0-9]+)/i.exec(tag) ?? [];
    if (!TABLE_PARTS.has(name)) return bare(tag);
    if (name === 'table' && end === '') open.push(tag.includes('role="presentation"'));
    const lays = open.at(-1) ?? false;
    if (name === 'table' && end !== '') open.pop();
    if (!lays) return bare(tag);
    return name === 'td' ? `<${end}div>` : '';
  });
}

/** With the words for its images in their place. */
export const withoutImages = (html: string): string =>
  html.replace(/<img\b[^<>]*?\salt="([^"]*)"[^<>]*>/g, (_image, alt: string) => (alt !== '' ? `[${alt}]` : ''));

/** A message for pasting into something that is being written: its blocks, in their language and direction. */
export const forPasting = (program: Program, { fragment }: Pick<Message, 'fragment'>): string =>
  `<div lang="${escapeHtml(program.locale)}" dir="${direction(program.locale)}">${fragment}</div>`;
