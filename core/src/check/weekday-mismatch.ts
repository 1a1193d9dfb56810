import { dayFormat } from '../values/intl.js';
import { weekdaysOf } from '../values/weekdays.js';
import { advice } from '../findings/finding.js';
import { dayNumber, weekdayNumber } from '../values/date.js';
import { placeIn, replacing, type Check } from './check.js';
import { DATE_LANGUAGES, dayOfGroups, dayPattern, escapePattern, monthsOf } from './dates.js';

const patterns = new Map<string, { readonly pattern: RegExp; readonly months: readonly string[] }>();

/** A weekday, then day, month and year (or month, day and year), in the words of a language. */
function patternFor(language: string): { readonly pattern: RegExp; readonly months: readonly string[] } {
  let made = patterns.get(language);
  if (!made) {
    const weekday = `(${weekdaysOf(language).map(escapePattern).join('|')})`;
    made = {
      pattern: new RegExp(
        `(?<!\\p{L})${weekday},?\\s+(?:(?:den|der|le|el|il|de|of|the)\\s+)?${dayPattern(language)}`,
        'giu',
      ),
      months: monthsOf(language),
    };
    patterns.set(language, made);
  }
  return made;
}

/** A written weekday and date that disagree. */
export const weekdayMismatch: Check = {
  languages: DATE_LANGUAGES,
  run: ({ lines, language }) => {
    const { pattern, months } = patternFor(language);
    const names = weekdaysOf(language);
    return lines.flatMap((line) =>
      [...line.text.matchAll(pattern)].flatMap((match) => {
        const [whole, weekday = ''] = match;
        const day = dayOfGroups(match.slice(2, 8), months, language);
        const written = names.indexOf(weekday.toLocaleLowerCase(language));
        if (day === undefined)
          return [
            advice({ code: 'weekday-mismatch', why: 'no-day', text: whole }, placeIn(line, match.index, whole.length)),
          ];
        if (weekdayNumber(day) === written) return [];
        const right = dayFormat(language, { weekday: 'long' }).format(dayNumber(day) * 86_400_000);
        const place = placeIn(line, match.index, weekday.length);
        return [
          advice(
            {
              code: 'weekday-mismatch',
              why: 'written',
              day: whole.slice(weekday.length).replace(/^[,\s]+/, ''),
              right,
              wrong: weekday,
            },
            place,
            'warning',
            replacing(`Write ${right}`, place, right),
          ),
        ];
      }),
    );
  },
};
