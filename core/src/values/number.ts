/** Numbers. A value is a finite double. */
import { numberFormat } from './intl.js';
import { categoryOf, ordinalSuffix } from './plural.js';
import type { Variable } from '../template/variable.js';
import {
  limitsSwapped,
  outside,
  within,
  type DeclarationProblem,
  type Formatter,
  type HardOffer,
  type MadeUpContext,
  type TryContext,
  type ValueType,
} from './type.js';

const DECIMAL = /^[+-]?(\d+(\.\d*)?|\.\d+)$/;

/** Reads a JSON number or a decimal with a point; undefined if it is neither. */
export function decimal(input: unknown): number | undefined {
  if (typeof input === 'number') return Number.isFinite(input) ? input : undefined;
  if (typeof input !== 'string' || input.length > 400) return undefined;
  const text = input.trim().replace(/^\u2212/, '-');
  const value = DECIMAL.test(text) ? Number(text) : NaN;
  return Number.isFinite(value) ? value : undefined;
}

/** True if `value` is a whole number of steps from `origin`, tolerating what binary fractions lose. */
function onStep(value: number, step: number, origin: number): boolean {
  const steps = (value - origin) / step;
  return Math.abs(steps - Math.round(steps)) <= 1e-9 * Math.max(1, Math.abs(steps));
}

/** The usual number; if a calculated value compares it, also those one step below and above what it is compared with. */
export function triedNumbers({ step = 1, min, max }: Variable, context: TryContext): unknown[] {
  const { specimen, none, constants, isCompared, accepted } = context;
  if (!isCompared) return accepted([specimen, ...none]);
  const numbers = constants.map(Number).filter(Number.isFinite);
  const around = numbers.flatMap((each) => [each - step, each, each + step]);
  const ends = [min, max].filter((each) => each !== undefined);
  return accepted([specimen, ...around, ...ends, 0, 1, ...none]);
}

/** A hard number: the one offered, or a very large one. */
export function hardNumber({ number, isLarge }: HardOffer, variable: Variable | undefined): number | undefined {
  if (isLarge) return variable?.max ?? (variable?.step ? 1_000_000 : 1_234_567);
  // A negative one reaches as low as the variable goes.
  return number !== undefined && number < 0 ? Math.min(number, variable?.min ?? number) : number;
}

/** A number that the variable takes; the least for the first row. */
export function madeUpNumber({ at, next }: MadeUpContext, variable: Variable | undefined): string {
  const { min = 1, max = min + 40, step = 1 } = variable ?? {};
  return String(min + step * (at === 0 ? 0 : next(Math.max(1, Math.floor((max - min) / step) + 1))));
}

/** A number. */
export const number: ValueType = {
  name: 'number',
  attributes: ['min', 'max', 'step', 'decimals', 'unit', 'grouping', 'plural', 'forms'],
  parse(input, variable) {
    const value = decimal(input);
    if (value === undefined) return { problem: 'This must be a number, such as 12 or 12.5.' };
    const problem = outside(value, variable.min, variable.max);
    if (problem) return { problem };
    if (variable.step !== undefined && variable.step > 0 && !onStep(value, variable.step, variable.min ?? 0))
      return { problem: `This must go in steps of ${variable.step}.` };
    return { value };
  },
  views: (variable) => [...(variable.plural ? ['counted'] : []), 'ordinal', ...Object.keys(variable.forms ?? {})],
  formatter(variable, view, locale): Formatter | undefined {
    const format = numberFormat(locale, {
      useGrouping: variable.grouping ?? true,
      minimumFractionDigits: variable.decimals ?? 0,
      maximumFractionDigits: variable.decimals ?? 10,
    });
    const form = Object.hasOwn(variable.forms ?? {}, view) ? variable.forms?.[view] : undefined;
    if (form) return (value) => form[categoryOf(locale, value as number, variable.decimals)] ?? form.other ?? '';
    switch (view) {
      case '':
        return variable.unit
          ? (value) => `${format.format(value as number)}\u00A0${variable.unit}`
          : (value) => format.format(value as number);
      case 'counted': {
        const plural = variable.plural;
        if (!plural) return undefined;
        return (value) =>
          `${format.format(value as number)} ${plural[categoryOf(locale, value as number, variable.decimals)] ?? plural.other ?? ''}`.trimEnd();
      }
      case 'ordinal': {
        const suffix = ordinalSuffix(locale);
        return suffix && ((value) => format.format(value as number) + suffix(value as number));
      }
      default:
        return undefined;
    }
  },
  declared(variable): DeclarationProblem[] {
    const problems = limitsSwapped(variable, 'min', 'max');
    if (variable.step !== undefined && !(variable.step > 0))
      problems.push({ attribute: 'step', message: 'A step must be above 0.' });
    for (const form of Object.keys(variable.forms ?? {})) {
      if (['counted', 'ordinal'].includes(form))
        problems.push({
          attribute: 'forms',
          message: `A form may not be called “${form}”, which is a view.`,
          code: 'reserved-key',
        });
      else if (!/^[a-z][a-z0-9_]*$/.test(form))
        problems.push({
          attribute: 'forms',
          message: `A form's name has small letters, digits and underscores: “${form}”.`,
          code: 'bad-key',
        });
    }
    return problems;
  },
  specimen: ({ min, max }) => within(12, min, max),
  expressionType: 'double',
  family: 'number',
  control: 'number',
  column: 'number',
  tried: triedNumbers,
  hard: hardNumber,
  madeUp: madeUpNumber,
};
