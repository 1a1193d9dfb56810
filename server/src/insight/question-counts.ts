/** Counts how the questions of a text were answered. */
import type { QuestionInsight } from '@vocabula/contract';
import { labelFromKey, labelOf, type NamedDocument, type Variable } from '@vocabula/core';
import type { SentMessage } from './sent-messages.js';

/** Answers to each question of the current texts. Only messages whose version asked the question count. */
export function questionCounts(texts: readonly NamedDocument[], messages: readonly SentMessage[]): QuestionInsight[] {
  return questionsOf(texts).map((variable) => countsOf(variable, messages));
}

/** The questions of some texts, each once, in order. */
export function questionsOf(texts: readonly NamedDocument[]): Variable[] {
  const questions = new Map<string, Variable>();
  for (const { document } of texts)
    for (const variable of document.attrs.variables)
      if (isAsked(variable) && !questions.has(variable.key)) questions.set(variable.key, variable);
  return [...questions.values()];
}

/** Whether somebody answers a variable: its value is neither calculated nor taken from a field. */
const isAsked = ({ value, from }: Variable): boolean => value === undefined && from === undefined;
const isEmpty = (answer: unknown): boolean => answer === undefined || answer === null || answer === '';

function countsOf(variable: Variable, messages: readonly SentMessage[]): QuestionInsight {
  const { key, type, options = [], default: preset } = variable;
  const answers = messages
    .filter(({ texts }) =>
      texts.some(({ document }) => document.attrs.variables.some((declared) => declared.key === key)),
    )
    .map((message) => message.answers[key] ?? preset);
  const words = answers.map((answer) => answerWords(variable, answer));
  const usual = mostFrequent(words.filter((_, index) => !isEmpty(answers[index])));
  const presetWords = answerWords(variable, preset);
  return {
    ...{ key, label: variable.label ?? labelFromKey(key), type, asked: answers.length },
    empty: answers.filter(isEmpty).length,
    ...(preset === undefined ? {} : { changed: words.filter((each) => each !== presetWords).length }),
    ...(usual && { usual }),
    options: options.map((option) => ({
      key: option.key,
      label: labelOf(option),
      count: answers.filter((answer) => (Array.isArray(answer) ? answer.includes(option.key) : answer === option.key))
        .length,
    })),
  };
}

/** The most frequent entry; of equally frequent ones the first in code unit order; undefined for an empty list. */
function mostFrequent(entries: readonly string[]): { words: string; count: number } | undefined {
  const counts = new Map<string, number>();
  for (const entry of entries) counts.set(entry, (counts.get(entry) ?? 0) + 1);
  const [first] = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  return first && { words: first[0], count: first[1] };
}

/** An answer as words. Defaults are source text, so "true" is a yes. */
export function answerWords({ options = [], words }: Variable, answer: unknown): string {
  if (answer === true || answer === 'true') return words?.yes ?? 'yes';
  if (answer === false || answer === 'false') return words?.no ?? 'no';
  if (Array.isArray(answer) && answer.every((each) => typeof each === 'string'))
    return answer.map((each) => answerWords({ key: '', type: 'choice', options }, each)).join(', ');
  if (typeof answer !== 'string') return JSON.stringify(answer) ?? '';
  const option = options.find(({ key }) => key === answer);
  return option ? labelOf(option) : answer;
}
