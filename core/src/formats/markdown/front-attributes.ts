/** What the front matter may hold: each attribute with the form of its value. */
import type { Front } from '../../template/document.js';
import type { Variable } from '../../template/variable.js';

/** Attributes of the top level that are scalars kept in `front`, in the order in which they are written. */
export const FRONT_SCALARS = [
  'title',
  'description',
  'call',
  'locale',
  'timezone',
  'purpose',
] as const satisfies readonly (keyof Front)[];
/** Those that come after the envelope. */
export const FRONT_TAIL = [
  'signature',
  'owner',
  'review_by',
  'valid_from',
  'valid_until',
  'fixed',
  'translation_of',
  'on_answer',
] as const satisfies readonly (keyof Front)[];

/** The form in which the front matter gives an attribute. */
export type Form = 'text' | 'boolean' | 'number' | 'texts' | 'map' | 'maps' | 'default' | 'options' | 'columns';

/** Attributes of variables in the order in which they are written, with their forms. */
export const VARIABLE_FORMS: Readonly<Record<Exclude<keyof Variable, 'key' | 'type'>, Form>> = {
  label: 'text',
  help: 'text',
  example: 'text',
  currency: 'text',
  min: 'number',
  max: 'number',
  step: 'number',
  decimals: 'number',
  unit: 'text',
  grouping: 'boolean',
  min_length: 'number',
  max_length: 'number',
  pattern: 'text',
  fallback: 'text',
  earliest: 'text',
  latest: 'text',
  weekdays: 'texts',
  zone: 'text',
  words: 'map',
  domains: 'texts',
  max_width: 'number',
  plural: 'map',
  forms: 'maps',
  options: 'options',
  other: 'boolean',
  columns: 'columns',
  least: 'number',
  most: 'number',
  from: 'text',
  remember: 'boolean',
  default: 'default',
  value: 'text',
  required: 'boolean',
};

/** Attributes that every type has. */
export const COMMON_ATTRIBUTES: readonly (keyof Variable)[] = [
  'key',
  'type',
  'label',
  'help',
  'example',
  'required',
  'from',
  'remember',
  'default',
  'value',
];
