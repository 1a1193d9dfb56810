/** Comparisons by which conditions are built: which a type has, how they are said, how expressions write them. */
import type { TypeName } from '../template/variable.js';
import { valueType, type Family } from '../values/index.js';

/** The comparisons that conditions are built from. */
export type ComparisonName =
  | 'at-least'
  | 'at-most'
  | 'more'
  | 'less'
  | 'is'
  | 'is-not'
  | 'one-of'
  | 'contains'
  | 'begins'
  | 'ends'
  | 'has'
  | 'has-not'
  | 'weekday'
  | 'yes'
  | 'no'
  | 'filled'
  | 'empty';

/** The family of comparisons that values of a type have. */
export const familyOf = (type: TypeName): Family => valueType(type).family;

const EITHER = [
  ['filled', 'is filled'],
  ['empty', 'is empty'],
] as const;

/** The comparisons of each family, the likeliest first, as they are said behind a label. */
const COMPARISONS: Readonly<Record<Family, readonly (readonly [ComparisonName, string])[]>> = {
  number: [
    ['at-least', 'is at least'],
    ['at-most', 'is at most'],
    ['more', 'is more than'],
    ['less', 'is less than'],
    ['is', 'is'],
    ['is-not', 'is not'],
    ...EITHER,
  ],
  date: [
    ['at-least', 'is on or after'],
    ['at-most', 'is on or before'],
    ['more', 'is after'],
    ['less', 'is before'],
    ['is', 'is'],
    ['is-not', 'is not'],
    ['weekday', 'falls on a'],
    ...EITHER,
  ],
  time: [
    ['at-least', 'is at or after'],
    ['at-most', 'is at or before'],
    ['more', 'is after'],
    ['less', 'is before'],
    ...EITHER,
  ],
  text: [
    ['is', 'is'],
    ['is-not', 'is not'],
    ['contains', 'contains'],
    ['begins', 'begins with'],
    ['ends', 'ends with'],
    ...EITHER,
  ],
  'yes-no': [
    ['yes', 'is yes'],
    ['no', 'is no'],
  ],
  choice: [['is', 'is'], ['is-not', 'is not'], ['one-of', 'is one of'], ...EITHER],
  choices: [['has', 'include'], ['has-not', 'do not include'], ...EITHER],
  list: [['at-least', 'has rows, at least'], ['at-most', 'has rows, at most'], ['is', 'has rows, exactly'], ...EITHER],
  image: [...EITHER],
};

/** The comparisons of a family, in the order they are offered. */
export const comparisonsOf = (family: Family): readonly ComparisonName[] => COMPARISONS[family].map(([name]) => name);

/** `is on or after`; the bare name where the family has no such comparison. */
export const comparisonInWords = (family: Family, name: ComparisonName): string =>
  COMPARISONS[family].find(([each]) => each === name)?.[1] ?? name;

const WITHOUT_VALUE: ReadonlySet<ComparisonName> = new Set(['yes', 'no', 'filled', 'empty']);
/** True for comparisons with a value. */
export const takesValue = (name: ComparisonName): boolean => !WITHOUT_VALUE.has(name);

/** Operators that stand between a name and a value. */
export const OPERATORS: Readonly<Partial<Record<ComparisonName, string>>> = {
  'at-least': '>=',
  'at-most': '<=',
  more: '>',
  less: '<',
  is: '==',
  'is-not': '!=',
};
/** Methods of texts. */
export const METHODS: Readonly<Partial<Record<ComparisonName, string>>> = {
  contains: 'contains',
  begins: 'startsWith',
  ends: 'endsWith',
};
