/** Texts as a compilation uses them. */
import { error, type Finding, type Place } from '../findings/finding.js';
import {
  ExpressionCompiler,
  ExpressionProblem,
  type Expression,
  type ExpressionScope,
} from '../expression/expression.js';
import type { Kind, TextDocument } from '../template/document.js';
import type { TypeName, Variable } from '../template/variable.js';
import { isZone } from '../values/zone.js';
import type { House } from '../house/house.js';

/** Where included texts come from. */
export interface Library {
  get(name: string): TextDocument | undefined;
}

/** One text as it is used here, compiled once however often it is included. */
export class TextUnit {
  readonly kind: Kind;
  readonly locale: string;
  readonly variables: ReadonlyMap<string, Variable>;
  private readonly expressions = new Map<string, Expression | undefined>();
  private compiler: ExpressionCompiler | undefined;
  private readonly columnCompilers = new Map<string, ExpressionCompiler>();

  constructor(
    readonly name: string,
    readonly document: TextDocument,
    locale: string,
    private readonly house: House,
    private readonly holidays: ReadonlySet<string>,
    private readonly findings: Finding[],
    /** True for the template itself, whose places need no name. */
    private readonly own: boolean,
  ) {
    this.kind = document.attrs.front.kind;
    this.locale = locale;
    this.variables = new Map(
      document.attrs.variables.map((variable) => [variable.key, inZone(variable, document.attrs.front.timezone)]),
    );
  }

  /** A place in this text. */
  place(place: Place): Place {
    return this.own ? place : { text: this.name, ...place };
  }

  /** The variable's expression, checked against this text's variables; undefined if it has none or a wrong one. */
  expression(variable: Variable): Expression | undefined {
    if (variable.value === undefined) return undefined;
    if (!this.expressions.has(variable.key)) {
      this.compiler ??= new ExpressionCompiler(this.scope(new Map()), this.holidays);
      this.expressions.set(variable.key, this.attempt(this.compiler, variable, variable.key, 'value'));
    }
    return this.expressions.get(variable.key);
  }

  /** The expression of a computed column, which sees its row before the variables. */
  columnExpression(list: Variable, column: Variable): Expression | undefined {
    if (column.value === undefined) return undefined;
    const id = `${list.key}.${column.key}`;
    if (!this.expressions.has(id)) {
      let compiler = this.columnCompilers.get(list.key);
      if (!compiler) {
        compiler = new ExpressionCompiler(
          this.scope(new Map((list.columns ?? []).map((each) => [each.key, each]))),
          this.holidays,
        );
        this.columnCompilers.set(list.key, compiler);
      }
      this.expressions.set(id, this.attempt(compiler, column, list.key, `columns.${column.key}.value`));
    }
    return this.expressions.get(id);
  }

  private scope(columns: ReadonlyMap<string, Variable>): ExpressionScope {
    return {
      lookup: (key) => columns.get(key) ?? this.variables.get(key),
      keys: [...new Set([...columns.keys(), ...this.variables.keys()])],
      facts: new Map<string, TypeName>(
        Object.entries(this.house.facts).map(([key, fact]) => [key, fact.variable.type]),
      ),
    };
  }

  private attempt(
    compiler: ExpressionCompiler,
    variable: Variable,
    key: string,
    attribute: string,
  ): Expression | undefined {
    try {
      return compiler.compile(variable.value ?? '', variable);
    } catch (problem) {
      if (!(problem instanceof ExpressionProblem)) throw problem;
      this.findings.push(
        error(problem.data, this.place({ variable: key, attribute, offset: problem.offset, length: problem.length })),
      );
      return undefined;
    }
  }
}

/** A variable whose moments, and those of its columns, are in the zone of its file where it names none. */
function inZone(variable: Variable, timezone: string | undefined): Variable {
  if (timezone === undefined || !isZone(timezone)) return variable;
  const here = (each: Variable): Variable =>
    each.type === 'datetime' && each.zone === undefined ? { ...each, zone: timezone } : each;
  return variable.columns ? { ...variable, columns: variable.columns.map(here) } : here(variable);
}

/** A declaration as the linking found it. */
export interface Declaration {
  readonly variable: Variable;
  readonly unit: TextUnit;
  readonly depth: number;
}

/**
 * True for a computed variable that reads, through others too, a column of the repeat around its text:
 * every row then has its own value.
 */
export function readsShadow(
  unit: TextUnit,
  variable: Variable,
  shadows: ReadonlyMap<string, Variable>,
  seen: ReadonlySet<string> = new Set(),
): boolean {
  if (shadows.size === 0 || seen.has(variable.key)) return false;
  return (unit.expression(variable)?.references ?? []).some((key) => {
    const next = unit.variables.get(key);
    return (
      shadows.has(key) || (next !== undefined && readsShadow(unit, next, shadows, new Set([...seen, variable.key])))
    );
  });
}
