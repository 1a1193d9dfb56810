/** How the attributes of a variable's type are asked for. Which of them a type has, the type says. */
import type { Variable } from '@vocabula/core';

export type Control = 'text' | 'number' | 'tick' | 'weekdays' | 'zone' | 'words' | 'names' | 'limit' | 'currency';

export interface AttributeField {
  readonly name: keyof Variable;
  readonly label: string;
  readonly control: Control;
  readonly example?: string;
  /** What holds where the attribute is left out. */
  readonly usual?: boolean;
}

/** Attributes with a control of their own: options, columns, plural and forms have editors. */
export const ATTRIBUTE_FIELDS: readonly AttributeField[] = [
  { name: 'fallback', label: 'If empty', control: 'text' },
  { name: 'min_length', label: 'Characters, at least', control: 'number' },
  { name: 'max_length', label: 'Characters, at most', control: 'number' },
  { name: 'pattern', label: 'Form it must have (RE2 pattern)', control: 'text', example: '[A-Z]{2}-\\d{4}' },
  { name: 'currency', label: 'Currency', control: 'currency' },
  { name: 'min', label: 'Smallest', control: 'number' },
  { name: 'max', label: 'Largest', control: 'number' },
  { name: 'step', label: 'In steps of', control: 'number' },
  { name: 'decimals', label: 'Decimals', control: 'number' },
  { name: 'unit', label: 'Unit', control: 'text', example: 'kg' },
  { name: 'grouping', label: 'thousands grouped', control: 'tick', usual: true },
  { name: 'earliest', label: 'Not before', control: 'limit', example: 'today+14' },
  { name: 'latest', label: 'Not after', control: 'limit', example: '2027-12-31' },
  { name: 'weekdays', label: 'Only on', control: 'weekdays' },
  { name: 'zone', label: 'Time zone', control: 'zone', example: 'Europe/Dublin' },
  { name: 'words', label: 'Shown as', control: 'words' },
  { name: 'other', label: 'other words may be given', control: 'tick' },
  { name: 'least', label: 'At least', control: 'number' },
  { name: 'most', label: 'At most', control: 'number' },
  { name: 'domains', label: 'Only at', control: 'names', example: 'larkmoor.example' },
  { name: 'max_width', label: 'Width at most, in pixels', control: 'number' },
];

export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
