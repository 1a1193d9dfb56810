/** Suggestions computed from the figures of a text, each with its evidence. Small numbers suggest nothing. */
import type { QuestionInsight, SentenceInsight, Suggestion } from '@vocabula/contract';
import { rate } from '@vocabula/core/insight';

/** At least this many messages are needed for a suggestion. */
const MIN_MESSAGES = 10;
/** At least this many answers are needed to suggest dropping an option that nobody chose. */
const MIN_FOR_OPTIONS = 30;
/** A default is suggested when at least this share of answers is the same (lower end of the interval). */
const NEARLY_ALL = 0.9;
/** A change is suggested when at least this share of messages made it (lower end of the interval). */
const OFTEN = 0.15;

/** What the figures of a text suggest; `uses` is its number of messages in the period. */
export function suggestionsOf(
  uses: number,
  sentences: readonly SentenceInsight[],
  questions: readonly QuestionInsight[],
): Suggestion[] {
  if (uses === 0)
    return [
      {
        kind: 'retire',
        words: 'Retire it, or tell people about it.',
        evidence: 'No message in this period.',
        about: '',
      },
    ];
  return [...sentences.flatMap(sentenceSuggestions), ...questions.flatMap(questionSuggestions)];
}

const quoted = (words: string): string => `“${words.length > 70 ? `${words.slice(0, 69).trimEnd()}…` : words}”`;

function sentenceSuggestions({ words, shown, reworded, takenOut, replacements }: SentenceInsight): Suggestion[] {
  if (shown < MIN_MESSAGES) return [];
  const suggestions: Suggestion[] = [];
  const [first] = replacements;
  if (first && rate(Math.min(reworded, shown), shown).low >= OFTEN)
    suggestions.push({
      kind: 'reword',
      words: `Say ${quoted(first.words)} instead of ${quoted(words)}?`,
      evidence: `${reworded} of ${shown} messages reworded it, ${first.count} of them in these words.`,
      about: words,
    });
  if (rate(Math.min(takenOut, shown), shown).low >= OFTEN)
    suggestions.push({
      kind: 'option',
      words: `Make ${quoted(words)} optional?`,
      evidence: `${takenOut} of ${shown} messages left it out.`,
      about: words,
    });
  return suggestions;
}

function questionSuggestions({ key, label, asked, usual, changed, options }: QuestionInsight): Suggestion[] {
  const suggestions: Suggestion[] = [];
  // A default that most messages keep needs no change.
  if (usual && asked >= MIN_MESSAGES && (changed === undefined || changed > asked / 2))
    if (rate(usual.count, asked).low >= NEARLY_ALL || usual.count === asked)
      suggestions.push({
        kind: 'default',
        words: `Make ${quoted(usual.words)} the default of “${label}”?`,
        evidence: `${usual.count} of ${asked} chose it.`,
        about: key,
      });
  if (asked >= MIN_FOR_OPTIONS)
    for (const option of options)
      if (option.count === 0)
        suggestions.push({
          kind: 'drop option',
          words: `Drop the option “${option.label}” of “${label}”?`,
          evidence: `None of ${asked} chose it.`,
          about: key,
        });
  return suggestions;
}
