/** Which messages of many are shown, and in what order. */
import { unlikeness } from '@vocabula/core/proof';
import type { SentSheet } from './protocol';

export type Order = 'as they are' | 'length' | 'findings' | 'unlikeness';
export const ORDERS: readonly Order[] = ['as they are', 'length', 'findings', 'unlikeness'];

/** What a message must have: `blank`, `finding code`, `kept 3`, `gone 3`, `value 2 words`; nothing for all of them. */
export type Condition = string;

export function matches(sheet: SentSheet, condition: Condition): boolean {
  const [kind, which = '', ...rest] = condition.split(' ');
  switch (kind) {
    case 'blank':
      return sheet.blanks.length > 0;
    case 'any':
      return sheet.findings.length > 0 || sheet.blanks.length > 0;
    case 'finding':
      return sheet.findings.some(({ code }) => code === which);
    case 'kept':
      return sheet.kept[Number(which)] === '1';
    case 'gone':
      return sheet.kept[Number(which)] === '0';
    case 'value':
      return sheet.values[Number(which)] === rest.join(' ');
    default:
      return true;
  }
}

/** Numbers of the sheets that are shown, in their order; the likest or shortest last. */
export function arranged(
  sheets: readonly (SentSheet | undefined)[],
  { condition, words, order }: { readonly condition: Condition; readonly words: string; readonly order: Order },
  labelOf: (at: number) => string,
): number[] {
  const typed = words.trim().toLowerCase();
  const numbers = sheets.flatMap((sheet, at) => {
    if (!sheet || !matches(sheet, condition)) return [];
    if (typed !== '' && !`${labelOf(at)} ${sheet.subject} ${sheet.values.join(' ')}`.toLowerCase().includes(typed))
      return [];
    return [at];
  });
  if (order === 'as they are') return numbers;
  const unlike = order === 'unlikeness' ? unlikeness(sheets.map((sheet) => sheet ?? { lines: [] })) : undefined;
  const key = (at: number): number => {
    const sheet = sheets[at];
    if (!sheet) return 0;
    if (order === 'length') return sheet.words;
    return unlike ? (unlike[at] ?? 0) : sheet.blanks.length * 100 + sheet.findings.length;
  };
  return numbers.sort((a, b) => key(b) - key(a) || a - b);
}

/** Columns of the grid that tell messages apart: those that vary, or are blank for somebody. */
export function varying(
  sheets: readonly (SentSheet | undefined)[],
  values: number,
  passages: number,
): { readonly values: number[]; readonly passages: number[] } {
  const there = sheets.filter((sheet) => sheet !== undefined);
  const differ = (cell: (sheet: SentSheet) => string | undefined): boolean => {
    const first = there[0] && cell(there[0]);
    return there.some((sheet) => cell(sheet) !== first);
  };
  const range = (length: number): number[] => Array.from({ length }, (_, at) => at);
  return {
    values: range(values).filter((at) => differ(({ values: cells }) => cells[at])),
    passages: range(passages).filter((at) => differ(({ kept }) => kept[at])),
  };
}
