/**
 * The walk over a parsed expression before it is checked (engine notes, section 5): only what is allowed
 * passes, whole numbers become doubles, `list.column` becomes the list of that column, and `filled(x)`
 * asks without needing the value. The result is source text again, with a table back to the author's.
 */
import type { ASTNode } from '@marcbachmann/cel-js';
import { sentenceOf, type FindingData } from '../findings/words.js';
import { minorDigits, isCurrency } from '../values/money.js';
import type { ExpressionScope } from './scope.js';

/** Something wrong, at UTF-16 offsets of the author's text. */
export class ExpressionProblem extends Error {
  constructor(
    readonly data: FindingData<'bad-expression' | 'unknown-variable'>,
    readonly offset: number,
    readonly length: number,
  ) {
    super(sentenceOf(data));
  }
}

/** An expression rewritten for the evaluator, with where each piece came from. */
export interface Rewritten {
  readonly source: string;
  /** Offsets in `source`, ascending, with the author's range that each piece came from. */
  readonly origins: readonly { readonly at: number; readonly start: number; readonly end: number }[];
  /** Variables that are read, in order of reading; those in `filled()` too. */
  readonly references: readonly string[];
  readonly fields: readonly string[];
  /** How many nodes stand inside no, one, two … goings through a list: what they cost grows with its rows. */
  readonly sizes: readonly number[];
  /** The longest list that is written out in it. */
  readonly longest: number;
}

const BINARY = new Set(['+', '-', '*', '/', '==', '!=', '<', '<=', '>', '>=', 'in', '&&', '||']);
/** Operators that are written otherwise than the parser calls them. */
const OPERATOR_WORDS: Readonly<Record<string, string>> = { '[]': '[ ]', map: '{ }' };
const MACROS = new Set(['exists', 'all', 'map', 'filter']);
const METHODS = new Set(['contains', 'startsWith', 'endsWith']);
/** Our functions, as authors write them, with the name they are registered under. */
const FUNCTIONS: Readonly<Record<string, string>> = {
  size: 'sizeOf',
  today: 'today',
  addDays: 'addDays',
  addWorkingDays: 'addWorkingDays',
  daysBetween: 'daysBetween',
  weekday: 'weekday',
  round: 'round',
  sum: 'sum',
  min: 'min',
  max: 'max',
  upper: 'upper',
  lower: 'lower',
  join: 'join',
};
const MAX_MACRO_DEPTH = 2;

/** The name a fact has inside an expression. */
export const factName = (fact: string): string => `house__${fact}`;

/** Writes an expression as the evaluator needs it: names bound to slots, our functions made explicit. */
export function rewrite(ast: ASTNode, scope: ExpressionScope): Rewritten {
  const origins: { at: number; start: number; end: number }[] = [];
  const references: string[] = [];
  const fields: string[] = [];
  const locals: string[] = [];
  const sizes: number[] = [];
  let longest = 1;
  let out = '';
  const count = (macros: number, nodes = 1): void => void (sizes[macros] = (sizes[macros] ?? 0) + nodes);

  const emit = (text: string, node: ASTNode): void => {
    origins.push({ at: out.length, start: node.range.start, end: node.range.end });
    out += text;
  };
  const refuse = (data: ExpressionProblem['data'], node: ASTNode): never => {
    throw new ExpressionProblem(data, node.range.start, Math.max(1, node.range.end - node.range.start));
  };
  const note = (key: string): void => {
    if (!references.includes(key)) references.push(key);
  };
  const isLocal = (name: string): boolean => locals.includes(name);
  /** The list variable a node names, if it names one. */
  const listNamed = (node: ASTNode): string | undefined =>
    node.op === 'id' && !isLocal(node.args) && scope.lookup(node.args)?.type === 'list' ? node.args : undefined;

  const walkList = (nodes: readonly ASTNode[], macros: number): void =>
    nodes.forEach((node, index) => {
      if (index > 0) out += ', ';
      walk(node, macros);
    });

  const walk = (node: ASTNode, macros: number): void => {
    count(macros);
    switch (node.op) {
      case 'value':
        return value(node);
      case 'id':
        if (isLocal(node.args)) return emit(node.args, node);
        if (!scope.lookup(node.args)) refuse({ code: 'unknown-variable', why: 'variable', name: node.args }, node);
        note(node.args);
        return emit(node.args, node);
      case '.':
        return access(node, macros);
      case '!_':
      case '-_':
        emit(`${node.op[0]}(`, node);
        walk(node.args, macros);
        out += ')';
        return;
      case '?:':
        emit('((', node);
        walk(node.args[0], macros);
        out += ') ? (';
        walk(node.args[1], macros);
        out += ') : (';
        walk(node.args[2], macros);
        out += '))';
        return;
      case 'list':
        longest = Math.max(longest, node.args.length);
        emit('[', node);
        walkList(node.args, macros);
        out += ']';
        return;
      case 'call':
        return call(node, macros);
      case 'rcall':
        return method(node, macros);
      default:
        if (!BINARY.has(node.op))
          refuse({ code: 'bad-expression', why: 'operator', operator: OPERATOR_WORDS[node.op] ?? node.op }, node);
        emit('(', node);
        walk((node.args as [ASTNode, ASTNode])[0], macros);
        out += ` ${node.op} `;
        walk((node.args as [ASTNode, ASTNode])[1], macros);
        out += ')';
    }
  };

  const value = (node: Extract<ASTNode, { op: 'value' }>): void => {
    const { args } = node;
    if (typeof args === 'string') return emit(literal(args), node);
    if (typeof args === 'boolean') return emit(String(args), node);
    const number =
      typeof args === 'bigint' || typeof args === 'number'
        ? Number(args)
        : args !== null && 'value' in args
          ? Number(args.value)
          : NaN;
    if (!Number.isFinite(number)) refuse({ code: 'bad-expression', why: 'literal' }, node);
    emit(double(number), node);
  };

  const access = (node: Extract<ASTNode, { op: '.' }>, macros: number): void => {
    const [owner, name] = node.args;
    if (owner.op === 'id' && !isLocal(owner.args)) {
      if (owner.args === 'recipient' || owner.args === 'sender') {
        fields.push(`${owner.args}.${name}`);
        return emit(`${owner.args}.${name}`, node);
      }
      if (owner.args === 'house') {
        if (!scope.facts.has(name)) refuse({ code: 'unknown-variable', why: 'fact', name }, node);
        return emit(factName(name), node);
      }
    }
    const list = listNamed(owner);
    if (list !== undefined) {
      if (!scope.lookup(list)?.columns?.some((column) => column.key === name))
        refuse({ code: 'unknown-variable', why: 'column', list, name }, node);
      note(list);
      count(macros + 1, 2);
      return emit(`${list}.map(row__, row__.${name})`, node);
    }
    emit('', node);
    walk(owner, macros);
    out += `.${name}`;
  };

  const call = (node: Extract<ASTNode, { op: 'call' }>, macros: number): void => {
    const [name, args] = node.args;
    if (name === 'filled' || name === 'has') return filled(node, name, args);
    const registered = Object.hasOwn(FUNCTIONS, name) ? FUNCTIONS[name] : undefined;
    if (registered === undefined) refuse({ code: 'bad-expression', why: 'function', name }, node);
    const [first] = args;
    if (name === 'sum' && args.length === 1 && first?.op === '.') {
      const list = listNamed(first.args[0]);
      const column =
        list === undefined
          ? undefined
          : scope.lookup(list)?.columns?.find((candidate) => candidate.key === first.args[1]);
      if (column?.type === 'money') {
        emit('sumMoney(', node);
        walk(first, macros);
        out += `, ${double(minorDigits(isCurrency(column.currency) ? column.currency : 'EUR'))})`;
        return;
      }
    }
    emit(`${registered}(`, node);
    // What goes through a list by itself costs a step a row.
    count(macros + 1);
    walkList(args, macros);
    out += ')';
  };

  const filled = (node: ASTNode, name: string, args: readonly ASTNode[]): void => {
    const [of] = args;
    if (!of || args.length !== 1) return refuse({ code: 'bad-expression', why: 'one-name', name }, node);
    if (of.op === '.' && of.args[0].op === 'id' && (of.args[0].args === 'recipient' || of.args[0].args === 'sender')) {
      fields.push(`${of.args[0].args}.${of.args[1]}`);
      return emit(`has(${of.args[0].args}.${of.args[1]})`, node);
    }
    if (of.op === '.' && of.args[0].op === 'id' && isLocal(of.args[0].args))
      return emit(`has(${of.args[0].args}.${of.args[1]})`, node);
    if (of.op !== 'id' || isLocal(of.args)) return refuse({ code: 'bad-expression', why: 'variable-name', name }, of);
    if (!scope.lookup(of.args)) return refuse({ code: 'unknown-variable', why: 'variable', name: of.args }, of);
    note(of.args);
    emit(`isFilled("${of.args}")`, node);
  };

  const method = (node: Extract<ASTNode, { op: 'rcall' }>, macros: number): void => {
    const [name, owner, args] = node.args;
    if (METHODS.has(name)) {
      walk(owner, macros);
      emit(`.${name}(`, node);
      walkList(args, macros);
      out += ')';
      return;
    }
    const [local, ...rest] = args;
    if (!MACROS.has(name)) return refuse({ code: 'bad-expression', why: 'function', name }, node);
    if (macros >= MAX_MACRO_DEPTH) return refuse({ code: 'bad-expression', why: 'nested' }, node);
    if (local?.op !== 'id' || rest.length === 0)
      return refuse({ code: 'bad-expression', why: 'row-name-missing', name }, node);
    if (/__$/.test(local.args) || local.args === 'recipient' || local.args === 'sender' || local.args === 'house')
      return refuse({ code: 'bad-expression', why: 'row-name', name: local.args }, local);
    walk(owner, macros);
    emit(`.${name}(${local.args}, `, node);
    locals.push(local.args);
    walkList(rest, macros + 1);
    locals.pop();
    out += ')';
  };

  walk(ast, 0);
  return { source: out, origins, references, fields, sizes: Array.from(sizes, (size = 0) => size), longest };
}

/** A double as the language writes it. */
function double(value: number): string {
  const text = String(value);
  return /[.e]/.test(text) ? text.replace(/^(-?\d+)e/, '$1.0e') : `${text}.0`;
}

/** A string literal of the language. */
const literal = (text: string): string =>
  `"${text.replace(/[\\"]/g, '\\$&').replace(/[\u0000-\u001F\u007F]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)}"`;
