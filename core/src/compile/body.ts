/** Compiles the blocks of a text, and the texts they include, into units of the program. */
import { error, type Finding } from '../findings/finding.js';
import { sameCondition, type Condition } from '../template/condition.js';
import {
  bodyOf,
  type Block,
  type Inline,
  type Layout,
  type ListItem,
  type Paragraph,
  type Row,
} from '../template/document.js';
import { gridOf } from '../template/grid.js';
import { direction } from '../values/intl.js';
import { labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import { valueType } from '../values/index.js';
import type { Binder } from './bind.js';
import type { House } from '../house/house.js';
import { LineCompiler, textLeaf } from './line.js';
import type { LineHost } from './line-host.js';
import type { Linked } from './link.js';
import type {
  BlockUnit,
  Governed,
  ItemUnit,
  Leaf,
  Line,
  MarkPiece,
  NoteUnit,
  Origin,
  RowUnit,
  Slot,
  Test,
  Unit,
} from './program.js';
import type { Scope } from './scope.js';
import type { Site } from './site.js';
import { bindSlot } from './slots.js';
import { neverBoth, severalIn } from './condition-logic.js';
import { MAX_INCLUSION_DEPTH, MAX_INCLUDED, MAX_INCLUSIONS, sizeOf } from './inclusions.js';
import { readsShadow, type TextUnit } from './texts.js';

/** A signature as the body meets it. */
interface SignatureUse {
  readonly name: string;
  readonly conditions: readonly Condition[];
  readonly path: readonly number[];
  readonly site: Site;
}

/** Compiles the body of one text into units, with what its blocks and repeats put into scope. */
export class BodyCompiler implements LineHost {
  /** Slots of included blocks that have a value for each row of a repeat. */
  readonly rowSlots: Slot[] = [];
  /** Classes of the named colours that are used: `c-` of words, `h-` of highlights, `p-` of panels. */
  readonly colours = new Set<string>();
  private readonly signatures: SignatureUse[] = [];
  private inclusions = 0;
  private included = 0;

  /** @param slots how many message-wide slots there are; row slots are numbered after them. */
  constructor(
    private readonly linked: Linked,
    private readonly slots: number,
    readonly binder: Binder,
    readonly house: House,
    readonly findings: Finding[],
  ) {}

  /** Compiles blocks that stand at `site`. */
  blocks(blocks: readonly Block[], site: Site): Governed<BlockUnit>[] {
    return blocks.flatMap((block, index) => this.block(block, { ...site, path: [...site.path, index] }));
  }

  // eslint-disable-next-line max-lines-per-function -- one case for each kind of block
  private block(block: Block, site: Site): Governed<BlockUnit>[] {
    const { path } = site;
    const unit: Unit = { path, text: site.unit.name };
    switch (block.type) {
      case 'paragraph':
      case 'heading': {
        const tag = block.type === 'heading' ? (`h${block.attrs.level}` as const) : 'p';
        const line = new LineCompiler(this, site).compile(block.content);
        return [
          { node: { kind: 'line', tag, style: layoutStyle(block.attrs, site.unit.locale), line, ...unit } },
          ...this.notes(block.content, unit),
        ];
      }
      case 'button': {
        const compiler = new LineCompiler(this, site);
        const href = compiler.target(block.attrs.href, path) ?? compiler.compile([]);
        const line = compiler.compile(block.content);
        return [{ node: { kind: 'button', align: block.attrs.align ?? null, href, line, ...unit } }];
      }
      case 'panel':
        this.colours.add(`p-${block.attrs.colour}`);
        return [
          {
            node: {
              kind: 'panel',
              colour: block.attrs.colour,
              children: this.blocks(block.content, site),
              ...unit,
            },
          },
        ];
      case 'codeBlock':
        return [
          {
            node: {
              kind: 'code',
              code: (block.content ?? []).map((node) => node.text).join(''),
              origin: { text: site.unit.name, path, blocks: site.blocks, conditions: site.conditions },
              ...unit,
            },
          },
        ];
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
        return this.notes([{ type: 'inlineComment', attrs: block.attrs }], unit);
    }
  }

  /** Puts what `make` gives under a condition, in the scope that a repeat opens. */
  private govern<N>(
    condition: Condition,
    site: Site,
    path: readonly number[],
    make: (inner: Site) => Governed<N>[],
  ): Governed<N>[] {
    const test = this.binder.test(condition, site, path);
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
      while (end < children.length && same(children[end]?.child.attrs.when[level], governing)) end += 1;
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
      (item, _index, inner): ItemUnit => {
        const notes: NoteUnit[] = [];
        const children = this.blocks(item.content, inner).filter((each) => {
          if (!('node' in each) || each.node.kind !== 'note') return true;
          notes.push(each.node);
          return false;
        });
        return { path: inner.path, text: site.unit.name, children, notes };
      },
    );
  }

  /** The notes of a line, to stand behind it; one without words only keeps a place. */
  private notes(nodes: readonly Inline[] = [], unit: Unit): Governed<BlockUnit>[] {
    return nodes.flatMap((node) =>
      node.type === 'inlineComment' && node.attrs.text !== ''
        ? [{ node: { kind: 'note', words: node.attrs.text, ...unit } }]
        : [],
    );
  }

  private table(rows: readonly Row[], site: Site, unit: Unit): BlockUnit {
    const isHead = (row: Row | undefined): boolean =>
      row?.content.every((cell) => cell.type === 'tableHeader') ?? false;
    const { width, places } = gridOf(rows);
    const make = (row: Row, index: number, inner: Site): RowUnit => {
      const line = places[index] ?? [];
      return {
        path: inner.path,
        text: site.unit.name,
        cells: row.content.map((cell, at) => ({
          line: new LineCompiler(this, { ...inner, path: [...inner.path, at, 0] }).compile(
            (cell.content[0] as Paragraph).content,
          ),
          align: cell.attrs.align,
          head: cell.type === 'tableHeader',
          column: line.findIndex((placed) => placed?.cell === cell),
          colspan: cell.attrs.colspan,
          rowspan: cell.attrs.rowspan,
        })),
        spanned: line.some((placed) => (placed?.cell.attrs.rowspan ?? 1) > 1),
      };
    };
    const [first] = rows;
    const head = first && isHead(first) ? make(first, 0, { ...site, path: [...site.path, 0] }) : undefined;
    const body = rows.map((child, index) => ({ child, index })).slice(head ? 1 : 0);
    return {
      kind: 'table',
      head,
      rows: this.grouped(body, 0, site, make),
      aligns: Array.from({ length: width }, (_, column) => places[0]?.[column]?.cell.attrs.align ?? null),
      ...unit,
    };
  }

  /** The site inside an included text, or undefined where linking has found it impossible. */
  private enter(name: string, site: Site, path: readonly number[]): Site | undefined {
    const unit = this.linked.units.get(name);
    this.inclusions += 1;
    this.included += unit ? sizeOf(unit.document) : 0;
    const tooMany =
      this.inclusions > MAX_INCLUSIONS || this.included > MAX_INCLUDED || site.blocks.length >= MAX_INCLUSION_DEPTH;
    if (!unit || tooMany || name === this.linked.own.name || site.blocks.includes(name)) return undefined;
    if (unit.kind === 'signature') this.signatures.push({ name, conditions: site.conditions, path, site });
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
      (variable) => !shadows.has(variable.key) && readsShadow(unit, variable, shadows),
    );
    const made = local
      .filter((variable) => !scope.rowSlots.has(variable.key))
      .map((variable): Slot => {
        const slot: Slot = {
          index: this.slots + this.rowSlots.length,
          key: variable.key,
          variable,
          declarations: [{ variable, locale: unit.locale, type: valueType(variable.type) }],
          asGiven: undefined,
          label: variable.label ?? labelFromKey(variable.key),
          locale: unit.locale,
          text: unit.name,
          inputs: [],
          columns: [],
        };
        this.rowSlots.push(slot);
        scope.rowSlots.set(variable.key, slot);
        return slot;
      });
    for (const slot of made) bindSlot(slot, unit, (key) => this.binder.read(key, site));
  }

  /** A text included as blocks. */
  include(name: string, path: readonly number[], site: Site): Governed<BlockUnit>[] {
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
        const test = this.binder.test(block.attrs, here, here.path);
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
      plain: false,
    };
    const lang = inner.unit.locale === site.unit.locale ? undefined : inner.unit.locale;
    return [{ kind: 'splice', line, lang, name, signature: inner.unit.kind === 'signature', ...base }];
  }

  /** Reports every signature that could stand beside an earlier one. */
  judgeSignatures(): void {
    const several = severalIn(this.linked.declarations.map(({ variable }) => variable));
    this.signatures.forEach((use, index) => {
      const other = this.signatures
        .slice(0, index)
        .find((each) => !each.conditions.some((a) => use.conditions.some((b) => neverBoth(a, b, several))));
      if (other)
        this.findings.push(
          error(
            { code: 'two-signatures', first: other.name, second: use.name },
            use.path.length > 0 ? use.site.unit.place({ path: use.path }) : { attribute: 'signature' },
          ),
        );
    });
  }
}

/** Pixels of one step to the right. */
const INDENT = 28;

/** A layout as inline style, to stand behind the style of a tag; empty for the usual one. */
function layoutStyle({ align, indent }: Layout = {}, locale: string): string {
  const side = direction(locale) === 'rtl' ? 'right' : 'left';
  return `${align ? `;text-align:${align}` : ''}${indent ? `;margin-${side}:${indent * INDENT}px` : ''}`;
}

const same = (a: Condition | undefined, b: Condition): boolean => a !== undefined && sameCondition(a, b);
