/**
 * Findings: what reading, compiling, checking and rendering notice.
 * They are data (a stable code, a level, words, a place), never thrown.
 */

import type { Inline } from '../template/document.js';

/** How serious a finding is: an error stops publishing, a warning advises, a note informs. */
export type Level = 'error' | 'warning' | 'note';

/** Codes that are always errors. A template with one of them cannot be trusted to send. */
export const ERROR_CODES = [
  'bad-file',
  'unknown-type',
  'unknown-attribute',
  'unknown-variable',
  'unknown-view',
  'unknown-block',
  'unsupported-tag',
  'bad-key',
  'reserved-key',
  'duplicate-key',
  'unclosed-passage',
  'not-a-condition',
  'repeat-in-line',
  'block-loop',
  'too-deep',
  'block-in-line',
  'two-signatures',
  'value-loop',
  'type-clash',
  'bad-expression',
  'bad-value',
  'no-subject',
  'bad-address',
  'unsafe-link',
  'too-costly',
] as const;

/** Codes of the checks that advise rather than stop. */
export const ADVICE_CODES = [
  'leftover-marker',
  'unused-variable',
  'never-kept',
  'always-kept',
  'unsupported-html',
  'unknown-locale',
  'doubled-word',
  'doubled-space',
  'attachment-missing',
  'weekday-mismatch',
  'long-subject',
  'missing-alt',
  'off-style',
  'fact-as-text',
  'past-date',
  'fixed-date',
  'stray-value',
  'broken-series',
  'sentence-start',
  'vague-link',
  'bare-link',
  'heading-skipped',
  'table-without-header',
  'title-as-subject',
  'mixed-greeting',
  'a-or-an',
  'unbalanced-punctuation',
  'low-contrast',
  'lost-look',
  'large-message',
  'review-overdue',
  'counted',
] as const;

/** The code of an error. */
export type ErrorCode = (typeof ERROR_CODES)[number];
/** The code of a warning or a note. */
export type AdviceCode = (typeof ADVICE_CODES)[number];
/** The code of any finding. Codes are stable: programs may go by them. */
export type FindingCode = ErrorCode | AdviceCode;

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

/** One thing that was noticed: what kind it is, in words, where, and how it can be repaired. */
export interface Finding {
  readonly code: FindingCode;
  readonly level: Level;
  readonly message: string;
  readonly place: Place;
  readonly repair?: Repair;
}

/** Makes an error. */
export function error(code: ErrorCode, message: string, place: Place = {}): Finding {
  return { code, level: 'error', message, place };
}

/** Makes a warning, or a note when the level says so. */
export function advice(
  code: AdviceCode,
  message: string,
  place: Place = {},
  level: 'warning' | 'note' = 'warning',
  repair?: Repair,
): Finding {
  return { code, level, message, place, ...(repair ? { repair } : {}) };
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
