/** How the attributes of a variable's type are asked for. Which of them a type has, the type says. */
import { valueType, type TypeName, type Variable } from '@vocabula/core';

export type Control = 'text' | 'number' | 'tick' | 'weekdays' | 'zone' | 'words' | 'names' | 'limit' | 'currency';

export interface AttributeField {
  readonly name: keyof Variable;
  readonly label: string;
  readonly control: Control;
  readonly example?: string;
  /** What holds where the attribute is left out. */
  readonly usual?: boolean;
  /** What it is about: which answers are taken, or how a value stands in the message. */
  readonly about: 'limits' | 'writing';
}

/** Attributes with a control of their own: options, columns, plural and forms have editors. */
const ATTRIBUTE_FIELDS: readonly AttributeField[] = [
  { name: 'fallback', label: 'If empty', control: 'text', about: 'writing' },
  { name: 'min_length', label: 'Characters, at least', control: 'number', about: 'limits' },
  { name: 'max_length', label: 'Characters, at most', control: 'number', about: 'limits' },
  {
    name: 'pattern',
    label: 'Form it must have (RE2 pattern)',
    control: 'text',
    example: '[A-Z]{2}-\\d{4}',
    about: 'limits',
  },
  { name: 'currency', label: 'Currency', control: 'currency', about: 'writing' },
  { name: 'min', label: 'Smallest', control: 'number', about: 'limits' },
  { name: 'max', label: 'Largest', control: 'number', about: 'limits' },
  { name: 'step', label: 'In steps of', control: 'number', about: 'limits' },
  { name: 'decimals', label: 'Decimals', control: 'number', about: 'writing' },
  { name: 'unit', label: 'Unit', control: 'text', example: 'kg', about: 'writing' },
  { name: 'grouping', label: 'thousands grouped', control: 'tick', usual: true, about: 'writing' },
  { name: 'earliest', label: 'Not before', control: 'limit', example: 'today+14', about: 'limits' },
  { name: 'latest', label: 'Not after', control: 'limit', example: '2027-12-31', about: 'limits' },
  { name: 'weekdays', label: 'Only on', control: 'weekdays', about: 'limits' },
  { name: 'zone', label: 'Time zone', control: 'zone', example: 'Europe/Dublin', about: 'writing' },
  { name: 'words', label: 'Shown as', control: 'words', about: 'writing' },
  { name: 'other', label: 'other words may be given', control: 'tick', about: 'limits' },
  { name: 'least', label: 'At least', control: 'number', about: 'limits' },
  { name: 'most', label: 'At most', control: 'number', about: 'limits' },
  { name: 'domains', label: 'Only at', control: 'names', example: 'larkmoor.example', about: 'limits' },
  { name: 'max_width', label: 'Width at most, in pixels', control: 'number', about: 'writing' },
];

export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

/** The attributes that a type has, all of them or those about something. */
export function attributeFields(type: TypeName, about?: AttributeField['about']): AttributeField[] {
  const own = new Set<keyof Variable>(valueType(type).attributes);
  return ATTRIBUTE_FIELDS.filter((field) => own.has(field.name) && (!about || about === field.about));
}
