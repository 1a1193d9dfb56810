/** Compiles expressions of the Common Expression Language, checked against the variables they may use. */
import { Environment } from '@marcbachmann/cel-js';
import { isKey, isReserved } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import { valueType, type Value } from '../values/index.js';
import { registerFunctions, type Evaluation, type ExpressionRun } from './functions.js';
import type { ExpressionScope } from './scope.js';
import { ExpressionProblem, factName, rewrite, type Rewritten } from './rewrite.js';

export { ExpressionProblem } from './rewrite.js';
export type { ExpressionRun } from './functions.js';
export type { ExpressionScope } from './scope.js';

/** A checked expression. */
export interface Expression {
  /** The variables it reads, in order of reading. */
  readonly references: readonly string[];
  /** The recipient and sender fields it reads, such as `recipient.city`. */
  readonly fields: readonly string[];
  /** The value for named inputs; undefined when it cannot be told: a missing value, a division by zero, no steps left. */
  evaluate(context: Readonly<Record<string, unknown>>, run: ExpressionRun): Value | undefined;
}

const MAX_SOURCE = 4000;
const LIMITS = { maxAstNodes: 1000, maxDepth: 40, maxListElements: 200, maxCallArguments: 8 };

/** One environment for the expressions of one scope; making one is the costly part. */
export class ExpressionCompiler {
  private readonly env: Environment;
  private readonly rowTypes = new Map<string, string>();
  /** The evaluation that goes on; each is over before another begins. */
  private evaluation: Evaluation | undefined;

  constructor(
    private readonly scope: ExpressionScope,
    holidays: ReadonlySet<string>,
  ) {
    this.env = new Environment({ limits: LIMITS });
    registerFunctions(this.env, holidays, () => {
      if (!this.evaluation) throw new Error('A function was called outside an evaluation.');
      return this.evaluation;
    });
    this.env.registerVariable('recipient', 'map<string, string>');
    this.env.registerVariable('sender', 'map<string, string>');
    for (const key of scope.keys) {
      const variable = scope.lookup(key);
      // A key that means something else in expressions is a finding of its own, and no name here.
      if (variable && isKey(key) && !isReserved(key)) this.env.registerVariable(key, this.typeOf(variable));
    }
    for (const [fact, type] of scope.facts) this.env.registerVariable(factName(fact), valueType(type).expressionType);
  }

  private typeOf(variable: Variable): string {
    if (variable.type !== 'list') return valueType(variable.type).expressionType;
    // Lists with equal columns have one type, so that a filtered list can be assigned to another.
    const fields = Object.fromEntries(
      (variable.columns ?? [])
        .filter((column) => column.type !== 'list' && isKey(column.key) && !isReserved(column.key))
        .map((column) => [column.key, valueType(column.type).expressionType]),
    );
    const signature = JSON.stringify(Object.entries(fields).sort());
    let name = this.rowTypes.get(signature);
    if (!name) {
      name = `Row${this.rowTypes.size + 1}`;
      this.env.registerType(name, { fields });
      this.rowTypes.set(signature, name);
    }
    return `list<${name}>`;
  }

  /**
   * Compiles one expression for a variable of a type.
   * @throws ExpressionProblem with a place in `source`
   */
  compile(source: string, target: Variable): Expression {
    if (source.length > MAX_SOURCE)
      throw new ExpressionProblem({ code: 'bad-expression', why: 'too-long', most: MAX_SOURCE }, 0, source.length);
    const parsed = this.attempt(() => this.env.parse(source), source);
    const rewritten = rewrite(parsed.ast, this.scope);
    const program = this.attempt(() => this.env.parse(rewritten.source), source, rewritten);
    const result = program.check();
    if (!result.valid) throw problemFrom(result.error, source, rewritten);
    const wanted = this.typeOf(target);
    if (
      result.type !== wanted &&
      result.type !== 'dyn' &&
      !(wanted.startsWith('list<') && result.type?.startsWith('list<dyn'))
    ) {
      throw new ExpressionProblem(
        { code: 'bad-expression', why: 'type', given: inWords(result.type), needed: inWords(wanted) },
        0,
        source.length,
      );
    }
    return {
      references: rewritten.references,
      fields: rewritten.fields,
      evaluate: (context, run) => {
        if (run.budget && !run.budget.spend(costOf(rewritten, context))) return undefined;
        try {
          this.evaluation = { ...run, isFilled: (key) => Object.hasOwn(context, key) };
          return plain(program(context as Record<string, unknown>));
        } catch {
          // Whatever an expression meets at run time (a missing value, an index, a bad day) leaves it undecided.
          return undefined;
        } finally {
          this.evaluation = undefined;
        }
      },
    };
  }

  private attempt<T>(work: () => T, source: string, rewritten?: Rewritten): T {
    try {
      return work();
    } catch (error) {
      throw problemFrom(error, source, rewritten);
    }
  }
}

/** Steps of an evaluation at most: its nodes, times the rows of the longest list for each going through one that they stand in. */
function costOf({ references, sizes, longest }: Rewritten, context: Readonly<Record<string, unknown>>): number {
  const rows = references.reduce((most, key) => {
    const value = context[key];
    return Array.isArray(value) ? Math.max(most, value.length) : most;
  }, longest);
  return sizes.reduce((sum, nodes, depth) => sum + nodes * rows ** depth, 0);
}

function problemFrom(error: unknown, source: string, rewritten?: Rewritten): ExpressionProblem {
  if (error instanceof ExpressionProblem) return error;
  const { summary, message, range } = error as {
    summary?: string;
    message?: string;
    range?: { start: number; end: number };
  };
  const says = (summary ?? message ?? 'not an expression').split('\n')[0] ?? '';
  let [start, end] = [range?.start ?? 0, range?.end ?? source.length];
  if (rewritten && range) {
    const origin = rewritten.origins.findLast((piece) => piece.at <= range.start) ?? rewritten.origins[0];
    [start, end] = [origin?.start ?? 0, origin?.end ?? source.length];
  }
  start = Math.min(start, source.length);
  return new ExpressionProblem(
    { code: 'bad-expression', why: 'unreadable', says },
    start,
    Math.max(1, Math.min(end, source.length) - start),
  );
}

function inWords(type: string | undefined): string {
  if (type === 'double') return 'a number';
  if (type === 'bool') return 'yes or no';
  if (type === 'string') return 'text';
  return type?.startsWith('list') ? 'a list' : (type ?? 'something else');
}

/** A result as the engine holds values; what no value can be is undefined. */
function plain(result: unknown): Value | undefined {
  if (typeof result === 'bigint') return Number(result);
  if (typeof result === 'number') return Number.isFinite(result) ? (result === 0 ? 0 : result) : undefined;
  if (typeof result === 'string' || typeof result === 'boolean') return result;
  if (!Array.isArray(result)) return undefined;
  return result.map((item: unknown) => (item instanceof Map ? Object.fromEntries(item) : item)) as unknown as Value;
}
