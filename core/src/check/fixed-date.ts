import { advice } from '../findings/finding.js';
import { placeIn, type Check } from './check.js';
import { DATE_LANGUAGES, speaksOfThePast, writtenDays } from './dates.js';

/**
 * A day with its year written as fixed text: `past-date` if it is gone already and nothing says that it is meant to be,
 * `fixed-date`, a note, if it will be.
 */
export const fixedDate: Check = {
  languages: DATE_LANGUAGES,
  run({ lines, language, program }) {
    const { today } = program;
    return lines.flatMap((line) =>
      writtenDays(line.text, language).flatMap(({ day, index, text }) => {
        if (day === undefined || speaksOfThePast(line.text, index, language)) return [];
        const place = placeIn(line, index, text.length);
        return [
          day < today
            ? advice({ code: 'past-date', text }, place)
            : advice({ code: 'fixed-date', text }, place, 'note'),
        ];
      }),
    );
  },
};
