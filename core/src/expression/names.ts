/** The names of variables in an expression, for renaming and for showing where a variable is used. */
import { Environment, type ASTNode } from '@marcbachmann/cel-js';

/** A name at UTF-16 offsets of the source. */
export interface NameInExpression {
  readonly name: string;
  readonly start: number;
  readonly end: number;
}

const ROW_MACROS = new Set(['exists', 'all', 'map', 'filter']);
let parser: Environment | undefined;

/**
 * The variables that an expression names, in reading order; the rows that `exists`, `all`, `map` and `filter` name,
 * and fields behind a dot, are none. An expression that is still being written is read word by word.
 */
export function namesIn(source: string): NameInExpression[] {
  let ast: ASTNode;
  try {
    ast = (parser ??= new Environment()).parse(source).ast;
  } catch {
    return words(source);
  }
  const found: NameInExpression[] = [];
  const walk = (node: ASTNode, rows: readonly string[]): void => {
    if (node.op === 'id') {
      if (!rows.includes(node.args)) found.push({ name: node.args, start: node.range.start, end: node.range.end });
      return;
    }
    if (node.op === 'rcall') {
      const [name, owner, args] = node.args;
      walk(owner, rows);
      const [row, ...rest] = args;
      const inner = ROW_MACROS.has(name) && row?.op === 'id' ? [...rows, row.args] : rows;
      (inner === rows ? args : rest).forEach((each) => walk(each, inner));
      return;
    }
    for (const child of childrenOf(node)) walk(child, rows);
  };
  walk(ast, []);
  return found.sort((a, b) => a.start - b.start);
}

const isNode = (value: unknown): value is ASTNode => typeof value === 'object' && value !== null && 'op' in value;

/** The nodes among a node's arguments, which hold names and literals too. */
function childrenOf(node: ASTNode): ASTNode[] {
  const flat: unknown[] = Array.isArray(node.args) ? (node.args as unknown[]).flat(2) : [node.args];
  return flat.filter(isNode);
}

/** Names outside quotation marks that neither follow a dot nor are called. */
function words(source: string): NameInExpression[] {
  const found: NameInExpression[] = [];
  for (const match of source.matchAll(/"(?:[^"\\]|\\.)*"?|'(?:[^'\\]|\\.)*'?|(\.\s*)?\b([a-z][a-z0-9_]*)\b(\s*\()?/g)) {
    const [whole, dot, name, called] = match;
    if (name === undefined || dot || called) continue;
    found.push({ name, start: match.index, end: match.index + whole.length });
  }
  return found;
}

/** The expression with some names put in place of others. */
export function renameIn(source: string, name: string, to: string): string {
  return namesIn(source)
    .filter((each) => each.name === name)
    .reduceRight((text, { start, end }) => text.slice(0, start) + to + text.slice(end), source);
}
