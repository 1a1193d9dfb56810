/** What type the cells of a column are, and the form of answers for them. */
import { isEmail, safeUrl } from '../../values/address.js';
import { isDay } from '../../values/date.js';
import type { ColumnType } from '../../template/variable.js';

/** Which comes first in dates written in figures. */
export type DayOrder = 'day first' | 'month first';

/** What an importer decides about a column. */
export interface ColumnChoice {
  readonly type?: ColumnType | undefined;
  /** Of dates written in figures. */
  readonly order?: DayOrder | undefined;
}

/** How to rewrite a cell, told from the whole column. */
export interface ColumnForm {
  readonly type: ColumnType;
  /** Three different cells of dates that could be read either way; none where there is no doubt. */
  readonly doubtful: readonly string[];
  /** How many filled cells are not of the type; they stay as they are. */
  readonly misfits: number;
  rewrite(cell: string): string;
}

/** A cell in the form of answers; undefined for one that is not of the type. */
type Reader = (cell: string) => string | undefined;

const POINT = /^[+-]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?$/;
const COMMA = /^[+-]?(?:\d{1,3}(?:[.\u00A0\u202F ]\d{3})+|\d+)(?:,\d+)?$/;
const WRITTEN_DAY = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/;
const YES_NO: Readonly<Record<string, string>> = {
  true: 'true',
  yes: 'true',
  false: 'false',
  no: 'false',
};

const asPoint: Reader = (cell) => (POINT.test(cell) ? cell.replace(/,/g, '') : undefined);
const asComma: Reader = (cell) =>
  COMMA.test(cell) ? cell.replace(/[.\u00A0\u202F ]/g, '').replace(',', '.') : undefined;
const asDay: Reader = (cell) => (isDay(cell) ? cell : undefined);
const asYesNo: Reader = (cell) => YES_NO[cell.toLowerCase()];
const asEmail: Reader = (cell) => (isEmail(cell) ? cell : undefined);
const asPhone: Reader = (cell) => (/^\+[\d ()./-]{6,24}$/.test(cell) ? cell : undefined);
const asLink: Reader = (cell) =>
  /^(?:https?|mailto|tel):/i.test(cell) && safeUrl(cell) !== undefined ? cell : undefined;

/**
 * Recognises a column from its filled cells. What is doubtful stays text: nothing is guessed that could be wrong.
 * A choice goes before what would be recognised.
 */
export function recogniseColumn(cells: readonly string[], choice: ColumnChoice = {}): ColumnForm {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  const doubtful = doubtfulDays(filled);
  if (choice.type) return formed(choice.type, chosenReader(choice, filled), filled, doubtful);
  if (choice.order) return formed('date', dayReader(choice.order), filled, doubtful);
  const { type, read } = recognised(filled);
  return formed(type, read, filled, type === 'text' ? doubtful : []);
}

function formed(type: ColumnType, read: Reader, filled: readonly string[], doubtful: readonly string[]): ColumnForm {
  return {
    type,
    doubtful,
    misfits: type === 'text' ? 0 : filled.filter((cell) => read(cell) === undefined).length,
    rewrite: type === 'text' ? (cell) => cell : (cell) => read(cell.trim()) ?? cell,
  };
}

function recognised(filled: readonly string[]): { readonly type: ColumnType; readonly read: Reader } {
  const all = (read: Reader): boolean => filled.length > 0 && filled.every((cell) => read(cell) !== undefined);
  if (all(asEmail)) return { type: 'email', read: asEmail };
  if (all(asDay)) return { type: 'date', read: asDay };
  const order = dayOrder(filled);
  if (order) return { type: 'date', read: dayReader(order) };
  const number = numberReader(filled);
  if (number) return { type: 'number', read: number };
  if (all(asYesNo)) return { type: 'yes-no', read: asYesNo };
  if (all(asPhone)) return { type: 'phone', read: asPhone };
  if (all(asLink)) return { type: 'link', read: asLink };
  return { type: 'text', read: (cell) => cell };
}

function chosenReader({ type, order }: ColumnChoice, filled: readonly string[]): Reader {
  switch (type) {
    case 'date': {
      const written = dayReader(order ?? dayOrder(filled) ?? 'day first');
      return (cell) => asDay(cell) ?? written(cell);
    }
    case 'number':
      return numberReader(filled) ?? ((cell) => asPoint(cell) ?? asComma(cell));
    case 'yes-no':
      return (cell) =>
        asYesNo(cell) ?? { '1': 'true', '0': 'false', x: 'true', y: 'true', n: 'false' }[cell.toLowerCase()];
    case 'email':
      return asEmail;
    case 'phone':
      return (cell) => (/\d{4}/.test(cell) ? cell : undefined);
    case 'link':
      return asLink;
    default:
      return (cell) => cell;
  }
}

/** How all cells are numbers, if they are. */
function numberReader(filled: readonly string[]): Reader | undefined {
  // A leading zero is part of a number plate, a post code or a member's number: never a quantity.
  if (filled.length === 0 || filled.some((cell) => /^[+-]?0\d/.test(cell) || cell.length > 17)) return undefined;
  if (filled.every((cell) => /^[+-]?\d+$/.test(cell))) return asPoint;
  // “1,234” alone could be either.
  if (filled.every((cell) => /^[+-]?\d{1,3},\d{3}$/.test(cell))) return undefined;
  if (filled.every((cell) => POINT.test(cell))) return asPoint;
  return filled.every((cell) => COMMA.test(cell)) && filled.some((cell) => cell.includes(',')) ? asComma : undefined;
}

/** Cells that are days whichever of the two numbers is the month, if that is all that is wrong with the column. */
function doubtfulDays(filled: readonly string[]): string[] {
  if (filled.length === 0 || !filled.every((cell) => WRITTEN_DAY.test(cell)) || dayOrder(filled)) return [];
  const either = filled.every((cell) => dayReader('day first')(cell) && dayReader('month first')(cell));
  return either ? [...new Set(filled)].slice(0, 3) : [];
}

/** Which of two numbers is the day, if the column itself says so beyond doubt. */
function dayOrder(cells: readonly string[]): DayOrder | undefined {
  let first = 0;
  let second = 0;
  for (const cell of cells) {
    const match = WRITTEN_DAY.exec(cell);
    if (!match) return undefined;
    first = Math.max(first, Number(match[1]));
    second = Math.max(second, Number(match[2]));
  }
  const order = first > 12 && second <= 12 ? 'day first' : second > 12 && first <= 12 ? 'month first' : undefined;
  return order && cells.every((cell) => dayReader(order)(cell) !== undefined) ? order : undefined;
}

const dayReader =
  (order: DayOrder): Reader =>
  (cell) => {
    const [, a = '', b = '', year = ''] = WRITTEN_DAY.exec(cell) ?? [];
    const [day, month] = order === 'day first' ? [a, b] : [b, a];
    const iso = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
    return isDay(iso) ? iso : undefined;
  };
