/**
 * Findings: what reading, compiling, checking and rendering notice.
 * They are data (a stable code with its fields, a level, a place), never thrown. Their sentences are in `words.ts`.
 */

import type { Inline } from '../template/document.js';
import { sentenceOf, type AdviceCode, type ErrorCode, type FindingData } from './words.js';

export { ADVICE_CODES, ERROR_CODES, sentenceOf } from './words.js';
export type { AdviceCode, Declared, ErrorCode, FindingCode, FindingData } from './words.js';

/** How serious a finding is: an error stops publishing, a warning advises, a note informs. */
export type Level = 'error' | 'warning' | 'note';

/**
 * Where a finding is. `path` are child indexes from the document's top node; `variable` and `attribute`
 * name a declaration; `offset` and `length` are UTF-16 units inside the text or expression meant;
 * `line` is counted from 1 in a file that was read; `text` is the name of the text, when it is not
 * the one being looked at.
 */
export interface Place {
  readonly text?: string;
  readonly path?: readonly number[];
  readonly variable?: string;
  readonly attribute?: string;
  readonly offset?: number;
  readonly length?: number;
  readonly line?: number;
}

/** A change that would settle a finding, described as data so that any editor can apply it. */
export type Repair = { readonly label: string; readonly path: readonly number[] } & (
  | {
      /** Replaces `length` units at `offset` of the text node at `path`, keeping its marks. */
      readonly how: 'replace';
      readonly offset: number;
      readonly length: number;
      readonly insert: string | readonly Inline[];
    }
  | {
      /** Takes a colour off the inline node at `path`, or gives it another. */
      readonly how: 'recolour';
      readonly mark: 'colour' | 'highlight';
      readonly name: string | undefined;
    }
  | {
      /** Gives the node at `path` other attributes. */
      readonly how: 'attributes';
      readonly attrs: Readonly<Record<string, unknown>>;
    }
);

/** One thing that was noticed: what it is (as data, and in words), how serious, where, and how it can be repaired. */
export type Finding = FindingData & {
  readonly level: Level;
  /** The sentence, made by `sentenceOf`. For people to read, never to decide by. */
  readonly message: string;
  readonly place: Place;
  readonly repair?: Repair;
};

/** Makes an error. */
export const error = (data: FindingData<ErrorCode>, place: Place = {}): Finding => finding(data, 'error', place);

/** Makes a warning, or a note when the level says so. */
export const advice = (
  data: FindingData<AdviceCode>,
  place: Place = {},
  level: 'warning' | 'note' = 'warning',
  repair?: Repair,
): Finding => finding(data, level, place, repair);

/** What a file or a person gave is kept no longer than this: many findings may hold the same large text. */
const LONGEST_FIELD = 300;

function finding(data: FindingData, level: Level, place: Place, repair?: Repair): Finding {
  const found = { level, message: sentenceOf(data), place, ...(repair ? { repair } : {}) };
  const kept = Object.fromEntries(
    Object.entries(data).map(([name, value]) => [
      name,
      typeof value === 'string' ? value.slice(0, LONGEST_FIELD) : value,
    ]),
  );
  // The fields are those of the data, the long ones shortened.
  return Object.assign(kept as typeof data, found);
}

/** True if any of the findings is an error. */
export function hasErrors(findings: readonly Finding[]): boolean {
  return findings.some((finding) => finding.level === 'error');
}

/** Findings without exact repetitions, in their order. */
export function distinct(findings: readonly Finding[]): Finding[] {
  const seen = new Set<string>();
  return findings.filter((finding) => {
    const id = JSON.stringify([finding.code, finding.message, finding.place]);
    return !seen.has(id) && seen.add(id);
  });
}

/** The place in words, beginning with `line N` when there is one. */
export function placeInWords(place: Place): string {
  const parts: string[] = [];
  if (place.line !== undefined) parts.push(`line ${place.line}`);
  if (place.text) parts.push(`in ${place.text}`);
  if (place.variable) parts.push(`variable ${place.variable}${place.attribute ? ` (${place.attribute})` : ''}`);
  else if (place.attribute) parts.push(place.attribute);
  if (place.offset !== undefined && place.variable) parts.push(`character ${place.offset + 1}`);
  return parts.join(', ');
}
