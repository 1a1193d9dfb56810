import { DATE_LANGUAGES, speaksOfThePast } from './dates.js';
import type { FilledCheck } from './filled.js';

/** A day or moment that the message names is over, and nothing says that it is meant to be. */
export const pastDate: FilledCheck = {
  languages: DATE_LANGUAGES,
  run({ lines, program, value, today, language }) {
    const days = new Map<string, string>();
    for (const { key, label, variable } of program.slots) {
      if (variable.type !== 'date' && variable.type !== 'datetime') continue;
      const given = value(key);
      if (typeof given === 'string' && given.slice(0, 10) < today) days.set(key, label);
    }
    if (days.size === 0) return [];
    return lines.flatMap(({ pieces, text }) => {
      let at = 0;
      return pieces.flatMap((piece) => {
        const start = at;
        at += piece.text.length;
        const label = piece.origin.variable === undefined ? undefined : days.get(piece.origin.variable);
        // A month or a weekday alone says nothing of the day.
        if (label === undefined || !/\d/.test(piece.text) || speaksOfThePast(text, start, language)) return [];
        return [{ data: { code: 'past-date' as const, text: label }, origin: piece.origin }];
      });
    });
  },
};
