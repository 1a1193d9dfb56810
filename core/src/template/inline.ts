/** What stands in a line: words, placeholders, breaks, images, inclusions, and the marks on them. */
import type { Condition } from './condition.js';

/** A mark without attributes. */
export type SimpleMark = 'bold' | 'italic' | 'underline' | 'strike' | 'code';

/**
 * Marks on inline nodes. `phrase` is a passage inside a line; colours are named by the house style; `lang` is a
 * language tag such as `ga`.
 */
export type Mark =
  | { readonly type: SimpleMark }
  | { readonly type: 'colour' | 'highlight'; readonly attrs: { readonly name: string } }
  | { readonly type: 'language'; readonly attrs: { readonly lang: string } }
  | { readonly type: 'link'; readonly attrs: { readonly href: string } }
  | { readonly type: 'phrase'; readonly attrs: Condition };

/** Text with its marks. */
export interface TextNode {
  readonly type: 'text';
  readonly text: string;
  readonly marks?: readonly Mark[];
}
/** `name` is a variable's key or `recipient.x`, `sender.x`, `house.x`; `view` is empty for the plain one. */
export interface Placeholder {
  readonly type: 'placeholder';
  readonly attrs: { readonly name: string; readonly view: string };
  readonly marks?: readonly Mark[];
}
/** A line break. */
export interface HardBreak {
  readonly type: 'hardBreak';
  readonly marks?: readonly Mark[];
}
/** An image in a line. */
export interface Image {
  readonly type: 'image';
  /** `width` in pixels, left out for the image's own. */
  readonly attrs: {
    readonly src: string;
    readonly alt: readonly Inline[];
    readonly title: string;
    readonly width?: number | null;
  };
  readonly marks?: readonly Mark[];
}
/** A live block of one line that is included here. */
export interface InlineInclusion {
  readonly type: 'inlineInclusion';
  readonly attrs: { readonly name: string };
  readonly marks?: readonly Mark[];
}
/** Words for other authors within a line. */
export interface InlineComment {
  readonly type: 'inlineComment';
  readonly attrs: { readonly text: string };
  readonly marks?: readonly Mark[];
}
/** What a line consists of. */
export type Inline = TextNode | Placeholder | HardBreak | Image | InlineInclusion | InlineComment;
