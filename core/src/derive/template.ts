/** Builds a template from aligned mails: shared text, variables, and optional and alternative passages. */
import { emptyDocument, type TextDocument } from '../template/document.js';
import { keyFromLabel } from '../template/keys.js';
import { normalise } from '../template/normalise.js';
import type { Variable } from '../template/variable.js';
import { align, type Column } from './align.js';
import { blocksOf, type TemplateLine } from './blocks.js';
import {
  commonMarks,
  contentOf,
  fixedPart,
  inlineOfTokens,
  placeholder,
  sharedEdges,
  withMarks,
  type LinePart,
} from './inline.js';
import { kindOf, lacksYear } from './kinds.js';
import { capitalised, labelOfPlace, titleFrom } from './labels.js';
import type { Comparison } from './likeness.js';
import type { MailContent, Unit } from './mail.js';
import { Questions, type DerivedQuestion } from './questions.js';
import { leastSupport } from './support.js';
import { textOf, trimmed, type Token } from './tokens.js';
import { compareWordings, splitOptionalEnding, type Piece, type Wordings } from './wordings.js';

/** Text that only one or very few mails have, or lack. It is not part of the template, or always part of it. */
export interface Oddity {
  /** The index of the mail. */
  readonly mail: number;
  readonly words: string;
}
/** A derived template. */
export interface DerivedTemplate {
  readonly document: TextDocument;
  readonly questions: readonly DerivedQuestion[];
  readonly oddities: readonly Oddity[];
  /** The number of optional and alternative passages and phrases. */
  readonly passages: number;
}

/** Up to so many mails may differ from all others without the place becoming a variable. */
const mostExceptions = (mails: number): number => (mails < 8 ? 0 : Math.max(1, Math.floor(mails * 0.06)));
/** A place with at most so many different texts can become a choice, and so many passages can be alternatives. */
const MOST_OPTIONS = 8;
/** Lines with at most so many words can stand at the same place although they share none. */
const SHORT_LINE = 4;

/** Something that is in some mails and whose condition is decided at the end. */
interface Optional {
  readonly mails: ReadonlySet<number>;
  readonly text: string;
  when?: LinePart['when'];
}

/**
 * @param units the units of each mail, lists as one unit
 * @param order the indexes of the mails, the most typical first
 * @param options `taken` are words of oddities that become part of the template all the same; `onStep` is called after
 *   each step of the alignment, and may throw to stop
 */
export function buildTemplate(
  mails: readonly MailContent[],
  units: readonly (readonly Unit[])[],
  order: readonly number[],
  options: {
    readonly comparison: Comparison;
    readonly locale: string;
    readonly taken: ReadonlySet<string>;
    readonly onStep: () => void;
  },
): DerivedTemplate {
  const columns = align(units, order, options.comparison.units, options.onStep);
  return new TemplateBuilder(mails, options.comparison, options.locale, options.taken).build(joinShortLines(columns));
}

/** Joins neighbouring columns of short lines if no mail has a line in both: a line whose whole text varies. */
function joinShortLines(columns: readonly Column<Unit>[]): Column<Unit>[] {
  const isShort = ({ tokens, block }: Unit): boolean =>
    !block && tokens.filter(({ kind }) => kind === 'word').length <= SHORT_LINE;
  const out: Column<Unit>[] = [];
  for (const column of columns) {
    const last = out.at(-1) ?? new Map<number, Unit>();
    const both = [...last.values(), ...column.values()];
    const sameShape = both.every(({ shape }) => shape === both[0]?.shape);
    const exclusive = last.size > 0 && ![...column.keys()].some((mail) => last.has(mail));
    if (exclusive && sameShape && both.every(isShort)) for (const [mail, unit] of column) last.set(mail, unit);
    else out.push(new Map(column));
  }
  return out;
}

class TemplateBuilder {
  private readonly questions: Questions;
  private readonly oddities: Oddity[] = [];
  private readonly all: ReadonlySet<number>;
  /** Decisions about free text; they need all typed values. */
  private readonly textDecisions: (() => void)[] = [];
  /** Decisions about conditions; they need all values. */
  private readonly conditionDecisions: (() => void)[] = [];
  private passages = 0;
  /** The cells of the last header row. */
  private header: readonly string[] = [];

  constructor(
    private readonly mails: readonly MailContent[],
    private readonly comparison: Comparison,
    private readonly locale: string,
    private readonly taken: ReadonlySet<string>,
  ) {
    this.questions = new Questions(mails, locale);
    this.all = new Set(mails.keys());
  }

  build(columns: readonly Column<Unit>[]): DerivedTemplate {
    const subject = this.sentence(new Map(this.mails.map(({ subject: tokens }, mail) => [mail, tokens])), this.all, '');
    const lines = columns.flatMap((column) => this.line(column) ?? []);
    this.conditionDecisions.push(() => this.decideConditions(lines, this.all));
    for (const decide of this.textDecisions) decide();
    for (const decide of this.conditionDecisions) decide();
    const title = titleFrom(
      this.mails.map(({ mail }) => mail.subject),
      this.locale,
    );
    const empty = emptyDocument({ kind: 'message', title, locale: this.locale });
    const blocks = blocksOf(lines);
    const document: TextDocument = {
      ...empty,
      attrs: { ...empty.attrs, variables: this.questions.all.map(({ variable }) => variable) },
      content: empty.content.map((part) => {
        if (part.type === 'subject') return { ...part, content: contentOf([subject]) };
        if (part.type === 'to')
          return { ...part, content: [{ type: 'address', content: [placeholder('recipient.email')] }] };
        return part.type === 'body' && blocks.length > 0 ? { ...part, content: blocks } : part;
      }),
    };
    const { oddities, passages } = this;
    return { document: normalise(document), questions: this.questions.all, oddities, passages };
  }

  private noteOddity(mail: number, text: string): void {
    if (text.trim() !== '') this.oddities.push({ mail, words: text.trim() });
  }
  /** Whether so few mails have something that it is an oddity, and nobody has said that it is none. */
  private isOdd(count: number, of: number, texts: () => readonly string[]): boolean {
    return count < leastSupport(of) && !texts().some((text) => this.taken.has(text.trim()));
  }
  private noteMissing(mails: Iterable<number>, text: string): void {
    for (const mail of mails) this.noteOddity(mail, without(text));
  }

  /** A line of the template; undefined if too few mails have it. */
  private line(column: Column<Unit>): TemplateLine | undefined {
    const [first] = column.values();
    if (
      !first ||
      this.isOdd(column.size, this.all.size, () => [...column.values()].map((unit) => textOf(unit.tokens)))
    ) {
      for (const [mail, { tokens }] of column) this.noteOddity(mail, textOf(tokens));
      return undefined;
    }
    const { shape } = first;
    const line = { shape, mails: new Set(column.keys()), text: textOf(first.tokens), parts: [] };
    if (first.block) return { ...line, ...this.wholeBlock(column) };
    if (shape.startsWith('list of ')) return { ...line, ...this.list(column), shape: shape.replace('list of ', '') };
    this.header = shape.startsWith('head ') ? line.text.split(' | ') : [];
    return { ...line, parts: this.sentences(column) };
  }
  /** The most frequent block; the others are oddities. */
  private wholeBlock(column: Column<Unit>): Pick<TemplateLine, 'block'> {
    const { key } = this.comparison.units;
    const [[usual] = ['']] = countTexts([...column.values()].map(key));
    for (const [mail, unit] of column) if (key(unit) !== usual) this.noteOddity(mail, textOf(unit.tokens));
    const block = [...column.values()].find((unit) => key(unit) === usual)?.block;
    return block ? { block } : {};
  }

  /** The sentences of a paragraph, some of them optional. */
  private sentences(column: Column<Unit>): LinePart[] {
    const mails = new Set(column.keys());
    const sequences: (readonly (readonly Token[])[])[] = [];
    for (const [mail, unit] of column) sequences[mail] = unit.sentences;
    const optional: (Optional & LinePart)[] = [];
    for (const sentence of align(sequences, [...mails], this.comparison.sentences)) {
      if (this.isOdd(sentence.size, mails.size, () => [...sentence.values()].map(textOf))) {
        for (const [mail, tokens] of sentence) this.noteOddity(mail, textOf(tokens));
        continue;
      }
      const part = this.sentence(sentence, mails, optional.at(-1)?.text ?? '');
      const text = textOf([...sentence.values()][0] ?? []);
      optional.push({ inline: [], parts: [part], mails: new Set(sentence.keys()), text });
    }
    this.conditionDecisions.push(() => this.decideConditions(optional, mails));
    return optional;
  }

  /** Text at one place. @param mails the mails that could have it @param before the text before it, for labels */
  private sentence(wordings: Wordings, mails: ReadonlySet<number>, before: string): LinePart {
    const pieces = compareWordings(wordings);
    const sharedText = (piece: Piece | undefined): string => (piece?.kind === 'shared' ? textOf(piece.tokens) : '');
    const parts = pieces.map((piece, at) => {
      if (piece.kind === 'shared') return fixedPart(piece.tokens);
      const around = [`${at === 0 ? before : ''} ${sharedText(pieces[at - 1])}`, sharedText(pieces[at + 1])] as const;
      return this.gap(piece.wordings, mails, around);
    });
    return { inline: [], parts };
  }

  /** A gap between shared text. */
  private gap(
    wordings: Wordings,
    mails: ReadonlySet<number>,
    around: readonly [before: string, after: string],
  ): LinePart {
    const least = leastSupport(wordings.size);
    const split = splitOptionalEnding(wordings, least);
    if (split) {
      const [stem, ending] = split;
      return { inline: [], parts: [this.gap(stem, mails, [around[0], '']), this.gap(ending, mails, ['', around[1]])] };
    }
    const filled = new Map([...wordings].filter(([, tokens]) => trimmed(tokens).length > 0));
    const empty = new Set([...wordings.keys()].filter((mail) => !filled.has(mail)));
    if (this.isOdd(filled.size, wordings.size, () => [...filled.values()].map(textOf))) {
      for (const [mail, tokens] of filled) this.noteOddity(mail, textOf(tokens));
      return { inline: [] };
    }
    const [example = []] = filled.values();
    const { start, end } = sharedEdges([...filled.values()]);
    const inner = new Map([...filled].map(([mail, tokens]) => [mail, tokens.slice(start, tokens.length - end)]));
    const required = empty.size === 0 && mails.size === this.all.size;
    const parts = [
      fixedPart(example.slice(0, start)),
      this.variableText(inner, around, required),
      fixedPart(example.slice(example.length - end)),
    ];
    const part: LinePart & Optional = { inline: [], parts, mails: new Set(filled.keys()), text: textOf(example) };
    if (empty.size > 0) this.conditionDecisions.push(() => this.decideCondition(part, new Set(wordings.keys())));
    return part;
  }

  /** Text that is in all of these mails, and varies. */
  private variableText(wordings: Wordings, [before, after]: readonly [string, string], required: boolean): LinePart {
    const texts = new Map([...wordings].map(([mail, tokens]) => [mail, textOf(tokens)]));
    const [example = []] = wordings.values();
    if (new Set(texts.values()).size === 1) return fixedPart(example);
    const part: LinePart = { inline: [] };
    const marks = commonMarks([...wordings.values()].flat());
    const fill = (inline: LinePart['inline']): void =>
      void (part.inline = inline.map((node) => withMarks(node, marks)));
    const newQuestion = (fallback: string) => ({ label: labelOfPlace(before, after, fallback), required });
    const field = this.questions.field(texts);
    const kind = kindOf(texts, (mail) => this.mails[mail]?.today ?? '', this.locale);
    if (field) fill([field]);
    else if (kind) {
      const decide = (): void => fill(this.questions.value(kind, newQuestion(capitalised(kind.type))));
      // A date without a year may be the same as one with it, which has to be known first.
      if (lacksYear(kind)) this.textDecisions.unshift(decide);
      else decide();
    } else
      this.textDecisions.push(() => {
        const usual = this.exceptOddities(wordings, texts);
        if (usual) part.inline = inlineOfTokens(usual);
        else fill(this.freeText(wordings, texts, newQuestion));
      });
    return part;
  }
  /** The text that all but very few mails have; these few are oddities. Undefined if it varies more than that. */
  private exceptOddities(wordings: Wordings, texts: ReadonlyMap<number, string>): readonly Token[] | undefined {
    const [[usual, times] = ['', 0], ...rare] = countTexts([...texts.values()]);
    if (texts.size - times > mostExceptions(texts.size) || rare.some(([, count]) => count > 1)) return undefined;
    if (rare.some(([text]) => this.taken.has(text.trim()))) return undefined;
    for (const [mail, text] of texts) if (text !== usual) this.noteOddity(mail, text);
    return [...wordings].find(([mail]) => texts.get(mail) === usual)?.[1];
  }
  private freeText(
    wordings: Wordings,
    texts: ReadonlyMap<number, string>,
    newQuestion: (fallback: string) => { readonly label: string; readonly required: boolean },
  ): LinePart['inline'] {
    const agreeing = this.questions.agreeing(texts);
    if (agreeing) return [agreeing];
    const counts = countTexts([...texts.values()]);
    const isChoice =
      counts.length <= MOST_OPTIONS &&
      counts.length <= texts.size / 2 &&
      counts.every(([text, count]) => count >= 2 || this.taken.has(text.trim()));
    if (!isChoice) return [this.questions.text(texts, newQuestion('Words'))];
    const inline = new Map([...wordings].map(([mail, tokens]) => [texts.get(mail) ?? '', inlineOfTokens(tokens)]));
    return this.questions.choice(texts, inline, newQuestion(''));
  }

  /** Items that are different in every mail, as a list with a column for each gap. */
  private list(column: Column<Unit>): Pick<TemplateLine, 'parts' | 'list'> {
    const items = [...column].flatMap(([mail, { sentences }]) => sentences.map((tokens) => ({ mail, tokens })));
    const columns: Variable[] = [];
    const rows = items.map((): Record<string, string> => ({}));
    let cell = 0;
    const parts = compareWordings(new Map(items.map(({ tokens }, at) => [at, tokens]))).map((piece): LinePart => {
      if (piece.kind === 'shared') {
        cell += piece.tokens.filter(({ kind }) => kind === 'cell').length;
        return fixedPart(piece.tokens);
      }
      const variable = this.listColumn(columns, this.header[cell]);
      columns.push(variable);
      const filled = [...piece.wordings.values()].filter((tokens) => tokens.length > 0);
      const { start, end } = sharedEdges(filled);
      for (const [at, tokens] of piece.wordings)
        (rows[at] as Record<string, string>)[variable.key] = textOf(
          tokens.slice(start, Math.max(start, tokens.length - end)),
        );
      const [example = []] = filled;
      const edges = [fixedPart(example.slice(0, start)), fixedPart(example.slice(example.length - end))] as const;
      return { inline: [], parts: [edges[0], { inline: [placeholder(variable.key)] }, edges[1]] };
    });
    const ofMail = (mail: number) => rows.filter((_, at) => items[at]?.mail === mail);
    const answers = new Map([...column.keys()].map((mail) => [mail, ofMail(mail)]));
    return { parts, list: this.questions.list(answers, columns, 'Rows') };
  }
  private listColumn(columns: readonly Variable[], head: string | undefined): Variable {
    const label = head && !columns.some((other) => other.label === head) ? head : `Column ${columns.length + 1}`;
    return { key: keyFromLabel(label, new Set(['count', ...columns.map(({ key }) => key)])), type: 'text', label };
  }

  /** Decides when each part is there; parts of which every mail has exactly one become alternatives. */
  private decideConditions(parts: readonly Optional[], mails: ReadonlySet<number>): void {
    for (let at = 0; at < parts.length;) {
      const group = alternativesAt(parts, at, mails);
      if (group.length > 0) {
        this.passages += group.length;
        for (const [nth, when] of this.questions.alternatives(group).entries()) (group[nth] as Optional).when = when;
        at += group.length;
      } else this.decideCondition(parts[at++] as Optional, mails);
    }
  }
  private decideCondition(part: Optional, mails: ReadonlySet<number>): void {
    const no = new Set([...mails].filter((mail) => !part.mails.has(mail)));
    if (this.isOdd(no.size, mails.size, () => [without(part.text)])) return this.noteMissing(no, part.text);
    this.passages += 1;
    part.when = this.questions.conditionFor({ yes: part.mails, no }, part.text);
  }
}

/** How it is listed that a mail lacks some words. */
const without = (text: string): string => `without: ${text.trim()}`;

/** The parts from an index on of which every mail has exactly one; empty if there are none. */
function alternativesAt(parts: readonly Optional[], at: number, mails: ReadonlySet<number>): readonly Optional[] {
  const seen = new Set<number>();
  for (const [count, part] of parts.slice(at, at + MOST_OPTIONS).entries()) {
    if ([...part.mails].some((mail) => seen.has(mail))) return [];
    for (const mail of part.mails) seen.add(mail);
    if (seen.size === mails.size) return count > 0 ? parts.slice(at, at + count + 1) : [];
  }
  return [];
}

/** How often each text occurs, the most frequent first. */
function countTexts(texts: readonly string[]): (readonly [text: string, count: number])[] {
  const counts = new Map<string, number>();
  for (const text of texts) counts.set(text, (counts.get(text) ?? 0) + 1);
  return [...counts].sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1));
}
