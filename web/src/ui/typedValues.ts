/** What people type for a value, in the form its type reads, and back: one place for every field and cell. */
import { isDay, showDay, timeFormatter, type TypeName, understandDay } from '@vocabula/core';
import { understandTime } from './times';
import { today } from './today';

/** The source text that typed words mean to a type; words that are not understood stay, to be refused with words. */
export function understand(type: TypeName, typed: string, locale: string): string {
  const text = typed.trim();
  if (text === '') return '';
  switch (type) {
    case 'date':
      return understandDay(text, today(), locale) ?? text;
    case 'time':
      return understandTime(text) ?? text;
    case 'money':
      // The currency is the question's own.
      return understandNumber(
        text.replace(/^(?:\p{Sc}|[A-Z]{3}(?=[\s\d]))|(?:\p{Sc}|(?<=[\s\d])[A-Z]{3})$/gu, '').trim(),
        locale,
      );
    case 'number':
      return understandNumber(text, locale);
    default:
      return type === 'paragraphs' ? typed : text;
  }
}

/** A decimal comma is one, except where three digits behind it are thousands in the language; so are spaces between. */
function understandNumber(text: string, locale: string): string {
  const digits = text.replace(/[\s\u00a0\u202f'’]/g, '');
  const decimalComma = new Intl.NumberFormat(locale).format(1.5).includes(',');
  if (!decimalComma && /^-?\d{1,3}(,\d{3})+(\.\d+)?$/.test(digits)) return digits.replace(/,/g, '');
  if (/^-?\d+,\d+$/.test(digits)) return digits.replace(',', '.');
  if (/^-?\d{1,3}(\.\d{3})+,\d+$/.test(digits)) return digits.replace(/\./g, '').replace(',', '.');
  return /^-?[\d.,]+$/.test(digits) ? digits : text;
}

/** A source text as a field shows it while nobody types in it. */
export function showSource(type: TypeName, source: string, locale: string): string {
  if (type === 'date') return isDay(source) ? showDay(source, locale) : source;
  if (type === 'time')
    return understandTime(source) === source ? (timeFormatter('', locale)?.(source) ?? source) : source;
  return source;
}
