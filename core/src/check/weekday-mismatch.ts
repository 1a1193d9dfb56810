import { dayFormat } from '../values/intl.js';
import { weekdaysOf } from '../values/weekdays.js';
import { advice } from '../findings/finding.js';
import { dayNumber, isDay, weekdayNumber } from '../values/date.js';
import { placeIn, replacing, type Check } from './check.js';

const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'];
const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const patterns = new Map<string, { readonly pattern: RegExp; readonly months: readonly string[] }>();

/** A weekday, then day, month and year (or month, day and year), in the words of a language. */
function patternFor(language: string): { readonly pattern: RegExp; readonly months: readonly string[] } {
  let made = patterns.get(language);
  if (!made) {
    const format = dayFormat(language, { month: 'long' });
    const months = Array.from({ length: 12 }, (_, month) =>
      format.format(Date.UTC(2001, month, 15)).toLocaleLowerCase(language),
    );
    const weekday = `(${weekdaysOf(language).map(escape).join('|')})`;
    const month = `(${months.map(escape).join('|')})`;
    const day = '(\\d{1,2})(?:st|nd|rd|th|er|\\.)?';
    const year = '(\\d{4})';
    const little = '(?:den|der|le|el|il|de|of|the)';
    const pattern = new RegExp(
      `(?<!\\p{L})${weekday},?\\s+(?:${little}\\s+)?(?:${day}\\s+(?:${little}\\s+)?${month},?\\s+(?:${little}\\s+)?${year}|${month}\\s+${day},?\\s+${year})(?!\\d)`,
      'giu',
    );
    made = { pattern, months };
    patterns.set(language, made);
  }
  return made;
}

/** A written weekday and date that disagree. */
export const weekdayMismatch: Check = {
  languages: LANGUAGES,
  run: ({ lines, language }) => {
    const { pattern, months } = patternFor(language);
    const names = weekdaysOf(language);
    return lines.flatMap((line) =>
      [...line.text.matchAll(pattern)].flatMap((match) => {
        const [whole, weekday = '', d1, m1, y1, m2, d2, y2] = match;
        const month = months.indexOf((m1 ?? m2 ?? '').toLocaleLowerCase(language)) + 1;
        const day = `${y1 ?? y2}-${String(month).padStart(2, '0')}-${(d1 ?? d2 ?? '').padStart(2, '0')}`;
        const written = names.indexOf(weekday.toLocaleLowerCase(language));
        if (!isDay(day))
          return [
            advice(
              'weekday-mismatch',
              `“${whole}” is no day of the calendar.`,
              placeIn(line, match.index, whole.length),
            ),
          ];
        if (weekdayNumber(day) === written) return [];
        const right = dayFormat(language, { weekday: 'long' }).format(dayNumber(day) * 86_400_000);
        const place = placeIn(line, match.index, weekday.length);
        return [
          advice(
            'weekday-mismatch',
            `${whole.slice(weekday.length).replace(/^[,\s]+/, '')} is a ${right}, not a ${weekday}.`,
            place,
            'warning',
            replacing(`Write ${right}`, place, right),
          ),
        ];
      }),
    );
  },
};
