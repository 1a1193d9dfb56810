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
export const rewrite = (ast: ASTNode, scope: ExpressionScope): Rewritten => new Rewriting(scope).whole(ast);

class Rewriting {
  private readonly origins: { at: number; start: number; end: number }[] = [];
  private readonly references: string[] = [];
  private readonly fields: string[] = [];
  private readonly locals: string[] = [];
  private readonly sizes: number[] = [];
  private longest = 1;
  private out = '';

  constructor(private readonly scope: ExpressionScope) {}

  whole(ast: ASTNode): Rewritten {
    this.walk(ast, 0);
    const { out: source, origins, references, fields, longest } = this;
    return { source, origins, references, fields, sizes: Array.from(this.sizes, (size = 0) => size), longest };
  }

  private count(macros: number, nodes = 1): void {
    this.sizes[macros] = (this.sizes[macros] ?? 0) + nodes;
  }

  private emit(text: string, node: ASTNode): void {
    this.origins.push({ at: this.out.length, start: node.range.start, end: node.range.end });
    this.out += text;
  }
  private refuse(data: ExpressionProblem['data'], node: ASTNode): never {
    throw new ExpressionProblem(data, node.range.start, Math.max(1, node.range.end - node.range.start));
  }
  private note(key: string): void {
    if (!this.references.includes(key)) this.references.push(key);
  }
  private isLocal(name: string): boolean {
    return this.locals.includes(name);
  }
  /** The list variable a node names, if it names one. */
  private listNamed(node: ASTNode): string | undefined {
    return node.op === 'id' && !this.isLocal(node.args) && this.scope.lookup(node.args)?.type === 'list'
      ? node.args
      : undefined;
  }

  private walkList(nodes: readonly ASTNode[], macros: number): void {
    nodes.forEach((node, index) => {
      if (index > 0) this.out += ', ';
      this.walk(node, macros);
    });
  }

  private walk(node: ASTNode, macros: number): void {
    this.count(macros);
    switch (node.op) {
      case 'value':
        return this.value(node);
      case 'id':
        if (this.isLocal(node.args)) return this.emit(node.args, node);
        if (!this.scope.lookup(node.args))
          this.refuse({ code: 'unknown-variable', why: 'variable', name: node.args }, node);
        this.note(node.args);
        return this.emit(node.args, node);
      case '.':
        return this.access(node, macros);
      case '!_':
      case '-_':
        this.emit(`${node.op[0]}(`, node);
        this.walk(node.args, macros);
        this.out += ')';
        return;
      case '?:':
        this.emit('((', node);
        this.walk(node.args[0], macros);
        this.out += ') ? (';
        this.walk(node.args[1], macros);
        this.out += ') : (';
        this.walk(node.args[2], macros);
        this.out += '))';
        return;
      case 'list':
        this.longest = Math.max(this.longest, node.args.length);
        this.emit('[', node);
        this.walkList(node.args, macros);
        this.out += ']';
        return;
      case 'call':
        return this.call(node, macros);
      case 'rcall':
        return this.method(node, macros);
      default:
        if (!BINARY.has(node.op))
          this.refuse({ code: 'bad-expression', why: 'operator', operator: OPERATOR_WORDS[node.op] ?? node.op }, node);
        this.emit('(', node);
        this.walk((node.args as [ASTNode, ASTNode])[0], macros);
        this.out += ` ${node.op} `;
        this.walk((node.args as [ASTNode, ASTNode])[1], macros);
        this.out += ')';
    }
  }

  private value(node: Extract<ASTNode, { op: 'value' }>): void {
    const { args } = node;
    if (typeof args === 'string') return this.emit(literal(args), node);
    if (typeof args === 'boolean') return this.emit(String(args), node);
    const number =
      typeof args === 'bigint' || typeof args === 'number'
        ? Number(args)
        : args !== null && 'value' in args
          ? Number(args.value)
          : NaN;
    if (!Number.isFinite(number)) this.refuse({ code: 'bad-expression', why: 'literal' }, node);
    this.emit(double(number), node);
  }

  private access(node: Extract<ASTNode, { op: '.' }>, macros: number): void {
    const [owner, name] = node.args;
    if (owner.op === 'id' && !this.isLocal(owner.args)) {
      if (owner.args === 'recipient' || owner.args === 'sender') {
        this.fields.push(`${owner.args}.${name}`);
        return this.emit(`${owner.args}.${name}`, node);
      }
      if (owner.args === 'house') {
        if (!this.scope.facts.has(name)) this.refuse({ code: 'unknown-variable', why: 'fact', name }, node);
        return this.emit(factName(name), node);
      }
    }
    const list = this.listNamed(owner);
    if (list !== undefined) {
      if (!this.scope.lookup(list)?.columns?.some((column) => column.key === name))
        this.refuse({ code: 'unknown-variable', why: 'column', list, name }, node);
      this.note(list);
      this.count(macros + 1, 2);
      return this.emit(`${list}.map(row__, row__.${name})`, node);
    }
    this.emit('', node);
    this.walk(owner, macros);
    this.out += `.${name}`;
  }

  private call(node: Extract<ASTNode, { op: 'call' }>, macros: number): void {
    const [name, args] = node.args;
    if (name === 'filled' || name === 'has') return this.filled(node, name, args);
    const registered = Object.hasOwn(FUNCTIONS, name) ? FUNCTIONS[name] : undefined;
    if (registered === undefined) this.refuse({ code: 'bad-expression', why: 'function', name }, node);
    const [first] = args;
    if (name === 'sum' && args.length === 1 && first?.op === '.') {
      const list = this.listNamed(first.args[0]);
      const column =
        list === undefined
          ? undefined
          : this.scope.lookup(list)?.columns?.find((candidate) => candidate.key === first.args[1]);
      if (column?.type === 'money') {
        this.emit('sumMoney(', node);
        this.walk(first, macros);
        this.out += `, ${double(minorDigits(isCurrency(column.currency) ? column.currency : 'EUR'))})`;
        return;
      }
    }
    this.emit(`${registered}(`, node);
    // What goes through a list by itself costs a step a row.
    this.count(macros + 1);
    this.walkList(args, macros);
    this.out += ')';
  }

  private filled(node: ASTNode, name: string, args: readonly ASTNode[]): void {
    const [of] = args;
    if (!of || args.length !== 1) return this.refuse({ code: 'bad-expression', why: 'one-name', name }, node);
    if (of.op === '.' && of.args[0].op === 'id' && (of.args[0].args === 'recipient' || of.args[0].args === 'sender')) {
      this.fields.push(`${of.args[0].args}.${of.args[1]}`);
      return this.emit(`has(${of.args[0].args}.${of.args[1]})`, node);
    }
    if (of.op === '.' && of.args[0].op === 'id' && this.isLocal(of.args[0].args))
      return this.emit(`has(${of.args[0].args}.${of.args[1]})`, node);
    if (of.op !== 'id' || this.isLocal(of.args))
      return this.refuse({ code: 'bad-expression', why: 'variable-name', name }, of);
    if (!this.scope.lookup(of.args))
      return this.refuse({ code: 'unknown-variable', why: 'variable', name: of.args }, of);
    this.note(of.args);
    this.emit(`isFilled("${of.args}")`, node);
  }

  private method(node: Extract<ASTNode, { op: 'rcall' }>, macros: number): void {
    const [name, owner, args] = node.args;
    if (METHODS.has(name)) {
      this.walk(owner, macros);
      this.emit(`.${name}(`, node);
      this.walkList(args, macros);
      this.out += ')';
      return;
    }
    const [local, ...rest] = args;
    if (!MACROS.has(name)) return this.refuse({ code: 'bad-expression', why: 'function', name }, node);
    if (macros >= MAX_MACRO_DEPTH) return this.refuse({ code: 'bad-expression', why: 'nested' }, node);
    if (local?.op !== 'id' || rest.length === 0)
      return this.refuse({ code: 'bad-expression', why: 'row-name-missing', name }, node);
    if (/__$/.test(local.args) || local.args === 'recipient' || local.args === 'sender' || local.args === 'house')
      return this.refuse({ code: 'bad-expression', why: 'row-name', name: local.args }, local);
    this.walk(owner, macros);
    this.emit(`.${name}(${local.args}, `, node);
    this.locals.push(local.args);
    this.walkList(rest, macros + 1);
    this.locals.pop();
    this.out += ')';
  }
}

/** A double as the language writes it. */
function double(value: number): string {
  const text = String(value);
  return /[.e]/.test(text) ? text.replace(/^(-?\d+)e/, '$1.0e') : `${text}.0`;
}

/** A string literal of the language. */
const literal = (text: string): string =>
  `"${text.replace(/[\\"]/g, '\\$&').replace(/[\u0000-\u001F\u007F]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)}"`;
