/** A text beside its version in another language, line by line: how far each line is, and where the two do not agree. */
import { advice, type Finding } from '../findings/finding.js';
import type { Condition } from '../template/condition.js';
import { openingTag } from '../template/condition.js';
import type { Inline, TextDocument } from '../template/document.js';
import type { Variable } from '../template/variable.js';
import { conditionsOf } from '../template/walk.js';
import { sharedWords } from '../insight/rewording.js';
import { usesOf } from '../revise/uses.js';
import {
  altsOfNode,
  lineOfNode,
  linesOfVariable,
  saysWords,
  titleLine,
  writtenLine,
  type LanguageLine,
} from './lines.js';
import { byVersion, pairParts, tagsOfLine, type Agreed, type Pair } from './pairs.js';

/**
 * How far a line is: `done` says what the original says now; `changed` what the original said before; `open` has the
 * original's words still; `unsure` has words of its own that nobody compared with the original here; `missing` is only
 * in the original, `own` only in the version; `nothing` has no words.
 */
export type LineState = 'done' | 'changed' | 'open' | 'unsure' | 'missing' | 'own' | 'nothing';

/** A line of the original beside that of the version. */
export interface LanguageRow {
  readonly original?: LanguageLine;
  readonly version?: LanguageLine;
  readonly state: LineState;
  /** What the original said when the two were last the same, where it has changed since. */
  readonly was?: string;
  /** The conditions around it, outermost first. */
  readonly governed: readonly Condition[];
}

/** A text and its version, line by line. */
export interface Beside {
  readonly rows: readonly LanguageRow[];
  /** Where placeholders, passages, variables and options are not the same. */
  readonly findings: readonly Finding[];
}

/** Below this share of words in common, what the original said before is another line. */
const SAME_LINE = 0.4;

/** Puts a text and its version beside each other. @param agreed which lines were said to be the same */
export function besideOriginal(original: TextDocument, version: TextDocument, agreed: readonly Agreed[] = []): Beside {
  const beside = new Besides(agreed);
  beside.add(titleLine(original), titleLine(version), []);
  for (const pair of pairParts(original, version, beside.said)) beside.pair(pair, []);
  beside.variables(original, version);
  return { rows: beside.rows, findings: beside.findings };
}

class Besides {
  readonly rows: LanguageRow[] = [];
  readonly findings: Finding[] = [];
  readonly said: ReadonlyMap<string, readonly string[]>;
  private readonly originals: ReadonlySet<string>;

  constructor(private readonly agreed: readonly Agreed[]) {
    this.said = byVersion(agreed);
    this.originals = new Set(agreed.map(({ original }) => original));
  }

  pair({ original, version, children }: Pair, outer: readonly Condition[]): void {
    const node = original?.node ?? version?.node;
    if (!node) return;
    const governed = [...outer, ...conditionsOf(node)];
    if (!original || !version) this.onlyOne(original !== undefined, node.type, conditionsOf(node), version?.path);
    const line = original && lineOfNode(original.node, original.path);
    const own = version && lineOfNode(version.node, version.path);
    if (line || own) {
      if ((line?.content.length ?? 0) + (own?.content.length ?? 0) > 0) this.add(line, own, governed);
      const [alts, ownAlts] = [
        original ? altsOfNode(original.node, original.path) : [],
        version ? altsOfNode(version.node, version.path) : [],
      ];
      alts.forEach((alt, index) => this.add(alt, ownAlts[index], governed));
    }
    for (const child of children) this.pair(child, governed);
  }

  /** Notes a part that is only in one of them, where it is more than a line of words. */
  private onlyOne(isOriginal: boolean, type: string, own: readonly Condition[], path?: readonly number[]): void {
    const what = type === 'passage' ? own.map(openingTag).join('') : type === 'inclusion' ? 'block' : undefined;
    if (what === undefined) return;
    const data = { code: 'other-language', why: isOriginal ? 'no-passage' : 'own-passage', what } as const;
    this.findings.push(advice(data, path ? { path } : {}));
  }

  add(original: LanguageLine | undefined, version: LanguageLine | undefined, governed: readonly Condition[]): void {
    const was = this.wasOf(original, version);
    this.rows.push({
      ...(original ? { original } : {}),
      ...(version ? { version } : {}),
      state: this.stateOf(original, version, was),
      ...(was === undefined ? {} : { was }),
      governed,
    });
    if (original && version && !original.plain) this.tags(original, version);
  }

  private stateOf(
    original: LanguageLine | undefined,
    version: LanguageLine | undefined,
    was: string | undefined,
  ): LineState {
    if (!original) return version && saysWords(version.content) ? 'own' : 'nothing';
    if (!version) return 'missing';
    const [now, own] = [writtenLine(original), writtenLine(version)];
    if (this.said.get(own)?.includes(now)) return 'done';
    if (!saysWords(original.content) && !saysWords(version.content)) return 'nothing';
    // Put into other words since, the line still goes with what the original says.
    if (this.originals.has(now) && now !== own) return 'done';
    if (now === own) return 'open';
    return was === undefined ? 'unsure' : 'changed';
  }

  /** What the original said when it was last compared with this line. */
  private wasOf(original: LanguageLine | undefined, version: LanguageLine | undefined): string | undefined {
    if (!original || !version) return undefined;
    const [now, own] = [writtenLine(original), writtenLine(version)];
    const said = this.said.get(own);
    if (said?.includes(now) || this.originals.has(now)) return undefined;
    if (said) return said.at(-1);
    // It has the original's words still: there is nothing to look for among all that was compared.
    if (now === own) return undefined;
    const parts = (text: string): string[] => text.split(/\s+/);
    const near = this.agreed
      .map((each) => ({ words: each.original, share: sharedWords(parts(each.original), parts(now)) }))
      .toSorted((a, b) => b.share - a.share)[0];
    return near && near.share >= SAME_LINE ? near.words : undefined;
  }

  private tags(original: LanguageLine, version: LanguageLine): void {
    const place = placeOf(version);
    const [ours, theirs] = [tagsOfLine(original.content), tagsOfLine(version.content)];
    for (const tag of without(ours, theirs).filter(isTag))
      this.findings.push(
        advice({ code: 'other-language', why: 'no-tag', tag, words: opening(version.content) }, place),
      );
    for (const tag of without(theirs, ours).filter(isTag))
      this.findings.push(
        advice({ code: 'other-language', why: 'own-tag', tag, words: opening(version.content) }, place),
      );
  }

  variables(original: TextDocument, version: TextDocument): void {
    const own = new Map(version.attrs.variables.map((variable) => [variable.key, variable]));
    for (const variable of original.attrs.variables) {
      const theirs = own.get(variable.key);
      if (!theirs) this.findings.push(advice({ code: 'other-language', why: 'no-variable', key: variable.key }));
      else this.declared(variable, theirs);
      own.delete(variable.key);
      const lines = new Map((theirs ? linesOfVariable(theirs) : []).map((line) => [wayOf(line), line]));
      for (const line of linesOfVariable(variable)) {
        this.add(line, lines.get(wayOf(line)), []);
        lines.delete(wayOf(line));
      }
      for (const line of lines.values()) this.add(undefined, line, []);
    }
    const used = new Set(usesOf(version).map(({ key }) => key));
    for (const { key } of own.values())
      if (used.has(key))
        this.findings.push(advice({ code: 'other-language', why: 'own-variable', key }, { variable: key }));
  }

  private declared(ours: Variable, theirs: Variable): void {
    const { key } = ours;
    const place = { variable: key };
    for (const attribute of SAME_ATTRIBUTES)
      if (JSON.stringify(ours[attribute] ?? null) !== JSON.stringify(theirs[attribute] ?? null))
        this.findings.push(
          advice({ code: 'other-language', why: 'other-attribute', key, attribute }, { ...place, attribute }),
        );
    const keys = (of: Variable): string[] => [...(of.options ?? of.columns ?? [])].map((each) => each.key);
    for (const option of without(keys(ours), keys(theirs)))
      this.findings.push(advice({ code: 'other-language', why: 'no-option', key, option }, place));
    for (const option of without(keys(theirs), keys(ours)))
      this.findings.push(advice({ code: 'other-language', why: 'own-option', key, option }, place));
  }
}

/** Attributes of a declaration that are no words: they must say the same in every language. */
const SAME_ATTRIBUTES = [
  'type',
  'required',
  'from',
  'value',
  'min',
  'max',
  'least',
  'most',
  'currency',
  'earliest',
  'latest',
] as const satisfies readonly (keyof Variable)[];

const wayOf = ({ place }: LanguageLine): string => (place.in === 'variable' ? place.way.join('\u0000') : '');
const placeOf = ({ place }: LanguageLine): { path: readonly number[] } | { variable: string } | object =>
  place.in === 'title' ? {} : place.in === 'variable' ? { variable: place.key } : { path: place.path };
/** Placeholders and passages; pictures and included blocks may differ between languages. */
const isTag = (tag: string): boolean => /^\{\{[^>]/.test(tag);

/** The items of one list that the other lacks, each as often. */
function without(all: readonly string[], others: readonly string[]): string[] {
  const left = [...others];
  return all.filter((each) => {
    const at = left.indexOf(each);
    if (at >= 0) left.splice(at, 1);
    return at < 0;
  });
}

const opening = (content: readonly Inline[]): string => {
  const words = content
    .map((node) => (node.type === 'text' ? node.text : ' '))
    .join('')
    .trim();
  return words.length > 40 ? `${words.slice(0, 40).trimEnd()}…` : words;
};

/** Lines of both that say the same now, where all that is written fits: to be added to what was agreed. */
export const agreedBy = (rows: readonly LanguageRow[]): Agreed[] =>
  rows.flatMap(({ original, version }) =>
    original && version ? [{ original: writtenLine(original), version: writtenLine(version) }] : [],
  );

/** How many lines of each state there are. */
export function statesOf(rows: readonly LanguageRow[]): Readonly<Record<LineState, number>> {
  const counts: Record<LineState, number> = { done: 0, changed: 0, open: 0, unsure: 0, missing: 0, own: 0, nothing: 0 };
  for (const { state } of rows) counts[state] += 1;
  return counts;
}
