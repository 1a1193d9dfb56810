/**
 * Two texts that came from one: what differs, part by part, and the text that a choice for each part makes.
 * A part that only one side changed is decided beforehand; the others wait for a person. Blocks are compared as
 * sequences (diff3: Khanna, Kunal and Pierce 2007) and, where one container stands against another, inside it.
 */
import { diffArrays } from 'diff';
import { writeBody } from '../formats/markdown/write-body.js';
import { writeLine } from '../formats/markdown/line.js';
import { part, PARTS, type Block, type Front, type Part, type TextDocument } from '../template/document.js';
import { childrenOf } from '../template/walk.js';
import { normalise } from '../template/normalise.js';
import { writeWait, type Step } from '../template/steps.js';
import type { Option, Variable } from '../template/variable.js';
import { bodyText } from '../words/lines.js';
import { sameValue as same } from '../words/same.js';
import { usesOf } from './uses.js';

/** Which side a part is taken from; `both` is yours, then theirs, and only for parts of the body. */
export type Taken = 'yours' | 'theirs' | 'both';

/** One difference between two versions that were changed apart. */
export interface Difference {
  /** Where it is: an attribute such as `title`, a part such as `subject`, a variable by its key, or the body. */
  readonly in: 'front' | 'part' | 'variable' | 'body';
  /** The attribute, part or key; empty in the body. */
  readonly name: string;
  /** Each side's lines as an author reads them; none where it has nothing there. */
  readonly yours: readonly string[];
  readonly theirs: readonly string[];
  /** The side that is taken unless somebody says otherwise: the one that changed. None where both did. */
  readonly decided?: 'yours' | 'theirs';
}

/** Two versions brought together. */
export interface Together {
  readonly differences: readonly Difference[];
  /**
   * The text with a choice for each difference, in their order; what is not chosen is as decided, else yours.
   * A variable that the text then uses is never lost with the side that declared it.
   */
  merge(taken: readonly (Taken | undefined)[]): TextDocument;
}

type Take = (index: number) => Taken;
type Chosen<T> = (take: Take) => T;

/** Compares two texts with the one they came from. @param base none where it is not known: then nothing is decided */
export function bringTogether(yours: TextDocument, theirs: TextDocument, base?: TextDocument): Together {
  const together = new Comparing();
  const front = together.front(yours.attrs.front, theirs.attrs.front, base?.attrs.front);
  const parts = PARTS.map((name) => together.part(part(yours, name), part(theirs, name), base && part(base, name)));
  const variables = together.variables(yours.attrs.variables, theirs.attrs.variables, base?.attrs.variables);
  const steps = together.steps(yours.attrs.steps, theirs.attrs.steps, base && { was: base.attrs.steps });
  const { differences } = together;
  return {
    differences,
    merge(taken) {
      const take: Take = (index) => taken[index] ?? differences[index]?.decided ?? 'yours';
      const merged: TextDocument = {
        type: 'template',
        attrs: { front: front(take), variables: variables(take), ...stepsIn(steps(take)) },
        content: parts.map((pick) => pick(take)),
      };
      return normalise(withUsed(merged, yours, theirs));
    },
  };
}

/** Brings along the variables that are used and were declared by one of the sides, and those that they use. */
function withUsed(document: TextDocument, ...sides: readonly TextDocument[]): TextDocument {
  const { variables } = document.attrs;
  const used = new Set(usesOf(document).map(({ key }) => key));
  const more = sides
    .flatMap((side) => side.attrs.variables)
    .find(({ key }) => used.has(key) && !variables.some((variable) => variable.key === key));
  if (!more) return document;
  return withUsed({ ...document, attrs: { ...document.attrs, variables: [...variables, more] } }, ...sides);
}

type Steps = readonly Step[] | undefined;
const stepsIn = (steps: Steps): { readonly steps?: readonly Step[] } => (steps ? { steps } : {});
/** Steps a line each, as their file has them. */
const stepsInWords = (steps: Steps = []): string[] =>
  steps.map(({ text, at, when, look, later, ...wait }, index) =>
    [
      `${index + 1}. ${text}`,
      writeWait({ text, ...wait }),
      at && `at ${at}`,
      when && `when ${when}`,
      look && 'look',
      later && `later ${later.join(', ')}`,
    ]
      .filter(Boolean)
      .join(', '),
  );

const written = (value: unknown): string => JSON.stringify(value) ?? '';

class Comparing {
  readonly differences: Difference[] = [];

  /** Notes a difference and gives what chooses between its sides. */
  private either<T>(
    yours: T,
    theirs: T,
    base: { readonly was: T } | undefined,
    told: Omit<Difference, 'decided'>,
    both: T = yours,
  ): Chosen<T> {
    if (same(yours, theirs)) return () => yours;
    const decided = !base ? undefined : same(theirs, base.was) ? 'yours' : same(yours, base.was) ? 'theirs' : undefined;
    const index = this.differences.push({ ...told, ...(decided ? { decided } : {}) }) - 1;
    return (take) => {
      const side = take(index);
      return side === 'both' ? both : side === 'yours' ? yours : theirs;
    };
  }

  front(yours: Front, theirs: Front, base: Front | undefined): Chosen<Front> {
    const names = [...new Set([...Object.keys(yours), ...Object.keys(theirs)])] as (keyof Front)[];
    const lines = (value: unknown): string[] =>
      value === undefined ? [] : [typeof value === 'string' ? value : written(value)];
    const picks = names.map((name) => {
      const told = { in: 'front' as const, name, yours: lines(yours[name]), theirs: lines(theirs[name]) };
      return this.either<unknown>(yours[name], theirs[name], base && { was: base[name] }, told);
    });
    return (take) => {
      const entries = names.map((name, index) => [name, picks[index]?.(take)] as const);
      return Object.fromEntries(entries.filter(([, value]) => value !== undefined)) as unknown as Front;
    };
  }

  /** The steps of a series, which are taken from one side as they are: each is counted from the one before it. */
  steps(yours: Steps, theirs: Steps, base: { readonly was: Steps } | undefined): Chosen<Steps> {
    const told = { in: 'front' as const, name: 'steps', yours: stepsInWords(yours), theirs: stepsInWords(theirs) };
    return this.either<Steps>(yours, theirs, base, told);
  }

  part(yours: Part, theirs: Part, base: Part | undefined): Chosen<Part> {
    if (yours.type === 'body') {
      const blocks = this.blocks(
        yours.content,
        childrenOf(theirs) as readonly Block[],
        base && (childrenOf(base) as readonly Block[]),
      );
      return (take) => ({ type: 'body', content: orParagraph(blocks(take)) });
    }
    const told = { in: 'part' as const, name: yours.type, yours: partLines(yours), theirs: partLines(theirs) };
    return this.either(yours, theirs, base && { was: base }, told);
  }

  variables(
    yours: readonly Variable[],
    theirs: readonly Variable[],
    base: readonly Variable[] | undefined,
  ): Chosen<readonly Variable[]> {
    const of = (variables: readonly Variable[] | undefined, key: string): Variable | undefined =>
      variables?.find((each) => each.key === key);
    const keys = [...new Set([...yours, ...theirs].map(({ key }) => key))];
    const picks = keys.map((key) => {
      const [mine, other] = [of(yours, key), of(theirs, key)];
      const told = { in: 'variable' as const, name: key, yours: said(mine, other), theirs: said(other, mine) };
      return this.either(mine, other, base && { was: of(base, key) }, told);
    });
    return (take) => picks.map((pick) => pick(take)).filter((each) => each !== undefined);
  }

  /** Blocks in a row: runs that all sides share stand, the others are differences, or are looked into. */
  blocks(
    yours: readonly Block[],
    theirs: readonly Block[],
    base: readonly Block[] | undefined,
  ): Chosen<readonly Block[]> {
    const picks = runsOf(yours, theirs, base).map((run) => this.run(run));
    return (take) => picks.flatMap((pick) => pick(take));
  }

  private run({ yours, theirs, base }: BlockRun): Chosen<readonly Block[]> {
    if (same(yours, theirs)) return () => yours;
    const inside = yours.length === 1 && theirs.length === 1 ? this.inside(yours[0], theirs[0], base) : undefined;
    if (inside) return inside;
    let [left, right] = [linesOf(yours), linesOf(theirs)];
    // The words are the same: what differs is a condition or a form, which the written text shows.
    if (same(left, right)) [left, right] = [writtenLines(yours), writtenLines(theirs)];
    const told = { in: 'body' as const, name: '', yours: left, theirs: right };
    return this.either(yours, theirs, base && { was: base }, told, [...yours, ...theirs]);
  }

  /** One container against another that is the same but for what it holds. */
  private inside(
    mine: Block | undefined,
    other: Block | undefined,
    base: readonly Block[] | undefined,
  ): Chosen<readonly Block[]> | undefined {
    if (!mine || !other || !holdsBlocks(mine) || !holdsBlocks(other)) return undefined;
    if (!sameOutside(mine, other)) return undefined;
    const was = base?.length === 1 ? base[0] : undefined;
    if (base && !(was && holdsBlocks(was) && sameOutside(mine, was))) return undefined;
    const blocks = this.blocks(mine.content, other.content, was && holdsBlocks(was) ? was.content : undefined);
    return (take) => [{ ...mine, content: orParagraph(blocks(take)) }];
  }
}

type Container = Block & { readonly type: 'passage' | 'panel' | 'blockquote' };
const holdsBlocks = (block: Block): block is Container =>
  block.type === 'passage' || block.type === 'panel' || block.type === 'blockquote';
const sameOutside = (a: Container, b: Container): boolean =>
  same({ ...a, content: undefined }, { ...b, content: undefined });
/** What holds blocks holds at least one. */
const orParagraph = (blocks: readonly Block[]): readonly Block[] =>
  blocks.length > 0 ? blocks : [{ type: 'paragraph' }];

interface BlockRun {
  readonly yours: readonly Block[];
  readonly theirs: readonly Block[];
  readonly base: readonly Block[] | undefined;
}

/** Aligns the sides: a run ends where all of them agree on a block again. */
function runsOf(yours: readonly Block[], theirs: readonly Block[], base: readonly Block[] | undefined): BlockRun[] {
  const middle = base ?? yours;
  const mine = matches(middle, yours);
  const other = matches(middle, theirs);
  const runs: BlockRun[] = [];
  let [m, y, t] = [0, 0, 0];
  const close = (toM: number, toY: number, toT: number): void => {
    if (m < toM || y < toY || t < toT)
      runs.push({
        yours: yours.slice(y, toY),
        theirs: theirs.slice(t, toT),
        base: base && middle.slice(m, toM),
      });
    [m, y, t] = [toM, toY, toT];
  };
  middle.forEach((_, index) => {
    const [inYours, inTheirs] = [mine.get(index), other.get(index)];
    if (inYours === undefined || inTheirs === undefined) return;
    close(index, inYours, inTheirs);
    close(index + 1, inYours + 1, inTheirs + 1);
  });
  close(middle.length, yours.length, theirs.length);
  return runs.flatMap(pairUp);
}

/** A run in which every side has as many blocks is taken block by block: they were changed where they stood. */
function pairUp(run: BlockRun): BlockRun[] {
  const { yours, theirs, base } = run;
  if (yours.length !== theirs.length || (base && base.length !== yours.length)) return [run];
  return yours.map((block, index) => ({
    yours: [block],
    theirs: theirs.slice(index, index + 1),
    base: base?.slice(index, index + 1),
  }));
}

/** Where each block of one side that the other has too stands there. */
function matches(from: readonly Block[], to: readonly Block[]): Map<number, number> {
  const found = new Map<number, number>();
  let [a, b] = [0, 0];
  for (const { count = 0, added, removed } of diffArrays(from.map(written), to.map(written))) {
    if (!added && !removed) for (let k = 0; k < count; k += 1) found.set(a + k, b + k);
    if (!added) a += count;
    if (!removed) b += count;
  }
  return found;
}

const linesOf = (blocks: readonly Block[]): string[] => blocks.flatMap(bodyText);
const writtenLines = (blocks: readonly Block[]): string[] => writeBody(blocks).split('\n').filter(Boolean);

/** A part's lines as an author reads them. */
function partLines(given: Part): string[] {
  switch (given.type) {
    case 'body':
      return linesOf(given.content);
    case 'subject':
    case 'start':
    case 'length':
    case 'place':
      return [writeLine(given.content)].filter(Boolean);
    case 'attachments':
      return (given.content ?? []).map((file) => writeLine(file.content) || file.attrs.file);
    default:
      return given.content.map((address) => writeLine(address.content)).filter(Boolean);
  }
}

/** A variable beside the other side's: its name, then what it says differently. */
function said(variable: Variable | undefined, other: Variable | undefined): string[] {
  if (!variable) return [];
  const names = (Object.keys(variable) as (keyof Variable)[]).filter(
    (name) => name !== 'key' && name !== 'label' && name !== 'type' && !same(variable[name], other?.[name]),
  );
  return [
    `${variable.label ?? variable.key} · ${variable.type}`,
    ...(other ? names.flatMap((name) => attributeLines(name, variable[name])) : []),
  ];
}
/** An attribute's lines; each option and column has one of its own, with all that it says. */
function attributeLines(name: string, value: unknown): string[] {
  if (!Array.isArray(value)) return [`${name}: ${typeof value === 'object' ? written(value) : String(value)}`];
  if (value.every((each) => typeof each === 'string')) return [`${name}: ${value.join(', ')}`];
  return (value as readonly (Option & Variable & Record<string, unknown>)[]).map(({ key, label, wording, ...rest }) => {
    const more = [
      ...(wording ? [writeLine(wording)] : []),
      ...Object.entries(rest).map(([attribute, given]) => `${attribute} ${written(given).replace(/^"|"$/g, '')}`),
    ];
    return [label ?? key, ...more].join(' · ');
  });
}
