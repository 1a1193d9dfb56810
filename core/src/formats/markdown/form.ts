/**
 * The small set of inline HTML that says what Markdown cannot (docs/file-format.md lists it). Anything else, down to
 * one attribute more, is no form of ours and stays text.
 */
import type { Align, Layout, Mark } from '../../template/document.js';
import { MAX_INDENT } from '../../template/document.js';
import { isKey } from '../../template/keys.js';

/** What an HTML tag within Markdown means to us; everything else is text. */
export type Form =
  /** Opens a mark; `end` is the name of the tag that closes it. */
  | { readonly kind: 'mark'; readonly mark: Mark; readonly end: string }
  | { readonly kind: 'end'; readonly name: string }
  | { readonly kind: 'break' }
  | {
      readonly kind: 'image';
      readonly src: string;
      readonly alt: string;
      readonly title: string;
      readonly width: number;
    }
  /** Around the whole of a paragraph or heading (level 0 is a paragraph). */
  | { readonly kind: 'block'; readonly level: 0 | 1 | 2 | 3; readonly layout: Layout; readonly end: string }
  | { readonly kind: 'button'; readonly href: string; readonly align: Align; readonly end: string }
  /** At the beginning of a table cell. */
  | { readonly kind: 'cell'; readonly colspan: number; readonly rowspan: number };

const TAG = /^<(\/?)([a-z][a-z0-9]*)((?:\s+[a-z-]+(?:="[^"]*")?)*)\s*\/?>/i;
const ATTRIBUTE = /([a-z-]+)(?:="([^"]*)")?/gi;
const SIMPLE = { b: 'bold', i: 'italic', s: 'strike', u: 'underline' } as const;
const ENDS = new Set(['b', 'i', 's', 'u', 'span', 'mark', 'p', 'h1', 'h2', 'h3', 'a']);

/** The form that begins at the start of a text, and its length; undefined where none does. */
export function readForm(source: string): { readonly form: Form; readonly length: number } | undefined {
  const [whole, slash, tag = '', rest = ''] = TAG.exec(source) ?? [];
  if (whole === undefined) return undefined;
  const name = tag.toLowerCase();
  if (slash) {
    const known = rest === '' && ENDS.has(name);
    return known ? { form: { kind: 'end', name }, length: whole.length } : undefined;
  }
  const attributes = new Map<string, string>();
  for (const [, key = '', value = ''] of rest.matchAll(ATTRIBUTE)) attributes.set(key.toLowerCase(), unescape(value));
  const form = formOf(name, new Attributes(attributes));
  return form && { form, length: whole.length };
}

/** Takes attributes one by one, so that one left over, or one that does not fit, makes the whole no form. */
class Attributes {
  private fits = true;

  constructor(private readonly left: Map<string, string>) {}

  take<T>(name: string, read: (text: string) => T | undefined, missing: T): T {
    const text = this.left.get(name);
    if (text === undefined) return missing;
    this.left.delete(name);
    const value = read(text);
    if (value === undefined) this.fits = false;
    return value ?? missing;
  }

  has(name: string): boolean {
    return this.left.has(name);
  }

  get whole(): boolean {
    return this.fits && this.left.size === 0;
  }
}

const text = (value: string): string => value;
const wholeNumber =
  (most: number) =>
  (value: string): number | undefined =>
    /^[1-9]\d{0,3}$/.test(value) && Number(value) <= most ? Number(value) : undefined;
const side = (value: string): Align | undefined =>
  value === 'left' || value === 'center' || value === 'right' ? value : undefined;
const colour = (value: string): string | undefined => (isKey(value) ? value : undefined);
const language = (value: string): string | undefined =>
  /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i.test(value) ? value : undefined;

function formOf(name: string, attributes: Attributes): Form | undefined {
  const made = make(name, attributes);
  return attributes.whole ? made : undefined;
}

// eslint-disable-next-line max-lines-per-function -- one case for each tag
function make(name: string, attributes: Attributes): Form | undefined {
  switch (name) {
    case 'b':
    case 'i':
    case 's':
    case 'u':
      return { kind: 'mark', mark: { type: SIMPLE[name] }, end: name };
    case 'br':
      return { kind: 'break' };
    case 'span': {
      if (attributes.has('lang'))
        return {
          kind: 'mark',
          mark: { type: 'language', attrs: { lang: attributes.take('lang', language, '') } },
          end: name,
        };
      if (!attributes.has('data-colour')) return undefined;
      return {
        kind: 'mark',
        mark: { type: 'colour', attrs: { name: attributes.take('data-colour', colour, '') } },
        end: name,
      };
    }
    case 'mark': {
      if (!attributes.has('data-colour')) return undefined;
      return {
        kind: 'mark',
        mark: { type: 'highlight', attrs: { name: attributes.take('data-colour', colour, '') } },
        end: name,
      };
    }
    case 'img': {
      if (!attributes.has('src') || !attributes.has('width')) return undefined;
      return {
        kind: 'image',
        src: attributes.take('src', text, ''),
        alt: attributes.take('alt', text, ''),
        title: attributes.take('title', text, ''),
        width: attributes.take('width', wholeNumber(4000), 0),
      };
    }
    case 'p':
    case 'h1':
    case 'h2':
    case 'h3': {
      const align = attributes.take<Align>('align', side, null);
      const indent = attributes.take('data-indent', wholeNumber(MAX_INDENT), 0);
      const layout = { ...(align ? { align } : {}), ...(indent ? { indent } : {}) };
      const level = (name === 'p' ? 0 : Number(name[1])) as 0 | 1 | 2 | 3;
      return { kind: 'block', level, layout, end: name };
    }
    case 'a': {
      if (!attributes.has('data-button') || !attributes.has('href')) return undefined;
      attributes.take('data-button', text, '');
      return {
        kind: 'button',
        href: attributes.take('href', text, ''),
        align: attributes.take<Align>('align', side, null),
        end: name,
      };
    }
    case 'td':
      return {
        kind: 'cell',
        colspan: attributes.take('colspan', wholeNumber(200), 1),
        rowspan: attributes.take('rowspan', wholeNumber(200), 1),
      };
    default:
      return undefined;
  }
}

const unescape = (value: string): string =>
  value.replace(/&(amp|quot|lt|gt);/g, (_, name: string) => ({ amp: '&', quot: '"', lt: '<', gt: '>' })[name] ?? '');
const escape = (value: string): string =>
  value
    .replace(/&(?=amp;|quot;|lt;|gt;)/g, '&amp;')
    .replace(/"/g, '&quot;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/\n/g, ' ');

/** An opening tag with attributes, those without a value left out. */
export function writeTag(
  name: string,
  attributes: Readonly<Record<string, string | number | null | undefined>>,
): string {
  const written = Object.entries(attributes).flatMap(([key, value]) =>
    value === null || value === undefined ? [] : [` ${key}="${escape(String(value))}"`],
  );
  return `<${name}${written.join('')}>`;
}

/** The tag that opens a mark which Markdown has no sign for; undefined for marks that it has. */
export function markTag(mark: Mark): { readonly open: string; readonly end: string } | undefined {
  switch (mark.type) {
    case 'colour':
      return { open: writeTag('span', { 'data-colour': mark.attrs.name }), end: 'span' };
    case 'highlight':
      return { open: writeTag('mark', { 'data-colour': mark.attrs.name }), end: 'mark' };
    case 'language':
      return { open: writeTag('span', { lang: mark.attrs.lang }), end: 'span' };
    default:
      return undefined;
  }
}

/** The tag that opens a button; its words and `</a>` follow. */
export const buttonTag = (href: string, align: Align): string =>
  writeTag('a', { href, align }).replace('<a', '<a data-button');

/** A line that opens a panel, or closes one; undefined for other lines. An empty colour is the plain panel. */
export function panelLine(
  line: string,
): { readonly open: true; readonly colour: string } | { readonly open: false } | undefined {
  const trimmed = line.trim();
  if (trimmed === '</div>') return { open: false };
  const [whole, name = ''] = /^<div data-panel(?:="([^"]*)")?>$/.exec(trimmed) ?? [];
  return whole !== undefined && (name === '' || isKey(name)) ? { open: true, colour: name } : undefined;
}
/** The tag that opens a panel, with the name of its colour. */
export const panelTag = (name: string): string => (name === '' ? '<div data-panel>' : `<div data-panel="${name}">`);
