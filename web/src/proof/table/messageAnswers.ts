/** What the proofing table tells about one message: itself, how it arrives, and why its words are there. */
import { openingTag, writtenEnvelope, type Message } from '@vocabula/core';
import { arriveIn, FAMILIES, type Family } from '@vocabula/core/arrives';
import { explain, withStretches, type Filling, type Sheet } from '@vocabula/core/proof';
import { lookOf } from '../../ui/look';
import type { ProofedTemplate } from './proofedTemplate';
import type { SentSheet, ShownArrivals, ShownMessage, ShownStretch } from './protocol';

/** A message with its findings and the origin of each of its stretches. */
export function shownMessage({ table, program }: ProofedTemplate, filling: Filling): ShownMessage {
  const { message, sheet } = table.proof(filling);
  const { trace = [], subjectTrace = [] } = message;
  const blank = new Set(message.blanks);
  return {
    ...messageParts(message),
    subjectPieces: subjectTrace.map(({ from, to }) => message.subject.slice(from, to)),
    subjectStretches: subjectTrace.map(shownStretch),
    fragment: withStretches(message.fragment, trace),
    stretches: trace.map(shownStretch),
    findings: sheet.findings,
    blankStretches: trace.flatMap(({ from, origin }, index) =>
      origin.variable !== undefined && blank.has(origin.variable) && message.fragment[from] === '[' ? [index] : [],
    ),
    filling,
    look: lookOf(program),
  };
}

/** The message as families of mail programs show it; the number of losses is given for all of them. */
export function shownArrivals(
  { table, program }: ProofedTemplate,
  filling: Filling,
  families: readonly Family[],
): ShownArrivals {
  const message = table.message(filling);
  const all = FAMILIES.map((family) => arriveIn(family, message, program.locale));
  return {
    losses: Object.fromEntries(all.map(({ family, losses }) => [family, losses.length])) as Record<Family, number>,
    arrivals: all.filter(({ family }) => families.includes(family)),
  };
}

/** Why a stretch of the subject or the body is there; undefined if there is no such stretch. */
export function explanationOf(
  { table, program, parts }: ProofedTemplate,
  filling: Filling,
  part: 'subject' | 'body',
  index: number,
): ReturnType<typeof explain> | undefined {
  const message = table.message(filling);
  const stretch = (part === 'subject' ? message.subjectTrace : message.trace)?.[index];
  const { today, zone } = parts;
  return stretch && explain(program, { ...filling, today, zone }, stretch.origin);
}

/** A sheet as it is posted to the page. */
export const sentSheet = ({ held: _held, kept, ...rest }: Sheet): SentSheet => ({ ...rest, kept: kept.join('') });

const messageParts = ({ subject, html, text, attachments, blanks, ...addresses }: Message) => ({
  ...{ subject, html, text, attachments, blanks },
  ...writtenEnvelope(addresses),
});

const shownStretch = ({ origin }: NonNullable<Message['trace']>[number]): ShownStretch => ({
  text: origin.text,
  path: origin.path,
  variable: origin.variable,
  wordingOf: origin.wordingOf,
  tags: origin.conditions.map(openingTag),
  blocks: origin.blocks,
});
