/** A compiled template: blocks linked, expressions compiled, formats prepared, fixed text escaped. */
import type { Finding } from '../findings/finding.js';
import type { Condition } from '../template/condition.js';
import type { Align, Purpose } from '../template/document.js';
import type { OnAnswer, Step } from '../template/steps.js';
import type { Variable } from '../template/variable.js';
import type { Expression } from '../expression/expression.js';
import type { AsGiven, Formatter, ValueType } from '../values/index.js';
import type { FactValues } from '../house/facts.js';
import type { House } from '../house/house.js';

/** A variable of the whole message: all declarations with one key and type are one question. */
export interface Slot {
  readonly index: number;
  readonly key: string;
  /** The outermost declaration, which says label, help, default and the like. */
  readonly variable: Variable;
  /** Every declaration, for the constraints of all hold; each with the locale of its file. */
  readonly declarations: readonly {
    readonly variable: Variable;
    readonly locale: string;
    readonly type: ValueType;
  }[];
  /** Takes inputs that are values as they stand by every declaration; none if one has to look at all. */
  readonly asGiven: AsGiven | undefined;
  readonly label: string;
  readonly locale: string;
  /** The text it was declared in, and the file that is meant by findings about it. */
  readonly text: string;
  expression?: Expression;
  /** What the expression, or a list's computed columns, read. */
  inputs: readonly Read[];
  /** Expressions of computed columns, in an order in which they can be worked out. */
  columns: readonly ColumnProgram[];
}

/** A calculated column of a list, compiled. */
export interface ColumnProgram {
  readonly variable: Variable;
  readonly expression: Expression;
  readonly inputs: readonly Read[];
}

/** How a name gets its value: from a slot, a column of an enclosing repeat, a field, or a fact. */
export type Read =
  | { readonly from: 'slot'; readonly key: string; readonly slot: Slot }
  | {
      readonly from: 'column';
      readonly key: string;
      readonly depth: number;
      readonly variable: Variable;
      /** The column's place among those of the list. */
      readonly at: number;
      readonly list: Slot;
    }
  | { readonly from: 'recipient' | 'sender'; readonly key: string }
  | { readonly from: 'fact'; readonly key: string; readonly variable: Variable; readonly values: FactValues };

/** A condition bound to what it asks. */
export interface Test {
  readonly condition: Condition;
  readonly read: Read;
  readonly kind: 'yes-no' | 'option' | 'list';
  /** In words: `Rain plan`, `Reminder: Last word`. */
  readonly label: string;
  /** Repeats open a scope: the depth of its row. */
  readonly depth: number;
  /** Slots that are worked out anew for every row. */
  readonly rowSlots: readonly Slot[];
}

/** Where a stretch of output comes from. */
export interface Origin {
  /** The text's name, and the path of the node in its document. */
  readonly text: string;
  readonly path: readonly number[];
  readonly variable?: string;
  /** The choice whose option's wording it stands in. */
  readonly wordingOf?: string;
  /** The names of the blocks that were included to get here, outermost first. */
  readonly blocks: readonly string[];
  readonly conditions: readonly Condition[];
}

/** A mark on words, prepared for output. Two pieces are the same mark if they are the same object. */
export interface MarkPiece {
  readonly open: string;
  readonly close: string;
  readonly href?: Line;
}

interface LeafBase {
  readonly tests: readonly Test[];
  readonly marks: readonly MarkPiece[];
  readonly origin: Origin;
}

/** Fixed text in a line. */
export interface TextLeaf extends LeafBase {
  readonly kind: 'text';
  /** The whole text and its three parts: white space at either end, and what is between. */
  readonly text: string;
  readonly html: string;
  readonly lead: string;
  readonly core: string;
  readonly coreHtml: string;
  readonly trail: string;
  readonly blank: boolean;
  /** True if what follows may be left out, so that the white space at the end, or all of a blank, must wait. */
  readonly defer: boolean;
}

/** A placeholder in a line, with how its value is shown. */
export interface ValueLeaf extends LeafBase {
  readonly kind: 'value';
  readonly read: Read;
  readonly format: Formatter;
  /** True if `format` shows the value as it is. */
  readonly asItIs: boolean;
  readonly label: string;
  readonly required: boolean;
  readonly fallback: string;
  /** Paragraphs may break lines; every other value stands in its line. */
  readonly breaks: boolean;
  /** Of images: the style that they are shown in. */
  readonly imageStyle?: string;
  /** For choices in their plain view: the wording of each option, and how several are joined. */
  readonly wordings?: ReadonlyMap<string, Line>;
  readonly join?: Intl.ListFormat;
  /** The weekday written right before a date, 0 for Sunday, to be compared with the value. */
  readonly weekday?: number;
}

/** A line break. */
export interface BreakLeaf extends LeafBase {
  readonly kind: 'break';
}
/** An image in a line. */
export interface ImageLeaf extends LeafBase {
  readonly kind: 'image';
  readonly src: string;
  readonly alt: Line;
  readonly style: string;
  /** Pixels. */
  readonly width?: number;
}
/** A block included inside a line; `lang` where its locale differs. */
export interface SpliceLeaf extends LeafBase {
  readonly kind: 'splice';
  readonly line: Line;
  readonly lang: string | undefined;
  readonly name: string;
  readonly signature: boolean;
}
/** One thing in a compiled line, from left to right. */
export type Leaf = TextLeaf | ValueLeaf | BreakLeaf | ImageLeaf | SpliceLeaf;

/** A compiled line: its leaves, and how it is joined where some of them are left out. */
export interface Line {
  readonly leaves: readonly Leaf[];
  /** True in locales that set a space before some punctuation. */
  readonly spacesPunctuation: boolean;
  /** True if the line has only fixed text and values, none of them under a condition or a mark. */
  readonly plain: boolean;
}

/** Nodes under the conditions that govern them. */
export type Governed<N> =
  | { readonly node: N }
  | { readonly test: Test; readonly children: readonly Governed<N>[]; readonly path: readonly number[] };

/** What every compiled part has: where its source stands, as child indexes in the text of that name. */
export interface Unit {
  readonly path: readonly number[];
  readonly text: string;
}
/** A note to authors and colleagues: stands in proofs, never in a message. */
export interface NoteUnit extends Unit {
  readonly kind: 'note';
  readonly words: string;
}
/** An item of a list, compiled. */
export interface ItemUnit extends Unit {
  readonly children: readonly Governed<BlockUnit>[];
  /** Kept apart, so that they do not count as something that the item holds. */
  readonly notes: readonly NoteUnit[];
}
/** A cell of a table, compiled. */
export interface CellUnit {
  readonly line: Line;
  readonly align: Align;
  readonly head: boolean;
  /** Its first column, and how many columns and rows it spans. */
  readonly column: number;
  readonly colspan: number;
  readonly rowspan: number;
}
/** A row of a table, compiled. */
export interface RowUnit extends Unit {
  readonly cells: readonly CellUnit[];
  /** True for rows that a cell spans: they stay, whatever leaving out empties in them. */
  readonly spanned: boolean;
}
/** A block of the body, compiled: a line, list, table, panel, quote, button, rule, code or passage. */
export type BlockUnit =
  | (Unit & {
      readonly kind: 'line';
      readonly tag: 'p' | 'h1' | 'h2' | 'h3';
      /** Inline style beside what the house gives the tag; empty for most. */
      readonly style: string;
      readonly line: Line;
    })
  | (Unit & { readonly kind: 'button'; readonly align: Align; readonly href: Line; readonly line: Line })
  | (Unit & { readonly kind: 'panel'; readonly colour: string; readonly children: readonly Governed<BlockUnit>[] })
  | (Unit & { readonly kind: 'code'; readonly code: string; readonly origin: Origin })
  | (Unit & { readonly kind: 'rule' })
  | NoteUnit
  | (Unit & { readonly kind: 'quote'; readonly children: readonly Governed<BlockUnit>[] })
  | (Unit & {
      readonly kind: 'list';
      readonly ordered: boolean;
      readonly start: number;
      readonly items: readonly Governed<ItemUnit>[];
    })
  | (Unit & {
      readonly kind: 'table';
      readonly head: RowUnit | undefined;
      readonly rows: readonly Governed<RowUnit>[];
      readonly aligns: readonly Align[];
    })
  | (Unit & {
      readonly kind: 'include';
      readonly name: string;
      readonly lang: string | undefined;
      readonly signature: boolean;
      readonly children: readonly Governed<BlockUnit>[];
    });

/** A step of a series with its template, compiled; none where there is no such template, or it is no message. */
export interface StepProgram {
  readonly step: Step;
  readonly program: Program | undefined;
}
/** A series, compiled. */
export interface SeriesProgram {
  readonly steps: readonly StepProgram[];
  /** What the series asks of its values: days that steps are counted from, conditions, what became of earlier messages. */
  readonly plan: Program;
  readonly onAnswer: OnAnswer;
}

/** A compiled bundle. It never changes; what a run needs is in the run. */
export interface Program {
  readonly name: string;
  readonly title: string;
  readonly locale: string;
  readonly purpose: Purpose;
  readonly house: House;
  /** The values of the house's facts, by key. */
  readonly facts: ReadonlyMap<string, FactValues>;
  readonly slots: readonly Slot[];
  readonly subject: Line;
  readonly to: readonly Line[];
  readonly cc: readonly Line[];
  readonly bcc: readonly Line[];
  readonly replyTo: readonly Line[];
  readonly attachments: readonly { readonly file: string; readonly name: Line }[];
  readonly start: Line;
  readonly length: Line;
  readonly place: Line;
  readonly body: readonly Governed<BlockUnit>[];
  /** Classes of the named colours that the message uses (see `darkRules`). */
  readonly colours: ReadonlySet<string>;
  /** What compiling noticed; checks add theirs. */
  readonly findings: readonly Finding[];
  /** The names of all texts it was compiled from, its own first. */
  readonly texts: readonly string[];
  /** Of a series only. */
  readonly series?: SeriesProgram;
  /** Names of texts that it includes, or that go with every message, and that are not there. */
  readonly missing: readonly string[];
  /** The day it was compiled for, ISO: what checks compare written days with. Messages have days of their own. */
  readonly today: string;
}
