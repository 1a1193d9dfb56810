/**
 * What the HTML of a proof or an editable message says beside its words: names of attributes and classes, written by
 * the renderer and read by pages. Messages that are handed over hold none of it.
 */

/** Attributes of a proof's elements. */
export const PROOF_DATA = {
  /** The path of the block in its document, `2.0.1`. */
  path: 'data-p',
  /** The line that can be edited there: see `lineAddress`. */
  line: 'data-l',
  /** The index, in its line, of the inline node that words come from. */
  node: 'data-i',
  /** The number of a stretch of a trace. */
  stretch: 'data-s',
  /** The name of the variable that a value, a blank or something left out is of. */
  of: 'data-of',
  /** The key of the question that a blank waits for. */
  blank: 'data-blank',
  /** The name of the block that was included. */
  block: 'data-block',
} as const;

/** Classes of a proof's elements. */
export const PROOF_CLASS = {
  blank: 'vx-blank',
  value: 'vx-value',
  /** A place in a line where words are left out. */
  gone: 'vx-gone',
  /** Blocks that are left out, folded. */
  leftOut: 'vx-left-out',
  note: 'vx-note',
} as const;

/** The address of a line: the name of its text and its path there. */
export const lineAddress = (text: string, path: readonly number[]): string => `${text}:${path.join('.')}`;

/** The text and path of an address; undefined for what is none. */
export function readLineAddress(
  address: string,
): { readonly text: string; readonly path: readonly number[] } | undefined {
  const at = address.lastIndexOf(':');
  if (at < 0) return undefined;
  return {
    text: address.slice(0, at),
    path: address
      .slice(at + 1)
      .split('.')
      .map(Number),
  };
}
