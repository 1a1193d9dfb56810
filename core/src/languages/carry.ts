/**
 * Carries the structure of a text over to its version in another language: passages, lists, placeholders, variables and
 * options are the original's, words are the version's; where it has none yet, the original's are left to be put into
 * the language.
 */
import {
  ADDRESS_PARTS,
  type Block,
  type Front,
  type Inline,
  type Node,
  type Part,
  type TextDocument,
} from '../template/document.js';
import { normalise } from '../template/normalise.js';
import type { Step } from '../template/steps.js';
import type { Variable } from '../template/variable.js';
import { childrenOf } from '../template/walk.js';
import { usesOf } from '../revise/uses.js';
import { pluralRules } from '../values/intl.js';
import { lineFrom, linesOfVariable, withWords, writtenLine } from './lines.js';
import { byVersion, pairParts, type Agreed, type Pair } from './pairs.js';

/** What is known of the languages of a library. */
export interface Carrying {
  /** What was said to be the same, of this version. */
  readonly agreed?: readonly Agreed[];
  /** The name of a text's version in the language, where there is one: for blocks, signatures and steps. */
  readonly versionOf?: (name: string) => string | undefined;
}

/** A new version of a text in a language, its words as they are in the original. */
export function newVersion(
  original: TextDocument,
  about: { readonly of: string; readonly locale: string; readonly title: string },
  carrying: Carrying = {},
): TextDocument {
  const { call: _, remarks: __, ...shared } = original.attrs.front;
  const { versionOf = () => undefined } = carrying;
  const signature = shared.signature && { signature: versionOf(shared.signature) ?? shared.signature };
  const front = { ...shared, ...signature, title: about.title, locale: about.locale, translation_of: about.of };
  return carryOver(original, { ...original, attrs: { ...original.attrs, front } }, carrying);
}

/** Attributes of the front matter that are no words and no dates: they are the original's. */
const STRUCTURE = ['kind', 'purpose', 'fixed', 'on_answer'] as const satisfies readonly (keyof Front)[];

/** The version with the structure that the original has by now. */
export function carryOver(original: TextDocument, version: TextDocument, carrying: Carrying = {}): TextDocument {
  const { agreed = [], versionOf = () => undefined } = carrying;
  const said = byVersion(agreed);
  const known = new Map(agreed.map((each) => [each.original, each.version]));
  const carry = new Carry(known, said, versionOf);
  const parts = pairParts(original, version, said).map((pair) => carry.part(pair));
  const { front, variables, steps } = original.attrs;
  const own = version.attrs.front;
  const structure = Object.fromEntries(STRUCTURE.map((name) => [name, front[name]]));
  const result: TextDocument = {
    type: 'template',
    attrs: {
      front: Object.fromEntries(
        Object.entries({ ...own, ...structure }).filter(([, value]) => value !== undefined),
      ) as unknown as Front,
      variables: variables.map((variable) =>
        inLanguage(
          variable,
          version.attrs.variables.find(({ key }) => key === variable.key),
          own.locale,
        ),
      ),
      ...(steps ? { steps: stepsCarried(steps, version.attrs.steps ?? [], versionOf) } : {}),
    },
    content: parts,
  };
  return normalise(withOwn(result, version));
}

/** The original's steps with their texts in the language: one that was chosen for the version by hand stays. */
function stepsCarried(
  steps: readonly Step[],
  own: readonly Step[],
  versionOf: (name: string) => string | undefined,
): readonly Step[] {
  const usual = steps.map(({ text }) => versionOf(text) ?? text);
  const known = new Set([...usual, ...steps.map(({ text }) => text)]);
  return steps.map((step, at) => {
    const text = usual[at] ?? step.text;
    const chosen = own[at]?.text;
    const isChosen = chosen !== undefined && !known.has(chosen) && !own.some((each) => each.text === text);
    return { ...step, text: isChosen ? chosen : text };
  });
}

/** Brings the version's own variables along, where its own words still use them. */
function withOwn(document: TextDocument, version: TextDocument): TextDocument {
  const { variables } = document.attrs;
  const used = new Set(usesOf(document).map(({ key }) => key));
  const own = version.attrs.variables.filter(
    ({ key }) => used.has(key) && !variables.some((variable) => variable.key === key),
  );
  if (own.length === 0) return document;
  return withOwn({ ...document, attrs: { ...document.attrs, variables: [...variables, ...own] } }, version);
}

/** A declaration of the original with the words that the version has for it, in the plural forms of its language. */
function inLanguage(variable: Variable, own: Variable | undefined, locale: string | undefined): Variable {
  let next = withPlurals(variable, locale);
  if (!own) return next;
  const ways = new Set(linesOfVariable(next).map(wayOf));
  for (const line of linesOfVariable(own)) {
    if (line.place.in !== 'variable') continue;
    const [name = ''] = line.place.way;
    if (ways.has(wayOf(line)) || OWN_WORDS.has(name)) next = withWords(next, line.place.way, line.content);
  }
  return next;
}
/** Words that a version may have for a variable where the original says none. */
const OWN_WORDS: ReadonlySet<string> = new Set(['label', 'help', 'fallback', 'words']);
const wayOf = ({ place }: { readonly place: { readonly in: string; readonly way?: readonly string[] } }): string =>
  (place.way ?? []).join('\u0000');

function withPlurals(variable: Variable, locale: string | undefined): Variable {
  const { plural } = variable;
  if (!plural || !locale) return variable;
  const wanted = pluralRules(locale, { type: 'cardinal' }).resolvedOptions().pluralCategories;
  const entries = wanted.map((category) => [category, plural[category] ?? plural.other ?? ''] as const);
  return { ...variable, plural: Object.fromEntries(entries) };
}

class Carry {
  /**
   * @param known the version's line for lines of the original
   * @param came  lines of the version that say what the original says or once said
   */
  constructor(
    private readonly known: ReadonlyMap<string, string>,
    private readonly came: Pick<ReadonlyMap<string, unknown>, 'has'>,
    private readonly versionOf: (name: string) => string | undefined,
  ) {}

  part({ original, version, children }: Pair): Part {
    const [ours, theirs] = [original?.node as Part, version?.node as Part];
    if (ours.type === 'body') return { type: 'body', content: this.some(this.all(children) as Block[]) };
    if ((ADDRESS_PARTS as readonly string[]).includes(ours.type) || ours.type === 'attachments')
      return saysAnything(theirs) ? theirs : ours;
    return childrenOf(theirs).length > 0 ? theirs : ours;
  }

  private all(pairs: readonly Pair[]): Node[] {
    return pairs.flatMap((pair) => this.node(pair) ?? []);
  }

  private some(blocks: readonly Block[]): readonly Block[] {
    return blocks.length > 0 ? blocks : [{ type: 'paragraph' }];
  }

  private node({ original, version, children }: Pair): Node | undefined {
    if (!original) return version && this.isGone(version.node) ? undefined : version?.node;
    const { node } = original;
    if (node.type === 'inclusion') {
      // A block that somebody chose for this language stays where none is known to be its version.
      const own = version?.node.type === 'inclusion' ? version.node.attrs.name : node.attrs.name;
      return { ...node, attrs: { ...node.attrs, name: this.versionOf(node.attrs.name) ?? own } };
    }
    if (node.type === 'codeBlock' || node.type === 'comment') return version?.node ?? node;
    if (node.type === 'paragraph' || node.type === 'heading' || node.type === 'button')
      return this.line(node, version?.node);
    if (children.length === 0) return node;
    return { ...node, content: this.all(children) } as Node;
  }

  /** A line in the form of the original with the words of the version. */
  private line(node: Node, own: Node | undefined): Node {
    const content = own ? (childrenOf(own) as readonly Inline[]) : this.inLine(childrenOf(node) as readonly Inline[]);
    const href =
      own?.type === 'button' && node.type === 'button' ? { attrs: { ...node.attrs, href: own.attrs.href } } : {};
    return { ...node, ...href, content } as Node;
  }

  /** A line of the original: as it was once put into the language, or with its own words. */
  private inLine(content: readonly Inline[]): readonly Inline[] {
    const before = this.known.get(writtenLine({ content }));
    if (before !== undefined) return lineFrom(before);
    return content.map((node) =>
      node.type === 'inlineInclusion'
        ? { ...node, attrs: { name: this.versionOf(node.attrs.name) ?? node.attrs.name } }
        : node,
    );
  }

  /** Whether all lines of a part that the original lacks once came from it: it is gone there, and goes here. */
  private isGone(node: Node): boolean {
    if (node.type === 'paragraph' || node.type === 'heading' || node.type === 'button')
      return this.came.has(writtenLine({ content: childrenOf(node) as readonly Inline[] }));
    const children = childrenOf(node);
    return children.length > 0 && children.every((child) => this.isGone(child));
  }
}

const saysAnything = (node: Node): boolean =>
  node.type === 'attachment' ||
  node.type === 'text' ||
  node.type === 'placeholder' ||
  childrenOf(node).some(saysAnything);
