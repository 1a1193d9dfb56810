import type { TypeName, Variable } from '../template/variable.js';

/** The names an expression may use. */
export interface ExpressionScope {
  /** The declaration of a variable, or of a column where one shadows it. */
  lookup(key: string): Variable | undefined;
  /** All keys that `lookup` knows. */
  readonly keys: readonly string[];
  readonly facts: ReadonlyMap<string, TypeName>;
}
