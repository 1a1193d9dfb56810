/** Looks back at one text: what happened to its sentences, how its questions were answered, and what that suggests. */
import type { TextInsight } from '@vocabula/contract';
import { DEFAULT_LOCALE } from '@vocabula/core';
import { closure } from '../catalogue/visible-texts.js';
import type { Reader } from '../db/database.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';
import { questionCounts } from './question-counts.js';
import type { ReportScope } from './report-scope.js';
import { OutcomeGroups } from './outcome-groups.js';
import { sentMessages, traceOf } from './sent-messages.js';
import { SentenceCounts } from './sentence-counts.js';
import { suggestionsOf } from './suggestions.js';

/** The report on one text. Throws "not found" if the user may not write the text. */
export async function textInsight(
  reader: Reader,
  name: string,
  scope: ReportScope & { readonly zone: string },
  user: User,
): Promise<TextInsight> {
  const texts = await closure(reader, name, user, 'write');
  const [own] = texts;
  if (!own) throw notFound('text');
  const { locale = DEFAULT_LOCALE, title } = own.document.attrs.front;
  const messages = await sentMessages(reader, name, scope);
  const counts = new SentenceCounts(texts, locale);
  const outcomes = new OutcomeGroups(texts, scope.zone);
  for (const message of messages) {
    const trace = traceOf(message);
    counts.add(message, trace);
    outcomes.add(message, trace);
  }
  const sentences = counts.result();
  const questions = questionCounts(texts, messages);
  return {
    ...{ name, title, uses: messages.length, sentences, questions },
    added: counts.additions(),
    suggestions: suggestionsOf(messages.length, sentences, questions),
    outcomes: outcomes.result(),
  };
}
