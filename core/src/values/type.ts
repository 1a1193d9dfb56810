/** What every variable type says of itself. Adding a type is one file with one `ValueType`, and a line in `index.ts`. */
import type { ColumnType, Option, TypeName, Variable } from '../template/variable.js';

/** A row of a list, by column key; a missing cell is absent. */
export interface RowValue {
  readonly [column: string]: Value | undefined;
}

/** An asset of the library, or an address, with what it says to those who do not see it. */
export interface ImageValue {
  readonly src: string;
  readonly alt: string;
}

/** A value as the engine holds it. Which one a type uses is said in its file. */
export type Value = string | number | boolean | readonly string[] | readonly RowValue[] | ImageValue;

/** What parsing and checking may need to know: the user's day (ISO) and zone (IANA), and the locale of the file. */
export interface ValueContext {
  readonly today: string;
  readonly locale: string;
  readonly zone?: string | undefined;
}

/** The outcome of parsing: a value, or words for the person who gave it. */
export type Parsed = { readonly value: Value } | { readonly problem: string };

/** Something wrong with a declaration: the attribute meant, and words. */
export interface DeclarationProblem {
  readonly attribute: string;
  readonly message: string;
  readonly code?: 'bad-value' | 'bad-key' | 'reserved-key' | 'duplicate-key';
}

/** Turns a value into its literal text in one view and locale. Never escaped here. */
export type Formatter = (value: Value) => string;

/** The formatter of views that show a text value as it is. */
export const asItIs: Formatter = String;

/** The HTML of a value taken as given: of a text, or of a list's cells by row and column; `''` if it is neither. */
export type GivenHtml = string | readonly (readonly (string | undefined)[])[];
/** Says of an input that is in its usual form already how it is written in HTML, so that it need not be parsed. */
export type AsGiven = (input: unknown) => GivenHtml | undefined;

/** What kinds of value are compared alike in conditions. */
export type Family = 'number' | 'date' | 'time' | 'text' | 'yes-no' | 'choice' | 'choices' | 'list' | 'image';

/** The control that asks for a value. */
export type ControlKind =
  | 'tick'
  | 'day'
  | 'moment'
  | 'number'
  | 'time'
  | 'image'
  | 'line'
  | 'lines'
  | 'options'
  | 'rows'
  | 'email'
  | 'phone'
  | 'link';

/** One thing about a value that a covering set varies: its levels, and which of them a value is (−1: none of them). */
export interface Outcome {
  /** The option that it is about, where a value is several things at once. */
  readonly option?: Option;
  readonly levels: readonly { readonly key: string; readonly label: string }[];
  levelOf(value: Value | undefined): number;
}

/** What the values of a covering set are chosen from. */
export interface TryContext extends ValueContext {
  /** A value as it usually is. */
  readonly specimen: unknown;
  /** Numbers and texts that calculated values compare it with, as they are written there. */
  readonly constants: readonly string[];
  /** True if a calculated value reads it. */
  readonly isCompared: boolean;
  /** Nothing, where the question may be left empty. */
  readonly none: readonly undefined[];
  /** Those of some values that the variable takes, each once. */
  accepted(values: readonly unknown[]): unknown[];
}

/** What a hard case is about; a type takes of it what it can show. */
export interface HardOffer {
  /** Words to stand in a text. */
  readonly words?: string;
  /** The longest values that are likely. */
  readonly isLongest?: boolean;
  readonly number?: number;
  /** A very large number, or the largest that the variable takes. */
  readonly isLarge?: boolean;
  /** ISO day. */
  readonly day?: string;
}

/** What made-up cells are made from. */
export interface MadeUpContext {
  /** Which row it is for, from 0. */
  readonly at: number;
  /** ISO day; made-up days lie after it. */
  readonly today: string;
  /** A whole number below another, from a seed. */
  next(below: number): number;
  /** Made-up words for the column, an address and a telephone number of the person of that row. */
  words(): string;
  address(): string;
  phone(): string;
}

/** A type of variable: how its values are parsed, checked, shown, asked for, compared and tried. One file each. */
export interface ValueType {
  readonly name: TypeName;
  /** Attributes besides those that every type has. */
  readonly attributes: readonly (keyof Variable)[];
  /** Reads an answer, a cell or a default. `input` is never missing (see `isMissing`). Constraints are included. */
  parse(input: unknown, variable: Variable, context: ValueContext): Parsed;
  /**
   * Takes the usual inputs, which are values as they stand, so that parsing is spared for them: gives what HTML they
   * are, or undefined for inputs that have to be looked at closer. None for declarations that have to look at all.
   */
  asGiven?(variable: Variable): AsGiven | undefined;
  /** The views besides the plain one. */
  views(variable: Variable): readonly string[];
  /** Prepares a view (`''` is the plain one); undefined if the type or language lacks it. */
  formatter(variable: Variable, view: string, locale: string): Formatter | undefined;
  /** Checks the declaration's own attributes. */
  declared(variable: Variable, context: ValueContext): readonly DeclarationProblem[];
  /** A likely value, to show what a view looks like before anybody has given one. */
  specimen(variable: Variable, context: ValueContext): Value;
  /** The type in expressions, as the Common Expression Language writes it. */
  readonly expressionType: string;
  readonly family: Family;
  readonly control: ControlKind;
  /** How passages depend on a value; left out where none can. */
  readonly governs?: 'yes-no' | 'option' | 'list';
  /** True for values that are never remembered beyond one recipient (engine notes, section 2). */
  readonly isPersonal?: boolean;
  /** What a new declaration of the type begins with, since it cannot be without. */
  readonly initial?: Partial<Variable>;
  /** The type of a column of samples that holds such values; none where a cell cannot. */
  readonly column?: ColumnType;
  /** An answer of a cell of a table; left out where the cell is one as it stands. */
  fromCell?(cell: string, variable: Variable): unknown;
  /** What a covering set distinguishes; left out for types that only can be given or left empty. */
  outcomes?(variable: Variable): readonly Outcome[];
  /** Values that are tried for a covering set; left out where the usual one and the constants will do. */
  tried?(variable: Variable, context: TryContext): readonly unknown[];
  /** A value for a hard case; undefined leaves the usual one. */
  hard?(offer: HardOffer, variable: Variable | undefined): unknown;
  /** A made-up cell; left out where none can be made up. */
  madeUp?(context: MadeUpContext, variable: Variable | undefined): string;
}

/** The longest value that is taken, in UTF-16 units. */
export const MAX_LENGTH = 100_000;

/** Nothing, the empty string and an empty list of options are missing. */
export function isMissing(input: unknown): boolean {
  return input === undefined || input === null || input === '' || (Array.isArray(input) && input.length === 0);
}

/** The text of an input, or undefined when it is no text. Control characters become the replacement character. */
export function textOf(input: unknown): string | undefined {
  if (typeof input === 'number' && Number.isFinite(input)) return String(input);
  if (typeof input !== 'string') return undefined;
  return UNUSUAL.test(input) ? input.replace(/\r\n?/g, '\n').replace(CONTROL, '\uFFFD') : input;
}

/** Text in one line: a line break, with the white space around it, is one space. */
export function inOneLine(text: string): string {
  return text.includes('\n') ? text.replace(/\s*\n\s*/g, ' ') : text;
}

const UNUSUAL = /[\u0000-\u0008\u000B-\u001F\u007F\uFFFE\uFFFF]/;
const CONTROL = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F\uFFFE\uFFFF]/g;

/** Says that a value is too long. */
export const TOO_LONG = `This is longer than ${MAX_LENGTH.toLocaleString('en')} characters.`;

/** Words for a limit that is not kept, or undefined. */
export function outside(
  value: number,
  min: number | undefined,
  max: number | undefined,
  show: (n: number) => string = String,
): string | undefined {
  if (min !== undefined && value < min) return `This must be ${show(min)} or more.`;
  if (max !== undefined && value > max) return `This must be ${show(max)} or less.`;
  return undefined;
}

/** A number moved inside its limits. */
export const within = (value: number, min = -Infinity, max = Infinity): number => Math.max(min, Math.min(max, value));

/** Says that limits are the wrong way round. */
export function limitsSwapped(
  variable: Variable,
  low: 'min' | 'min_length' | 'least',
  high: 'max' | 'max_length' | 'most',
): DeclarationProblem[] {
  const min = variable[low];
  const max = variable[high];
  return min !== undefined && max !== undefined && min > max
    ? [{ attribute: high, message: `“${high}” is below “${low}”.` }]
    : [];
}
