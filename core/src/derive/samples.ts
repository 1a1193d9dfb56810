/** Sample sets from the answers of derived mails. */
import type { TableColumn, TableRow } from '../formats/table/index.js';
import { valueType } from '../values/index.js';
import type { Derived } from './derive.js';
import { RECIPIENT_FIELDS } from './questions.js';

/** A sample set with one row for each mail. */
export interface SampleTable {
  readonly columns: readonly TableColumn[];
  readonly rows: readonly TableRow[];
}

/** The recipient fields and answers of each mail. Calculated values have no column. */
export function samplesOf({ mails, template }: Pick<Derived, 'mails' | 'template'>): SampleTable {
  const fields = RECIPIENT_FIELDS.filter((field) => mails.some(({ recipient }) => recipient[field] !== undefined));
  const asked = template.attrs.variables.filter(({ value }) => value === undefined);
  return {
    columns: [
      ...fields.map((key) => ({ key, name: key, type: key === 'email' ? ('email' as const) : ('text' as const) })),
      ...asked.map(({ key, type }) => ({ key, name: key, type: valueType(type).column ?? ('text' as const) })),
    ],
    rows: mails.map(({ recipient }) => recipient),
  };
}
