/** What selected words most likely are, when they are about to become a variable. */
import { isEmail, labelFromKey, safeUrl, understandDay, type Variable } from '@vocabula/core';

const SYMBOLS: Readonly<Record<string, string>> = { '€': 'EUR', '£': 'GBP', $: 'USD', '¥': 'JPY' };

/** The type, a label, and what goes with the type. Words that say nothing of their type are text, and their own label. */
export function guessFromWords(
  words: string,
  { today, locale }: { readonly today: string; readonly locale: string },
): Pick<Variable, 'type' | 'currency'> & { readonly label: string } {
  const text = words.trim().replace(/\s+/g, ' ');
  if (isEmail(text)) return { type: 'email', label: 'Email' };
  if (safeUrl(text)) return { type: 'link', label: 'Link' };
  const currency = currencyIn(text);
  if (currency) return { type: 'money', label: 'Amount', currency };
  if (/^\d{1,2}[:.]\d{2}(?:\s?[ap]\.?m\.?)?$/i.test(text)) return { type: 'time', label: 'Time' };
  if (/^-?\d+(?:[.,]\d+)*$/.test(text)) return { type: 'number', label: 'Number' };
  if (/\d/.test(text) && understandDay(text, today, locale)) return { type: 'date', label: 'Date' };
  if (/^\+?[\d\s()/-]{7,}$/.test(text)) return { type: 'phone', label: 'Telephone' };
  return { type: words.includes('\n') ? 'paragraphs' : 'text', label: labelFrom(text) };
}

/** The currency of an amount; undefined for what is none. */
function currencyIn(text: string): string | undefined {
  const amount = /^(?:([€£$¥])\s?[\d.,\s]*\d|[\d.,\s]*\d\s?([€£$¥]|[A-Z]{3}))$/.exec(text);
  if (!amount || !/\d/.test(text)) return undefined;
  const sign = amount[1] ?? amount[2] ?? '';
  const code = SYMBOLS[sign] ?? sign;
  return /^[A-Z]{3}$/.test(code) && Intl.supportedValuesOf('currency').includes(code) ? code : undefined;
}

/** The words as a label: short, without marks at their ends. */
function labelFrom(text: string): string {
  const bare = text.replace(/^[\s,;:.([<{_]+|[\s,;:.)\]>}_]+$/g, '').slice(0, 40);
  return labelFromKey(/\p{Ll}/u.test(bare) ? bare : bare.toLowerCase());
}
