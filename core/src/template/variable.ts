/** Variables as a file or an editor declares them (engine notes, section 2). */
import type { Inline } from './inline.js';

/** The types of variables, in the order they are offered. */
export const TYPE_NAMES = [
  'text',
  'paragraphs',
  'number',
  'money',
  'date',
  'time',
  'datetime',
  'yes-no',
  'choice',
  'choices',
  'email',
  'phone',
  'link',
  'image',
  'list',
] as const;
/** The type of a variable. */
export type TypeName = (typeof TYPE_NAMES)[number];

/** Types that a column of a table may have. */
export const COLUMN_TYPES = [
  'text',
  'number',
  'date',
  'yes-no',
  'email',
  'phone',
  'link',
] as const satisfies readonly TypeName[];
/** The type of a column of a table. */
export type ColumnType = (typeof COLUMN_TYPES)[number];

/** An option of a choice: a label for the person choosing, a wording that lands in the message. */
export interface Option {
  readonly key: string;
  readonly label?: string;
  readonly wording?: readonly Inline[];
}

/** A row as it stands in a default: source text by column key. */
export type SourceRow = Readonly<Record<string, string>>;

/**
 * A declaration. Which attributes a type knows is said by the type (`values/`); anything else is
 * refused when a file is read. `default` is source text, parsed by the type.
 */
export interface Variable {
  readonly key: string;
  readonly type: TypeName;
  readonly label?: string;
  readonly help?: string;
  readonly example?: string;
  readonly required?: boolean;
  readonly from?: string;
  readonly remember?: boolean;
  readonly default?: string | readonly string[] | readonly SourceRow[];
  /** An expression; makes the variable worked out. */
  readonly value?: string;
  readonly min_length?: number;
  readonly max_length?: number;
  readonly pattern?: string;
  readonly fallback?: string;
  readonly min?: number;
  readonly max?: number;
  readonly step?: number;
  readonly decimals?: number;
  readonly unit?: string;
  readonly grouping?: boolean;
  readonly plural?: Readonly<Record<string, string>>;
  readonly forms?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly currency?: string;
  readonly earliest?: string;
  readonly latest?: string;
  readonly weekdays?: readonly string[];
  readonly zone?: string;
  readonly words?: { readonly yes?: string; readonly no?: string };
  readonly options?: readonly Option[];
  readonly other?: boolean;
  readonly least?: number;
  readonly most?: number;
  readonly domains?: readonly string[];
  /** Pixels. */
  readonly max_width?: number;
  readonly columns?: readonly Variable[];
}

/** True if the value is worked out, never asked. */
export const isComputed = (variable: Variable): boolean => variable.value !== undefined;
