/**
 * The Markdown of a body: CommonMark with tables, through markdown-it, and our tags as rules of its own.
 * Tags are read as structure: block rules end what a tag line ends, and for emphasis a tag is a letter.
 */
import makeMarkdownIt, { type MarkdownIt, type StateBlock, type StateInline } from 'markdown-it';
import { panelLine, readForm, type Form } from './form.js';
import { scanTag } from './tags.js';
import { INDENT_OF_CODE, tagLineAt, type TagMeta } from './tag-line.js';
import { tableRule } from './table-syntax.js';

export type { Token } from 'markdown-it';
export { type BlockState, type TagMeta } from './tag-line.js';

/** What a form token of inline HTML carries. */
export interface FormMeta {
  readonly form: Form;
  readonly source: string;
}
/** What a line that opens or closes a panel carries. */
export interface PanelMeta {
  readonly panel: 'open' | 'close';
  readonly colour: string;
}
/** What reading collects beside tokens: inline HTML that is kept as text, and how many panels are open. */
export type SyntaxEnv = { html: string[]; panels: number };

/** Blocks nested deeper than this are refused by the reader, since the tokenizer stops there. */
export const MAX_NESTING = 90;

function tagLineRule(state: StateBlock, startLine: number, endLine: number, silent: boolean): boolean {
  const found = tagLineAt(state, startLine, endLine);
  if (!found) return false;
  if (silent) return true;
  const token = state.push('tag_line', '', 0);
  token.meta = { tag: found.tag, source: '', line: 0 } satisfies TagMeta as TagMeta & Record<string, unknown>;
  token.map = [startLine, startLine + found.lines];
  state.line = startLine + found.lines;
  return true;
}

/** A line that opens a panel, or closes one that is open. */
function panelLineRule(state: StateBlock, startLine: number, _endLine: number, silent: boolean): boolean {
  if ((state.sCount[startLine] ?? 0) - state.blkIndent >= INDENT_OF_CODE) return false;
  const start = (state.bMarks[startLine] ?? 0) + (state.tShift[startLine] ?? 0);
  if (state.src.charCodeAt(start) !== 0x3c) return false;
  const found = panelLine(state.src.slice(start, state.eMarks[startLine]));
  const env = state.env as SyntaxEnv;
  if (!found || (!found.open && env.panels === 0)) return false;
  if (silent) return true;
  env.panels += found.open ? 1 : -1;
  const token = state.push('panel_line', '', 0);
  const meta: PanelMeta = { panel: found.open ? 'open' : 'close', colour: found.open ? found.colour : '' };
  token.meta = meta as PanelMeta & Record<string, unknown>;
  token.map = [startLine, startLine + 1];
  state.line = startLine + 1;
  return true;
}

/** A line that holds only `<p></p>` is an empty paragraph. */
function emptyParagraphRule(state: StateBlock, startLine: number, _endLine: number, silent: boolean): boolean {
  const start = (state.bMarks[startLine] ?? 0) + (state.tShift[startLine] ?? 0);
  if ((state.sCount[startLine] ?? 0) - state.blkIndent >= INDENT_OF_CODE) return false;
  if (state.src.slice(start, state.eMarks[startLine]).trim() !== '<p></p>') return false;
  if (silent) return true;
  const token = state.push('empty_paragraph', '', 0);
  token.map = [startLine, startLine + 1];
  state.line = startLine + 1;
  return true;
}

function tagRule(state: StateInline, silent: boolean): boolean {
  const escaped = state.src.startsWith('\\{{', state.pos);
  if (escaped) {
    if (!silent) state.pending += '{{';
    state.pos += 3;
    return true;
  }
  const found = scanTag(state.src, state.pos);
  if (!found) return false;
  if (!silent) {
    const token = state.push('tag', '', 0);
    const line = state.src.slice(0, state.pos).split('\n').length - 1;
    token.meta = {
      tag: found.tag,
      source: state.src.slice(found.start, found.end),
      line,
    } satisfies TagMeta as TagMeta & Record<string, unknown>;
  }
  state.pos = found.end;
  return true;
}

const OTHER_HTML = /^<(?:\/?[a-z][a-z0-9-]*(?:\s[^<>]*)?\/?|!--[\s\S]*?--)>/i;

function htmlRule(state: StateInline, silent: boolean): boolean {
  if (state.src.charCodeAt(state.pos) !== 0x3c) return false;
  const rest = state.src.slice(state.pos, state.pos + 6000);
  const found = readForm(rest);
  if (!found) {
    const other = silent ? null : OTHER_HTML.exec(rest);
    if (other) (state.env as SyntaxEnv).html.push(other[0]);
    return false;
  }
  if (!silent) {
    const token = state.push('html_form', '', 0);
    const meta: FormMeta = { form: found.form, source: rest.slice(0, found.length) };
    token.meta = meta as FormMeta & Record<string, unknown>;
  }
  state.pos += found.length;
  return true;
}

const tagEndsAt = new RegExp('\\}\\}$');

function makeSyntax(): MarkdownIt {
  const md = makeMarkdownIt('default', { html: false, linkify: false, typographer: false, maxNesting: MAX_NESTING });
  md.disable(['table', 'linkify', 'replacements', 'smartquotes']);
  // Addresses are judged by the checks, not dropped by the tokenizer; tags in them stay as written.
  md.validateLink = () => true;
  md.normalizeLink = (url) => url;
  md.normalizeLinkText = (text) => text;
  const everywhere = { alt: ['paragraph', 'reference', 'blockquote', 'list'] };
  md.block.ruler.before('code', 'tag_line', tagLineRule, everywhere);
  md.block.ruler.before('code', 'panel_line', panelLineRule, everywhere);
  md.block.ruler.before('code', 'empty_paragraph', emptyParagraphRule, everywhere);
  md.block.ruler.after('tag_line', 'our_table', tableRule, { alt: ['paragraph', 'reference'] });
  md.inline.ruler.before('escape', 'tag', tagRule);
  md.inline.ruler.after('autolink', 'html_form', htmlRule);
  // The text rule stops at these characters only; a brace must be one of them, and is.
  const State = md.inline.State;
  md.inline.State = class extends State {
    override scanDelims(start: number, canSplitWord: boolean): ReturnType<InstanceType<typeof State>['scanDelims']> {
      const marker = this.src.charAt(start);
      let end = start;
      while (end < this.posMax && this.src.charAt(end) === marker) end += 1;
      const before = tagEndsAt.test(this.src.slice(Math.max(0, start - 2), start));
      const after = scanTag(this.src, end) !== undefined;
      if (!before && !after) return super.scanDelims(start, canSplitWord);
      // For emphasis a tag counts as a letter: put one there and ask again.
      const src = this.src;
      const posMax = this.posMax;
      this.src = `${src.slice(0, before ? start - 1 : start)}${before ? 'a' : ''}${src.slice(start, end)}${after ? 'a' : src.slice(end)}`;
      if (after) this.posMax = end + 1;
      const result = super.scanDelims(start, canSplitWord);
      this.src = src;
      this.posMax = posMax;
      return result;
    }
  };
  return md;
}

let shared: MarkdownIt | undefined;

/** The tokenizer, made when it is first needed. */
export const syntax = (): MarkdownIt => (shared ??= makeSyntax());
