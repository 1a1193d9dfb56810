/** The tags of the template language: the Mustache specification's, less what could hide what is meant. */
import type { FindingData } from '../../findings/words.js';
import { countAtEnd } from '../../words/ends.js';
import { condition, type Condition } from '../../template/condition.js';

/** A tag in braces, parsed. */
export type Tag =
  | { readonly kind: 'placeholder'; readonly name: string; readonly view: string }
  | { readonly kind: 'open'; readonly condition: Condition }
  | { readonly kind: 'close'; readonly name: string }
  | { readonly kind: 'inclusion'; readonly name: string }
  | { readonly kind: 'comment'; readonly text: string }
  | { readonly kind: 'wrong'; readonly data: FindingData<'unsupported-tag' | 'bad-key'> };

/** A tag and where it stands: from `start` to before `end`. */
export interface FoundTag {
  readonly tag: Tag;
  readonly start: number;
  readonly end: number;
}

const KEY = '[a-z][a-z0-9_]*';
const CONDITION = new RegExp(`^(${KEY})(?:\\.(${KEY}(?:\\|${KEY})*))?$`);
const PLACEHOLDER = new RegExp(`^((?:recipient|sender|house)\\.${KEY}|${KEY})(?:\\.(${KEY}))?$`);
const INCLUSION = /^[a-z0-9][a-z0-9-]*$/;
const FIELD_SOURCE = /^(recipient|sender|house)$/;

/** The tag that begins at `pos`, if one does. Never looks further than the tag's end. */
export function scanTag(source: string, pos: number): FoundTag | undefined {
  if (!source.startsWith('{{', pos)) return undefined;
  if (source.startsWith('{{{', pos)) {
    // A brace before a tag is text; only three on both sides ask for something.
    const triple = /^\{{3}[^{}]*\}{3}/.exec(source.slice(pos, pos + 400));
    return triple
      ? {
          tag: { kind: 'wrong', data: { code: 'unsupported-tag', why: 'three-braces' } },
          start: pos,
          end: pos + triple[0].length,
        }
      : undefined;
  }
  if (source[pos + 2] === '&') return bounded(source, pos, { code: 'unsupported-tag', why: 'ampersand' });
  if (source[pos + 2] === '=') return bounded(source, pos, { code: 'unsupported-tag', why: 'delimiters' });
  const close = endOf(source, pos);
  if (close < 0) return undefined;
  const inner = source.slice(pos + 2, close);
  return { tag: readInner(inner), start: pos, end: close + 2 };
}

/** The longest tag, and the longest note: braces are never looked further ahead from than this. */
const [LONGEST_TAG, LONGEST_NOTE] = [4000, 20_000];

/** Where an ending stands that belongs to the braces at `pos`; −1 if none does. */
function endOf(source: string, pos: number): number {
  const longest = source[pos + 2] === '!' ? LONGEST_NOTE : LONGEST_TAG;
  const at = source.slice(pos + 2, pos + longest).indexOf('}}');
  return at < 0 ? -1 : pos + 2 + at;
}

function bounded(source: string, pos: number, data: FindingData<'unsupported-tag'>): FoundTag | undefined {
  const close = endOf(source, pos);
  return close < 0 ? undefined : { tag: { kind: 'wrong', data }, start: pos, end: close + 2 };
}

function readInner(inner: string): Tag {
  const sigil = inner.charAt(0);
  if (sigil === '!') return { kind: 'comment', text: inner.slice(1).trim() };
  const rest = ('#^/>'.includes(sigil) && sigil !== '' ? inner.slice(1) : inner).trim();
  if (sigil === '>')
    return INCLUSION.test(rest)
      ? { kind: 'inclusion', name: rest }
      : { kind: 'wrong', data: { code: 'bad-key', why: 'text', name: rest } };
  if (sigil === '#' || sigil === '^' || sigil === '/') {
    const match = CONDITION.exec(rest);
    if (!match) return { kind: 'wrong', data: { code: 'bad-key', why: 'condition', name: rest } };
    if (sigil === '/') return { kind: 'close', name: rest };
    return { kind: 'open', condition: condition(match[1] as string, match[2]?.split('|') ?? [], sigil === '^') };
  }
  const match = PLACEHOLDER.exec(rest);
  if (!match || FIELD_SOURCE.test(match[1] as string))
    return { kind: 'wrong', data: { code: 'bad-key', why: 'variable', name: rest } };
  return { kind: 'placeholder', name: match[1] as string, view: match[2] ?? '' };
}

/** A placeholder's tag. */
export function placeholderTag(attrs: { readonly name: string; readonly view: string }): string {
  return `{{${attrs.name}${attrs.view ? `.${attrs.view}` : ''}}}`;
}

/** The tag that includes a block. */
export const inclusionTag = (name: string): string => `{{> ${name}}}`;
/** The tag that holds a comment. */
export const commentTag = (text: string): string => `{{! ${text}}}`;

/** All tags of a line of text, such as a link's target, in order; `\{{` begins none. */
export function tagsIn(source: string): FoundTag[] {
  const found: FoundTag[] = [];
  for (let pos = source.indexOf('{{'); pos >= 0;) {
    const backslashes = countAtEnd(source, '\\', pos);
    const tag = backslashes % 2 === 0 ? scanTag(source, pos) : undefined;
    if (tag) found.push(tag);
    pos = source.indexOf('{{', tag ? tag.end : pos + 2);
  }
  return found;
}
