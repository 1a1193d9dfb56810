/**
 * Conditions as they are built: comparisons of a variable with a value, in groups of which all or any must hold. Each
 * is an expression of the Common Expression Language, and every expression of that form can be built on.
 */
import type { Family } from '../values/index.js';
import { Environment, type ASTNode } from '@marcbachmann/cel-js';
import type { TypeName } from '../template/variable.js';
import { WEEKDAYS } from '../values/date.js';
import { comparisonsOf, familyOf, METHODS, OPERATORS, type ComparisonName } from './comparisons.js';

/**
 * `of` is a variable's key, `recipient.x`, `sender.x` or `house.x`. `value` is source text: a number, an ISO day or
 * `today`, `today+14`, `today-3`, a time, an option's key (several joined by a bar), words, a weekday (`mon`); empty
 * where the comparison takes none.
 */
export interface Comparison {
  readonly of: string;
  readonly how: ComparisonName;
  readonly value: string;
}
/** Several conditions of which all, or any, must hold; turned round with `not`. */
export interface ConditionGroup {
  readonly join: 'all' | 'any';
  readonly not: boolean;
  readonly parts: readonly ConditionTree[];
}
/** A condition as it is built by hand: one comparison, or a group of them. */
export type ConditionTree = Comparison | ConditionGroup;

/** The type behind a name, if there is one. */
export type TypeOf = (name: string) => TypeName | undefined;

/** Whether a condition is a group. */
export const isGroup = (tree: ConditionTree): tree is ConditionGroup => 'join' in tree;

const RELATIVE = /^today(?:([+-])(\d{1,5}))?$/;
const quoted = (text: string): string => JSON.stringify(text);

/** The expression of a condition. Comparisons that still lack a variable or a value are left out; empty if all do. */
export function writeConditions(tree: ConditionTree, typeOf: TypeOf): string {
  return write(tree, typeOf, true);
}

function write(tree: ConditionTree, typeOf: TypeOf, outermost: boolean): string {
  if (!isGroup(tree)) return writeComparison(tree, typeOf) ?? '';
  const parts = tree.parts.map((part) => write(part, typeOf, false)).filter((part) => part !== '');
  if (parts.length === 0) return '';
  const joined = parts.join(tree.join === 'all' ? ' && ' : ' || ');
  if (tree.not) return `!(${joined})`;
  return outermost || parts.length === 1 ? joined : `(${joined})`;
}

/** A comparison's expression, or undefined while it is not whole. */
export function writeComparison({ of, how, value }: Comparison, typeOf: TypeOf): string | undefined {
  const type = typeOf(of);
  const family = type && familyOf(type);
  if (!family || !comparisonsOf(family).includes(how)) return undefined;
  switch (how) {
    case 'yes':
      return of;
    case 'no':
      return `!${of}`;
    case 'filled':
      return family === 'list' ? `size(${of}) > 0` : `filled(${of})`;
    case 'empty':
      return family === 'list' ? `size(${of}) == 0` : `!filled(${of})`;
    case 'has':
    case 'has-not': {
      if (value === '') return undefined;
      return how === 'has' ? `${quoted(value)} in ${of}` : `!(${quoted(value)} in ${of})`;
    }
    case 'one-of': {
      const keys = value.split('|').filter(Boolean);
      return keys.length > 0 ? `${of} in [${keys.map(quoted).join(', ')}]` : undefined;
    }
    case 'weekday':
      return (WEEKDAYS as readonly string[]).includes(value) ? `weekday(${of}) == ${quoted(value)}` : undefined;
    default: {
      const operand = writeValue(value, family);
      if (operand === undefined) return undefined;
      const method = METHODS[how];
      if (method) return `${of}.${method}(${operand})`;
      return `${family === 'list' ? `size(${of})` : of} ${OPERATORS[how]} ${operand}`;
    }
  }
}

function writeValue(value: string, family: Family): string | undefined {
  if (family === 'number' || family === 'list') {
    const text = value.trim();
    return /^-?\d+(\.\d+)?$/.test(text) ? text : undefined;
  }
  if (value === '') return undefined;
  const relative = family === 'date' ? RELATIVE.exec(value) : null;
  if (!relative) return family === 'date' && !/^\d{4}-\d\d-\d\d$/.test(value) ? undefined : quoted(value);
  const [, sign, days] = relative;
  return days === undefined ? 'today()' : `addDays(today(), ${sign === '-' ? '-' : ''}${Number(days)})`;
}

let parser: Environment | undefined;

/** Reads an expression as a condition; undefined if it says more than can be built, or is none. */
export function readConditions(source: string, typeOf: TypeOf): ConditionTree | undefined {
  try {
    return readNode((parser ??= new Environment()).parse(source).ast, typeOf);
  } catch {
    return undefined;
  }
}

function readNode(node: ASTNode, typeOf: TypeOf): ConditionTree | undefined {
  if (node.op === '&&' || node.op === '||') {
    const join = node.op === '&&' ? 'all' : 'any';
    const parts: ConditionTree[] = [];
    for (const side of node.args) {
      const part = readNode(side, typeOf);
      if (!part) return undefined;
      // Groups of one kind are one, however they were put in brackets.
      if (isGroup(part) && part.join === join && !part.not) parts.push(...part.parts);
      else parts.push(part);
    }
    return { join, not: false, parts };
  }
  if (node.op === '!_') {
    const inner = readNode(node.args, typeOf);
    if (!inner) return undefined;
    if (isGroup(inner)) return inner.not ? undefined : { ...inner, not: true };
    return OPPOSITES[inner.how]
      ? { ...inner, how: OPPOSITES[inner.how] as ComparisonName }
      : { join: 'all', not: true, parts: [inner] };
  }
  return readComparison(node, typeOf);
}

/** Comparisons whose negation has a form of its own. */
const OPPOSITES: Readonly<Partial<Record<ComparisonName, ComparisonName>>> = {
  yes: 'no',
  filled: 'empty',
  has: 'has-not',
};

/** A comparison that its variable's type has. */
function readComparison(node: ASTNode, typeOf: TypeOf): Comparison | undefined {
  const comparison = comparisonOf(node, typeOf);
  const type = comparison && typeOf(comparison.of);
  return type && comparisonsOf(familyOf(type)).includes(comparison.how) ? comparison : undefined;
}

function comparisonOf(node: ASTNode, typeOf: TypeOf): Comparison | undefined {
  const name = nameOf(node);
  if (name !== undefined) return { of: name, how: 'yes', value: '' };
  if (node.op === 'call') {
    const [called, [of]] = node.args;
    const filled = called === 'filled' && of && nameOf(of);
    return filled ? { of: filled, how: 'filled', value: '' } : undefined;
  }
  if (node.op === 'rcall') {
    const [method, owner, [operand]] = node.args;
    const how = (Object.keys(METHODS) as ComparisonName[]).find((each) => METHODS[each] === method);
    return how && operand && readOperands(owner, how, operand, typeOf);
  }
  if (node.op === 'in') return readMembership(node.args[0], node.args[1]);
  const how = (Object.keys(OPERATORS) as ComparisonName[]).find((each) => OPERATORS[each] === node.op);
  if (!how) return undefined;
  const [left, right] = node.args as [ASTNode, ASTNode];
  return readOperands(left, how, right, typeOf);
}

/** `"tea" in extras`, `gate in ["river", "moor"]`. */
function readMembership(left: ASTNode, right: ASTNode): Comparison | undefined {
  const [owner, list] = [nameOf(left), nameOf(right)];
  if (list !== undefined && left.op === 'value' && typeof left.args === 'string')
    return { of: list, how: 'has', value: left.args };
  if (owner === undefined || right.op !== 'list') return undefined;
  const keys = right.args.map((each) => (each.op === 'value' && typeof each.args === 'string' ? each.args : undefined));
  return keys.length > 0 && keys.every((key) => key !== undefined && !key.includes('|'))
    ? { of: owner, how: 'one-of', value: keys.join('|') }
    : undefined;
}

function readOperands(left: ASTNode, how: ComparisonName, right: ASTNode, typeOf: TypeOf): Comparison | undefined {
  if (left.op === 'call') {
    const [called, [of]] = left.args;
    const name = of && nameOf(of);
    const value = readValue(right);
    if (!name || value === undefined) return undefined;
    if (called === 'weekday' && how === 'is') return { of: name, how: 'weekday', value };
    if (called !== 'size' || typeOf(name) !== 'list') return undefined;
    if (how === 'more' && value === '0') return { of: name, how: 'filled', value: '' };
    if (how === 'is' && value === '0') return { of: name, how: 'empty', value: '' };
    return { of: name, how, value };
  }
  const name = nameOf(left);
  const value = readValue(right);
  const type = name === undefined ? undefined : typeOf(name);
  if (name === undefined || value === undefined || type === 'list' || type === 'yes-no') return undefined;
  // Words in quotation marks that look like a day from today would be read as one.
  const literal = right.op === 'value' && typeof right.args === 'string';
  if (literal && type === 'date' && RELATIVE.test(value)) return undefined;
  return { of: name, how, value };
}

/** `party`, `recipient.city`. */
function nameOf(node: ASTNode): string | undefined {
  if (node.op === 'id') return node.args;
  if (node.op === '.' && node.args[0].op === 'id' && /^(?:recipient|sender|house)$/.test(node.args[0].args))
    return `${node.args[0].args}.${node.args[1]}`;
  return undefined;
}

function readValue(node: ASTNode): string | undefined {
  if (node.op === 'value') {
    const { args } = node;
    if (typeof args === 'string') return args;
    return typeof args === 'bigint' || typeof args === 'number' ? plainNumber(Number(args)) : undefined;
  }
  if (node.op === '-_') {
    const value = readValue(node.args);
    return value === undefined ||
      value.startsWith('-') ||
      node.args.op !== 'value' ||
      typeof node.args.args === 'string'
      ? undefined
      : `-${value}`;
  }
  if (node.op !== 'call') return undefined;
  const [called, args] = node.args;
  if (called === 'today' && args.length === 0) return 'today';
  const [from, days] = args;
  const isFromToday = called === 'addDays' && from?.op === 'call' && from.args[0] === 'today' && days !== undefined;
  const count = isFromToday ? Number(readValue(days)) : NaN;
  return Number.isInteger(count) && count !== 0 && Math.abs(count) <= 99_999
    ? `today${count < 0 ? '-' : '+'}${Math.abs(count)}`
    : undefined;
}

/** A number without an exponent; undefined where it would need one. */
function plainNumber(value: number): string | undefined {
  const text = String(value);
  return /^-?\d+(\.\d+)?$/.test(text) ? text : undefined;
}
