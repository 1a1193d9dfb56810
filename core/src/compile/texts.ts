/** Texts as a compilation uses them, and what can be told from a text alone: its inclusions, whether it fits a line. */
import { error, type Finding, type Place } from '../findings/finding.js';
import {
  ExpressionCompiler,
  ExpressionProblem,
  type Expression,
  type ExpressionScope,
} from '../expression/expression.js';
import type { Condition } from '../template/condition.js';
import { bodyOf, type Block, type Kind, type TextDocument } from '../template/document.js';
import { visit, walk } from '../template/walk.js';
import type { TypeName, Variable } from '../template/variable.js';
import { isZone } from '../values/zone.js';
import type { House } from '../house/house.js';

/** Where included texts come from. */
export interface Library {
  get(name: string): TextDocument | undefined;
}

/** The most nodes that all included blocks come to, each counted as often as it is included. */
export const MAX_INCLUDED = 60_000;
/** How deep inclusion may nest, and how many inclusions one message may have in all. */
export const MAX_INCLUSION_DEPTH = 16;
/** The most inclusions that one message may have in all, at all depths. */
export const MAX_INCLUSIONS = 2000;

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

/** Inclusions and repeats of a body, in reading order. */
export function inclusionsOf(
  document: TextDocument,
): { name: string; path: readonly number[]; inline: boolean; repeats: readonly Condition[] }[] {
  const lists = new Set(
    document.attrs.variables.filter((variable) => variable.type === 'list').map((variable) => variable.key),
  );
  const found: { name: string; path: readonly number[]; inline: boolean; repeats: readonly Condition[] }[] = [];
  const repeating = (conditions: readonly Condition[]): Condition[] =>
    conditions.filter((each) => !each.not && each.is.length === 0 && lists.has(each.of));
  document.content.forEach((part, index) => {
    if (part.type !== 'body') return;
    walk(
      part,
      ({ node, path, outer }) => {
        if (node.type !== 'inclusion' && node.type !== 'inlineInclusion') return;
        found.push({ name: node.attrs.name, path, inline: node.type === 'inlineInclusion', repeats: repeating(outer) });
      },
      [index],
    );
  });
  return found;
}

/** True if a text can stand inside a line: one paragraph at most comes out, whatever is kept. */
export function fitsLine(document: TextDocument): boolean {
  const paragraphs: Condition[][] = [];
  const gather = (children: readonly Block[], conditions: readonly Condition[]): boolean =>
    children.every((block) => {
      if (block.type === 'comment') return true;
      if (block.type === 'paragraph') return paragraphs.push([...conditions]) > 0;
      return block.type === 'passage' && gather(block.content, [...conditions, block.attrs]);
    });
  if (!gather(bodyOf(document), [])) return false;
  const several = severalIn(document.attrs.variables);
  return (
    paragraphs.length > 0 &&
    paragraphs.every((a, i) =>
      paragraphs.slice(i + 1).every((b) => a.some((left) => b.some((right) => neverBoth(left, right, several)))),
    )
  );
}

/** Tells which keys are choices of which several options may hold at once. */
export function severalIn(variables: readonly Variable[]): (key: string) => boolean {
  const keys = new Set(variables.filter((variable) => variable.type === 'choices').map((variable) => variable.key));
  return (key) => keys.has(key);
}

/** True if two conditions never hold together; `several` says of which choices more than one option may hold. */
export function neverBoth(a: Condition, b: Condition, several: (key: string) => boolean): boolean {
  if (a.of !== b.of) return false;
  if (a.is.length === 0 && b.is.length === 0) return a.not !== b.not;
  if (a.not === b.not) return !a.not && !several(a.of) && a.is.every((key) => !b.is.includes(key));
  const [kept, left] = a.not ? [b, a] : [a, b];
  return kept.is.every((key) => left.is.includes(key));
}

/** True if wherever `outer` holds, `inner` does too. */
export function implies(outer: Condition, inner: Condition, several: (key: string) => boolean): boolean {
  return outer.of === inner.of && neverBoth(outer, { ...inner, not: !inner.not }, several);
}

/** All inclusion targets anywhere in a document. */
export function namesIncluded(document: TextDocument): string[] {
  const names = new Set<string>();
  for (const block of bodyOf(document)) {
    visit(block, (node) => {
      if (node.type === 'inclusion' || node.type === 'inlineInclusion') names.add(node.attrs.name);
    });
  }
  if (document.attrs.front.signature && document.attrs.front.signature !== 'none')
    names.add(document.attrs.front.signature);
  return [...names];
}

const sizes = new WeakMap<TextDocument, number>();
/** How many nodes a text has: what compiling it once costs. */
export function sizeOf(document: TextDocument): number {
  let size = sizes.get(document);
  if (size === undefined) {
    size = 0;
    for (const part of document.content) visit(part, () => void (size = (size ?? 0) + 1));
    sizes.set(document, size);
  }
  return size;
}
