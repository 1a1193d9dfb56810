/** What is said between the proofing table and its worker. */
import type { ComparedParagraph, Explanation, Filling, SampleRow, Sheet, ValueColumn } from '@vocabula/core/proof';
import type { Finding, House, TextDocument, TypeName } from '@vocabula/core';
import type { Arrival, Family } from '@vocabula/core/arrives';
import type { Look } from '../../ui/look';

/** Where a message of the table comes from. */
export type Series = 'recipients' | 'hard' | 'pairing';
export const SERIES = ['recipients', 'hard', 'pairing'] as const satisfies readonly Series[];

export interface TemplateParts {
  readonly text: { readonly name: string; readonly document: TextDocument };
  /** Texts that may be included, by name. */
  readonly library: readonly (readonly [name: string, document: TextDocument])[];
  readonly house: House;
  readonly signature: string | null;
  readonly sender: Readonly<Record<string, string>>;
  readonly today: string;
  readonly zone: string;
}

/** Which message is meant: of the template that is proofed, or of another text for the same recipients. */
export interface Which {
  readonly series: Series;
  readonly at: number;
  /** The name of another text, from `other` requests. */
  readonly other?: string;
}

export type ProofingRequest =
  /** With the recipients, where they are others than before: what is worked out for none would be for nothing. */
  | { readonly what: 'template'; readonly parts: TemplateParts; readonly rows?: readonly SampleRow[] }
  | { readonly what: 'recipients'; readonly rows: readonly SampleRow[] }
  | { readonly what: 'strength'; readonly strength: 2 | 3 }
  | { readonly what: 'stop' }
  | { readonly what: 'go on' }
  | {
      readonly what: 'other';
      readonly name: string;
      readonly document: TextDocument;
      readonly library: TemplateParts['library'];
    }
  | { readonly what: 'message'; readonly id: number; readonly which: Which }
  | {
      readonly what: 'explain';
      readonly id: number;
      readonly which: Which;
      readonly part: 'subject' | 'body';
      readonly stretch: number;
    }
  | { readonly what: 'compare'; readonly id: number; readonly left: Which; readonly right: Which }
  | { readonly what: 'arrivals'; readonly id: number; readonly which: Which; readonly families: readonly Family[] }
  | { readonly what: 'fillings'; readonly id: number; readonly of: readonly Which[] };

/** A sheet as it is sent: a figure a passage, 1 for kept, 0 for left out. */
export interface SentSheet extends Omit<Sheet, 'held' | 'kept'> {
  readonly kept: string;
}

/** What a case is, in words. */
export interface CaseWords {
  readonly key: string;
  readonly label: string;
  readonly detail: string;
  readonly levels: readonly { readonly label: string; readonly words: string; readonly fresh: boolean }[];
}

export interface PairingWords {
  readonly strength: 2 | 3;
  readonly covered: number;
  readonly impossible: readonly { readonly because: string; readonly count: number }[];
  readonly notFound: number;
}

export interface ShownStretch {
  readonly text: string;
  readonly path: readonly number[];
  readonly variable: string | undefined;
  readonly wordingOf: string | undefined;
  /** Opening tags of its conditions. */
  readonly tags: readonly string[];
  readonly blocks: readonly string[];
}

export interface ShownMessage {
  readonly subject: string;
  readonly subjectPieces: readonly string[];
  readonly subjectStretches: readonly ShownStretch[];
  /** With a span around every stretch. */
  readonly fragment: string;
  readonly stretches: readonly ShownStretch[];
  readonly html: string;
  readonly text: string;
  readonly to: readonly string[];
  readonly cc: readonly string[];
  readonly bcc: readonly string[];
  readonly replyTo: readonly string[];
  readonly attachments: readonly { readonly file: string; readonly name: string }[];
  readonly blanks: readonly string[];
  readonly findings: readonly Finding[];
  /** Numbers of the stretches that are blanks. */
  readonly blankStretches: readonly number[];
  readonly filling: Filling;
  readonly look: Look;
}

/** How a message arrives: how many losses each family has, and some of them whole. */
export interface ShownArrivals {
  readonly losses: Readonly<Record<Family, number>>;
  readonly arrivals: readonly Arrival[];
}

export interface NeedWords {
  readonly column: string;
  readonly label: string;
  readonly type: TypeName;
  readonly required: boolean;
  readonly as: 'field' | 'answer';
}

export type ProofingReply =
  | {
      readonly what: 'template';
      readonly passages: readonly { readonly tag: string; readonly label: string }[];
      readonly values: readonly ValueColumn[];
      readonly findings: readonly Finding[];
      readonly needs: readonly NeedWords[];
      readonly look: Look;
    }
  | {
      readonly what: 'cases';
      readonly series: 'hard' | 'pairing';
      readonly cases: readonly CaseWords[];
      readonly pairing?: PairingWords;
    }
  | {
      readonly what: 'sheets';
      readonly series: Series;
      readonly from: number;
      readonly sheets: readonly SentSheet[];
      /** Lines of the book that were not sent before, and the number of the first. */
      readonly lines: readonly string[];
      readonly linesFrom: number;
    }
  | {
      readonly what: 'progress';
      readonly doing: string;
      readonly done: number;
      readonly total: number;
      /** How many were rendered anew; the others stayed as they were. */
      readonly fresh: number;
      readonly over: boolean;
    }
  | { readonly what: 'message'; readonly id: number; readonly message: ShownMessage | undefined }
  | { readonly what: 'explain'; readonly id: number; readonly explanation: Explanation | undefined }
  | { readonly what: 'arrivals'; readonly id: number; readonly shown: ShownArrivals | undefined }
  | { readonly what: 'compare'; readonly id: number; readonly paragraphs: readonly ComparedParagraph[] }
  | { readonly what: 'fillings'; readonly id: number; readonly fillings: readonly (Filling | undefined)[] };
