/** What type the cells of a column are, and the form of answers for them. */
import { isEmail, safeUrl } from '../../values/address.js';
import { isDay } from '../../values/date.js';
import type { TypeName } from '../../template/variable.js';

/** Types a column of a table may have. */
export const COLUMN_TYPES = [
  'text',
  'number',
  'date',
  'yes-no',
  'email',
  'phone',
  'link',
] as const satisfies readonly TypeName[];
export type ColumnType = (typeof COLUMN_TYPES)[number];

/** How to rewrite a cell, told from the whole column. */
export interface ColumnForm {
  readonly type: ColumnType;
  rewrite(cell: string): string;
}

const asIs = (cell: string): string => cell;
const POINT = /^[+-]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?$/;
const COMMA = /^[+-]?(?:\d{1,3}(?:[.\u00A0\u202F ]\d{3})+|\d+)(?:,\d+)?$/;
const WRITTEN_DAY = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/;

/** Recognises a column from its filled cells. What is doubtful stays text: nothing is guessed that could be wrong. */
export function recogniseColumn(cells: readonly string[]): ColumnForm {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  const all = (test: (cell: string) => boolean): boolean => filled.length > 0 && filled.every(test);
  if (all(isEmail)) return { type: 'email', rewrite: (cell) => cell.trim() };
  if (all(isDay)) return { type: 'date', rewrite: (cell) => cell.trim() };
  const order = dayOrder(filled);
  if (order) return { type: 'date', rewrite: (cell) => writtenDay(cell.trim(), order) ?? cell };
  // A leading zero is part of a number plate, a post code or a member's number: never a quantity.
  if (all((cell) => !/^[+-]?0\d/.test(cell) && cell.length <= 17)) {
    if (all((cell) => /^[+-]?\d+$/.test(cell))) return { type: 'number', rewrite: (cell) => cell.trim() };
    if (all((cell) => POINT.test(cell)) && !filled.every((cell) => /^[+-]?\d{1,3},\d{3}$/.test(cell)))
      return { type: 'number', rewrite: (cell) => cell.trim().replace(/,/g, '') };
    if (
      all((cell) => COMMA.test(cell)) &&
      filled.some((cell) => cell.includes(',')) &&
      !filled.every((cell) => /^[+-]?\d{1,3},\d{3}$/.test(cell))
    )
      return {
        type: 'number',
        rewrite: (cell) =>
          cell
            .trim()
            .replace(/[.\u00A0\u202F ]/g, '')
            .replace(',', '.'),
      };
  }
  if (all((cell) => /^(?:true|false|yes|no)$/i.test(cell)))
    return {
      type: 'yes-no',
      rewrite: (cell) =>
        ({ true: 'true', yes: 'true', false: 'false', no: 'false' })[cell.trim().toLowerCase()] ?? cell,
    };
  if (all((cell) => /^\+[\d ()./-]{6,24}$/.test(cell))) return { type: 'phone', rewrite: asIs };
  if (all((cell) => /^(?:https?|mailto|tel):/i.test(cell) && safeUrl(cell) !== undefined))
    return { type: 'link', rewrite: asIs };
  return { type: 'text', rewrite: asIs };
}

/** Which of two numbers is the day, if the column itself says so beyond doubt. */
function dayOrder(cells: readonly string[]): 'day first' | 'month first' | undefined {
  let first = 0;
  let second = 0;
  for (const cell of cells) {
    const match = WRITTEN_DAY.exec(cell);
    if (!match) return undefined;
    first = Math.max(first, Number(match[1]));
    second = Math.max(second, Number(match[2]));
  }
  const order = first > 12 && second <= 12 ? 'day first' : second > 12 && first <= 12 ? 'month first' : undefined;
  return order && cells.every((cell) => writtenDay(cell, order) !== undefined) ? order : undefined;
}

function writtenDay(cell: string, order: 'day first' | 'month first'): string | undefined {
  const [, a = '', b = '', year = ''] = WRITTEN_DAY.exec(cell) ?? [];
  const [day, month] = order === 'day first' ? [a, b] : [b, a];
  const iso = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isDay(iso) ? iso : undefined;
}
