/** Money. A value is a double that is exact to the currency's minor unit as far as doubles go. */
import { numberFormat } from './intl.js';
import { decimal, hardNumber, madeUpNumber, triedNumbers } from './number.js';
import { limitsSwapped, outside, within, type Formatter, type ValueType } from './type.js';

const digitsByCurrency = new Map<string, number>();

/** How many digits the currency's minor unit has: 2 for EUR, 0 for JPY, 3 for KWD. */
export function minorDigits(currency: string): number {
  let digits = digitsByCurrency.get(currency);
  if (digits === undefined) {
    digits = numberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
    digitsByCurrency.set(currency, digits);
  }
  return digits;
}

/**
 * Rounds as money is rounded when it is assigned: first to 15 significant digits, which removes what
 * binary fractions add (1.005 is 1.00499999999999989…), then half away from zero, in decimal digits.
 */
export function roundMoney(value: number, digits: number): number {
  if (!Number.isFinite(value) || value === 0) return value === 0 ? 0 : value;
  const [mantissa = '0', exponentText = '0'] = Math.abs(value).toExponential(14).split('e');
  const exponent = Number(exponentText);
  const figures = mantissa.replace('.', '');
  // figures are d0 d1 … d14 with the decimal point after d0, shifted by the exponent.
  const keep = exponent + 1 + digits;
  if (keep >= figures.length) return Number(`${value < 0 ? '-' : ''}${mantissa}e${exponentText}`);
  if (keep < 0) return 0;
  const up = (figures.charCodeAt(keep) || 48) >= 53;
  const kept = BigInt(figures.slice(0, keep) || '0') + (up ? 1n : 0n);
  const rounded = Number(`${kept}e${-digits}`);
  return value < 0 && rounded !== 0 ? -rounded : rounded;
}

/** Adds amounts by their minor units, so that ten times 0.10 is 1.00. */
export function sumMoney(amounts: readonly number[], digits: number): number {
  const scale = 10 ** digits;
  return amounts.reduce((total, amount) => total + Math.round(roundMoney(amount, digits) * scale), 0) / scale;
}

/** Whether a code is that of a currency (ISO 4217). */
export const isCurrency = (code: string | undefined): code is string =>
  code !== undefined && /^[A-Z]{3}$/.test(code) && Intl.supportedValuesOf('currency').includes(code);

/** An amount in a currency. */
export const money: ValueType = {
  name: 'money',
  attributes: ['currency', 'min', 'max'],
  parse(input, variable) {
    const amount = decimal(input);
    if (amount === undefined) return { problem: 'This must be an amount, such as 12 or 12.50.' };
    const value = roundMoney(amount, minorDigits(isCurrency(variable.currency) ? variable.currency : 'EUR'));
    const problem = outside(value, variable.min, variable.max);
    return problem ? { problem } : { value };
  },
  views: () => ['amount'],
  formatter(variable, view, locale): Formatter | undefined {
    const currency = isCurrency(variable.currency) ? variable.currency : 'EUR';
    const digits = minorDigits(currency);
    const format =
      view === ''
        ? numberFormat(locale, { style: 'currency', currency })
        : view === 'amount'
          ? numberFormat(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits })
          : undefined;
    return format && ((value) => format.format(value as number));
  },
  declared: (variable) => [
    ...limitsSwapped(variable, 'min', 'max'),
    ...(isCurrency(variable.currency)
      ? []
      : [{ attribute: 'currency', message: 'Money needs a currency: three letters, such as EUR.' }]),
  ],
  specimen: ({ min, max }) => within(1234.5, min, max),
  expressionType: 'double',
  family: 'number',
  control: 'number',
  isPersonal: true,
  initial: { currency: 'EUR' },
  column: 'number',
  tried: triedNumbers,
  hard: hardNumber,
  madeUp: madeUpNumber,
};
