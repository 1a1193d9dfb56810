/** The variable types, by name. A new type is a file here and a line in this table. */
import type { TypeName, Variable } from '../template/variable.js';
import { list } from './list.js';
import { scalarType, specimenBy } from './scalar.js';
import type { Value, ValueContext, ValueType } from './type.js';

/** The type with that name. */
export const valueType = (name: TypeName): ValueType => (name === 'list' ? list : scalarType(name));

/** A value to show a variable's views by: its example or default where it has one, else one likely for its type. */
export const specimenOf = (variable: Variable, context: ValueContext): Value =>
  specimenBy(valueType(variable.type), variable, context);
export * from './type.js';
