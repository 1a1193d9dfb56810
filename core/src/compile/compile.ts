/** Compiles a template with everything it includes. Compile once, render many. */
import { error, advice, distinct, type Finding } from '../findings/finding.js';
import type { Condition } from '../template/condition.js';
import {
  bodyOf,
  part,
  type Block,
  type ListItem,
  type NamedDocument,
  type Paragraph,
  type Row,
  type TextDocument,
} from '../template/document.js';
import { labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import type { ExpressionRuntime } from '../expression/expression.js';
import { DEFAULT_LOCALE, PLAIN_HOUSE, type House } from './house.js';
import { LineCompiler, textLeaf } from './line.js';
import type {
  BlockUnit,
  Governed,
  ItemUnit,
  Leaf,
  Line,
  MarkPiece,
  Origin,
  Program,
  Read,
  RowUnit,
  Slot,
  Test,
  Unit,
} from './program.js';
import { column, declarationOf, type Scope } from './scope.js';
import { bindExpressions, bindSlot, checkDeclaration, clash, makeSlots } from './slots.js';
import {
  fitsLine,
  inclusionsOf,
  MAX_INCLUSION_DEPTH,
  MAX_INCLUSIONS,
  neverBoth,
  severalIn,
  TextUnit,
  type Declaration,
  type Library,
} from './texts.js';
import { conditionInWords } from './wording.js';

export interface CompileOptions {
  readonly library: Library;
  readonly house?: House;
  /** The name of the sender's signature, for messages that bring none of their own. */
  readonly senderSignature?: string | undefined;
  /** The day that relative limits in declarations are checked against; only their form matters. */
  readonly today?: string;
}

/** Where in a text something stands: what shadows, governs and includes it. */
export interface Site {
  readonly unit: TextUnit;
  readonly scope: Scope | undefined;
  readonly path: readonly number[];
  readonly blocks: readonly string[];
  readonly conditions: readonly Condition[];
  /** Tests that every leaf inherits, where blocks of a text stand inside a line. */
  readonly tests: readonly Test[];
  /** Choices whose wordings are being compiled, to see loops. */
  readonly wordings: readonly string[];
}

/** Compiles a template. Never throws for what a template holds; everything wrong is among `findings`. */
export function compile(named: NamedDocument, options: CompileOptions): Program {
  return new Compilation(named, options).program();
}

interface SignatureUse {
  readonly name: string;
  readonly conditions: readonly Condition[];
  readonly path: readonly number[];
  readonly unit: TextUnit;
}

export class Compilation {
  readonly findings: Finding[] = [];
  readonly house: House;
  private readonly runtime: ExpressionRuntime;
  private readonly units = new Map<string, TextUnit>();
  private readonly declarations: Declaration[] = [];
  private slots: readonly Slot[] = [];
  private readonly byKey = new Map<string, Slot>();
  private readonly extraSlots: Slot[] = [];
  private readonly signatures: SignatureUse[] = [];
  private inclusions = 0;
  private readonly own: TextUnit;
  private readonly signature: string | undefined;

  constructor(
    private readonly named: NamedDocument,
    private readonly options: CompileOptions,
  ) {
    this.house = options.house ?? PLAIN_HOUSE;
    this.runtime = {
      today: options.today ?? '2000-01-01',
      locale: DEFAULT_LOCALE,
      holidays: new Set(this.house.holidays),
      isFilled: () => false,
    };
    this.own = this.unit(named.name, named.document) as TextUnit;
    const wanted = named.document.attrs.front.signature;
    this.signature = wanted === 'none' ? undefined : wanted;
  }

  program(): Program {
    const { document } = this.named;
    const { front } = document.attrs;
    this.link(this.own, 0, [this.own.name], new Map());
    const after = front.kind === 'message' ? this.signatureAfter() : undefined;
    if (after) this.link(after, 1, [this.own.name, after.name], new Map());
    const { slots, units } = makeSlots(this.declarations, this.findings);
    this.slots = slots;
    for (const slot of slots) this.byKey.set(slot.key, slot);
    bindExpressions(slots, units, (key) => this.slotRead(key), this.findings);

    this.inclusions = 0;
    const site = (name: Parameters<typeof part>[1]): Site => ({
      unit: this.own,
      scope: undefined,
      path: [document.content.findIndex((node) => node.type === name)],
      blocks: [],
      conditions: [],
      tests: [],
      wordings: [],
    });
    const line = (name: 'subject' | 'start' | 'length' | 'place'): Line =>
      new LineCompiler(this, site(name)).compile(part(document, name).content);
    const addresses = (name: 'to' | 'cc' | 'bcc' | 'reply_to'): Line[] =>
      part(document, name).content.flatMap((address, index) =>
        address.content?.length
          ? [new LineCompiler(this, site(name)).compile(address.content, [...site(name).path, index])]
          : [],
      );
    const subject = line('subject');
    const body = this.blocks(bodyOf(document), site('body'));
    if (after) body.push(...this.include(after.name, [], { ...site('body'), path: [] }));
    this.judgeSignatures();
    if (front.kind === 'message' && (front.purpose ?? 'new') !== 'reply' && subject.leaves.length === 0) {
      this.findings.push(
        error('no-subject', 'The template has no subject.', { path: site('subject').path, attribute: 'subject' }),
      );
    }
    return {
      name: this.own.name,
      title: front.title,
      locale: this.own.locale,
      purpose: front.purpose ?? 'new',
      house: this.house,
      slots: [...this.slots, ...this.extraSlots],
      subject,
      to: addresses('to'),
      cc: addresses('cc'),
      bcc: addresses('bcc'),
      replyTo: addresses('reply_to'),
      attachments: (part(document, 'attachments').content ?? []).map((file, index) => ({
        file: file.attrs.file,
        name: new LineCompiler(this, site('attachments')).compile(file.content, [...site('attachments').path, index]),
      })),
      start: line('start'),
      length: line('length'),
      place: line('place'),
      body,
      findings: distinct(this.findings),
      texts: [...this.units.keys()],
      runtime: this.runtime,
    };
  }

  // — linking —

  /** The text of that name, once; undefined and a finding if there is none. */
  private unit(name: string, document: TextDocument | undefined): TextUnit | undefined {
    const known = this.units.get(name);
    if (known) return known;
    if (!document) return undefined;
    const unit = new TextUnit(
      name,
      document,
      this.locale(document, name),
      this.house,
      this.runtime,
      this.findings,
      this.units.size === 0,
    );
    this.units.set(name, unit);
    for (const variable of document.attrs.variables)
      checkDeclaration(variable, unit, { today: this.runtime.today, locale: unit.locale }, this.findings);
    // Wrong expressions are reported whether or not the value is used.
    for (const variable of document.attrs.variables) {
      unit.expression(variable);
      for (const each of variable.columns ?? []) unit.columnExpression(variable, each);
    }
    return unit;
  }

  private locale(document: TextDocument, name: string): string {
    const wanted = document.attrs.front.locale ?? this.house.locale;
    try {
      if (Intl.DateTimeFormat.supportedLocalesOf(wanted).length > 0) return wanted;
    } catch {
      // A malformed tag is as unknown as one without data.
    }
    this.findings.push(
      advice(
        'unknown-locale',
        `The language “${wanted}” is not known here; ${this.house.locale} stands in.`,
        this.units.size === 0 ? { attribute: 'locale' } : { text: name, attribute: 'locale' },
      ),
    );
    return this.house.locale;
  }

  /** Gathers the declarations of a text and of what it includes; reports loops, depth and names without a text. */
  private link(unit: TextUnit, depth: number, chain: readonly string[], shadows: ReadonlyMap<string, Variable>): void {
    for (const variable of unit.variables.values()) {
      const shadow = shadows.get(variable.key);
      if (shadow) {
        const attribute = clash(shadow, variable);
        if (attribute)
          this.findings.push(
            error(
              'type-clash',
              `“${variable.key}” differs in its ${attribute} between the list it repeats over and ${unit.name}.`,
              unit.place({ variable: variable.key, attribute }),
            ),
          );
      } else if (!this.readsShadow(unit, variable, shadows)) this.declarations.push({ variable, unit, depth });
    }
    for (const { name, path, inline, repeats } of inclusionsOf(unit.document)) {
      this.inclusions += 1;
      const at = unit.place({ path });
      if (chain.includes(name)) {
        this.findings.push(
          error(
            'block-loop',
            `This block includes itself: ${[...chain.slice(chain.indexOf(name)), name].join(' → ')}.`,
            at,
          ),
        );
        continue;
      }
      if (depth + 1 > MAX_INCLUSION_DEPTH || this.inclusions > MAX_INCLUSIONS) {
        const words =
          this.inclusions > MAX_INCLUSIONS
            ? `More than ${MAX_INCLUSIONS} blocks would be included.`
            : `Blocks nest ${MAX_INCLUSION_DEPTH} deep at most: ${chain.join(' → ')}.`;
        if (!this.findings.some((finding) => finding.code === 'too-deep'))
          this.findings.push(error('too-deep', words, at));
        continue;
      }
      const included = this.unit(name, this.units.get(name)?.document ?? this.options.library.get(name));
      if (!included) {
        this.findings.push(error('unknown-block', `There is no block “${name}”.`, at));
        continue;
      }
      if (inline && !fitsLine(included.document))
        this.findings.push(
          error('block-in-line', `“${name}” is more than one paragraph, so it cannot stand inside a line.`, at),
        );
      const inner = new Map(shadows);
      for (const repeat of repeats)
        for (const each of unit.variables.get(repeat.of)?.columns ?? []) inner.set(each.key, each);
      this.link(included, depth + 1, [...chain, name], inner);
    }
  }

  /** True for a computed variable of a block that reads a column of the repeat around it: every row has its own. */
  private readsShadow(
    unit: TextUnit,
    variable: Variable,
    shadows: ReadonlyMap<string, Variable>,
    seen: ReadonlySet<string> = new Set(),
  ): boolean {
    if (shadows.size === 0 || seen.has(variable.key)) return false;
    const references = unit.expression(variable)?.references ?? [];
    return references.some((key) => {
      const next = unit.variables.get(key);
      return (
        shadows.has(key) ||
        (next !== undefined && this.readsShadow(unit, next, shadows, new Set([...seen, variable.key])))
      );
    });
  }

  // — names —

  private slotRead(key: string): Read | undefined {
    const slot = this.byKey.get(key);
    return slot && { from: 'slot', key, slot };
  }

  /** What a name means at a site; undefined if nothing. A text sees only what it declares, and columns. */
  read(name: string, site: Site): Read | undefined {
    const [source, field] = name.split('.');
    if (field !== undefined && (source === 'recipient' || source === 'sender')) return { from: source, key: field };
    if (field !== undefined && source === 'house') {
      const fact = Object.hasOwn(this.house.facts, field) ? this.house.facts[field] : undefined;
      return fact && { from: 'fact', key: field, value: fact.value };
    }
    return column(site.scope, name) ?? (site.unit.variables.has(name) ? this.slotRead(name) : undefined);
  }

  /** Binds a condition; undefined and a finding if it is none. */
  test(condition: Condition, site: Site, path: readonly number[]): Test | undefined {
    const read = this.read(condition.of, site);
    const at = site.unit.place({ path });
    if (!read) {
      this.findings.push(error('unknown-variable', `There is no variable “${condition.of}”.`, at));
      return undefined;
    }
    const variable = declarationOf(read);
    const kind =
      variable?.type === 'yes-no'
        ? 'yes-no'
        : variable?.type === 'list'
          ? 'list'
          : variable?.type === 'choice' || variable?.type === 'choices'
            ? 'option'
            : undefined;
    const unknown =
      kind === 'option'
        ? condition.is.find((key) => !variable?.options?.some((option) => option.key === key))
        : undefined;
    const problem =
      kind === undefined
        ? `“${condition.of}” is neither a yes-no, a choice nor a list, so nothing can depend on it. For a condition on data, declare a yes-no with a value.`
        : kind === 'option' && condition.is.length === 0
          ? `“${condition.of}” is a choice: name the options, as in ${condition.of}.${variable?.options?.[0]?.key ?? 'option'}.`
          : kind !== 'option' && condition.is.length > 0
            ? `“${condition.of}” has no options.`
            : unknown !== undefined
              ? `“${condition.of}” has no option “${unknown}”.`
              : undefined;
    if (problem !== undefined || kind === undefined) {
      this.findings.push(error('not-a-condition', problem ?? '', at));
      return undefined;
    }
    return {
      condition,
      read,
      kind,
      label: conditionInWords(condition, variable),
      depth: site.scope ? site.scope.depth + 1 : 0,
      rowSlots: [],
    };
  }

  // — blocks —

  private blocks(blocks: readonly Block[], site: Site): Governed<BlockUnit>[] {
    return blocks.flatMap((block, index) => this.block(block, { ...site, path: [...site.path, index] }));
  }

  private block(block: Block, site: Site): Governed<BlockUnit>[] {
    const { path } = site;
    const unit: Unit = { path, text: site.unit.name };
    switch (block.type) {
      case 'paragraph':
        return [
          {
            node: {
              kind: 'line',
              tag: 'p',
              style: '',
              line: new LineCompiler(this, site).compile(block.content),
              ...unit,
            },
          },
        ];
      case 'heading':
        return [
          {
            node: {
              kind: 'line',
              tag: `h${block.attrs.level}`,
              style: '',
              line: new LineCompiler(this, site).compile(block.content),
              ...unit,
            },
          },
        ];
      case 'codeBlock':
        return [{ node: { kind: 'code', code: (block.content ?? []).map((node) => node.text).join(''), ...unit } }];
      case 'horizontalRule':
        return [{ node: { kind: 'rule', ...unit } }];
      case 'blockquote':
        return [{ node: { kind: 'quote', children: this.blocks(block.content, site), ...unit } }];
      case 'bulletList':
      case 'orderedList':
        return [
          {
            node: {
              kind: 'list',
              ordered: block.type === 'orderedList',
              start: block.type === 'orderedList' ? block.attrs.start : 1,
              items: this.items(block.content, site),
              ...unit,
            },
          },
        ];
      case 'table':
        return [{ node: this.table(block.content, site, unit) }];
      case 'passage':
        return this.govern(block.attrs, site, path, (inner) => this.blocks(block.content, inner));
      case 'inclusion':
        return this.include(block.attrs.name, path, site);
      case 'comment':
        return [];
    }
  }

  /** Puts what `make` gives under a condition, in the scope that a repeat opens. */
  private govern<N>(
    condition: Condition,
    site: Site,
    path: readonly number[],
    make: (inner: Site) => Governed<N>[],
  ): Governed<N>[] {
    const test = this.test(condition, site, path);
    const inner: Site = { ...site, conditions: [...site.conditions, condition] };
    if (!test) return make(inner);
    if (test.kind !== 'list' || condition.not) return [{ test, children: make(inner), path }];
    if (test.read.from !== 'slot') return make(inner);
    const scope: Scope = { parent: site.scope, list: test.read.slot, depth: test.depth, rowSlots: new Map() };
    const children = make({ ...inner, scope });
    return [{ test: { ...test, rowSlots: [...scope.rowSlots.values()] }, children, path }];
  }

  /** Groups children by the conditions they share, outermost first. */
  private grouped<C extends { readonly attrs: { readonly when: readonly Condition[] } }, N>(
    children: readonly { readonly child: C; readonly index: number }[],
    level: number,
    site: Site,
    make: (child: C, index: number, site: Site) => N,
  ): Governed<N>[] {
    const out: Governed<N>[] = [];
    for (let at = 0; at < children.length;) {
      const { child, index } = children[at] as { child: C; index: number };
      const governing = child.attrs.when[level];
      if (!governing) {
        out.push({ node: make(child, index, { ...site, path: [...site.path, index] }) });
        at += 1;
        continue;
      }
      let end = at + 1;
      while (
        end < children.length &&
        JSON.stringify(children[end]?.child.attrs.when[level]) === JSON.stringify(governing)
      )
        end += 1;
      const group = children.slice(at, end);
      out.push(
        ...this.govern(governing, site, [...site.path, index], (inner) => this.grouped(group, level + 1, inner, make)),
      );
      at = end;
    }
    return out;
  }

  private items(items: readonly ListItem[], site: Site): Governed<ItemUnit>[] {
    return this.grouped(
      items.map((child, index) => ({ child, index })),
      0,
      site,
      (item, _index, inner): ItemUnit => ({
        path: inner.path,
        text: site.unit.name,
        children: this.blocks(item.content, inner),
      }),
    );
  }

  private table(rows: readonly Row[], site: Site, unit: Unit): BlockUnit {
    const isHead = (row: Row | undefined): boolean =>
      row?.content.every((cell) => cell.type === 'tableHeader') ?? false;
    const make = (row: Row, _index: number, inner: Site): RowUnit => ({
      path: inner.path,
      text: site.unit.name,
      cells: row.content.map((cell, at) => ({
        line: new LineCompiler(this, { ...inner, path: [...inner.path, at, 0] }).compile(
          (cell.content[0] as Paragraph).content,
        ),
        align: cell.attrs.align,
        head: cell.type === 'tableHeader',
      })),
    });
    const [first] = rows;
    const head = first && isHead(first) ? make(first, 0, { ...site, path: [...site.path, 0] }) : undefined;
    const body = rows.map((child, index) => ({ child, index })).slice(head ? 1 : 0);
    return {
      kind: 'table',
      head,
      rows: this.grouped(body, 0, site, make),
      aligns: (first?.content ?? []).map((cell) => cell.attrs.align),
      ...unit,
    };
  }

  // — inclusion —

  /** The site inside an included text, or undefined where linking has found it impossible. */
  private enter(name: string, site: Site, path: readonly number[]): Site | undefined {
    const unit = this.units.get(name);
    this.inclusions += 1;
    const tooMany = this.inclusions > MAX_INCLUSIONS || site.blocks.length >= MAX_INCLUSION_DEPTH;
    if (!unit || tooMany || name === this.own.name || site.blocks.includes(name)) return undefined;
    if (unit.kind === 'signature') this.signatures.push({ name, conditions: site.conditions, path, unit: site.unit });
    const inner: Site = { ...site, unit, blocks: [...site.blocks, name], path: [unit.document.content.length - 1] };
    this.addRowSlots(unit, inner);
    return inner;
  }

  /** Gives the repeats around a block the computed variables that read their columns. */
  private addRowSlots(unit: TextUnit, site: Site): void {
    const { scope } = site;
    if (!scope) return;
    const shadows = new Map<string, Variable>();
    for (let at: Scope | undefined = scope; at; at = at.parent)
      for (const each of at.list.variable.columns ?? []) if (!shadows.has(each.key)) shadows.set(each.key, each);
    const local = [...unit.variables.values()].filter(
      (variable) => !shadows.has(variable.key) && this.readsShadow(unit, variable, shadows),
    );
    const made = local
      .filter((variable) => !scope.rowSlots.has(variable.key))
      .map((variable): Slot => {
        const slot: Slot = {
          index: this.slots.length + this.extraSlots.length,
          key: variable.key,
          variable,
          declarations: [{ variable, locale: unit.locale }],
          label: variable.label ?? labelFromKey(variable.key),
          locale: unit.locale,
          text: unit.name,
          inputs: [],
          columns: [],
        };
        this.extraSlots.push(slot);
        scope.rowSlots.set(variable.key, slot);
        return slot;
      });
    for (const slot of made) bindSlot(slot, unit, (key) => this.read(key, site));
  }

  private include(name: string, path: readonly number[], site: Site): Governed<BlockUnit>[] {
    const inner = this.enter(name, site, path);
    if (!inner) return [];
    const { unit } = inner;
    const lang = unit.locale === site.unit.locale ? undefined : unit.locale;
    return [
      {
        node: {
          kind: 'include',
          name,
          lang,
          signature: unit.kind === 'signature',
          children: this.blocks(bodyOf(unit.document), inner),
          path,
          text: site.unit.name,
        },
      },
    ];
  }

  /** A block inside a line: the leaves of its one paragraph. */
  splice(
    name: string,
    path: readonly number[],
    site: Site,
    base: { readonly tests: readonly Test[]; readonly marks: readonly MarkPiece[]; readonly origin: Origin },
  ): Leaf[] {
    const inner = this.enter(name, site, path);
    if (!inner) return [textLeaf('', base)];
    const leaves: Leaf[] = [];
    const gather = (blocks: readonly Block[], at: Site): void =>
      blocks.forEach((block, index) => {
        const here: Site = { ...at, path: [...at.path, index] };
        if (block.type === 'paragraph') leaves.push(...new LineCompiler(this, here).compile(block.content).leaves);
        if (block.type !== 'passage') return;
        const test = this.test(block.attrs, here, here.path);
        gather(block.content, {
          ...here,
          conditions: [...here.conditions, block.attrs],
          tests: test && test.kind !== 'list' ? [...here.tests, test] : here.tests,
        });
      });
    gather(bodyOf(inner.unit.document), { ...inner, tests: [] });
    const line: Line = {
      leaves,
      spacesPunctuation: new LineCompiler(this, inner).compile([]).spacesPunctuation,
      fixed: false,
    };
    const lang = inner.unit.locale === site.unit.locale ? undefined : inner.unit.locale;
    return [{ kind: 'splice', line, lang, name, signature: inner.unit.kind === 'signature', ...base }];
  }

  // — signatures —

  /** The signature that stands after the body: the one that is named, else the sender's if the body includes none. */
  private signatureAfter(): TextUnit | undefined {
    const name =
      this.signature ??
      (this.named.document.attrs.front.signature === 'none' || this.includesSignature()
        ? undefined
        : this.options.senderSignature);
    if (name === undefined) return undefined;
    const unit = this.unit(name, this.options.library.get(name));
    const path = { attribute: 'signature' };
    if (!unit) this.findings.push(error('unknown-block', `There is no signature “${name}”.`, path));
    else if (unit.kind !== 'signature')
      this.findings.push(error('unknown-block', `“${name}” is not a signature.`, path));
    else return unit === this.own ? undefined : unit;
    return undefined;
  }

  private includesSignature(): boolean {
    return [...this.units.values()].some((unit) => unit !== this.own && unit.kind === 'signature');
  }

  private judgeSignatures(): void {
    const several = severalIn(this.declarations.map(({ variable }) => variable));
    this.signatures.forEach((use, index) => {
      const other = this.signatures
        .slice(0, index)
        .find((each) => !each.conditions.some((a) => use.conditions.some((b) => neverBoth(a, b, several))));
      if (other)
        this.findings.push(
          error(
            'two-signatures',
            `A message carries one signature: “${other.name}” stands there already, so “${use.name}” is left out.`,
            use.path.length > 0 ? use.unit.place({ path: use.path }) : { attribute: 'signature' },
          ),
        );
    });
  }
}
