/** Writes a body as HTML: self-contained, styles inline, with what mail programs keep. */
import { lineAddress, PROOF_CLASS, PROOF_DATA } from './proof-markup.js';
import { escapeHtml } from '../words/escape.js';
import type {
  BlockUnit,
  CellUnit,
  Governed,
  ItemUnit,
  Line,
  NoteUnit,
  RowUnit,
  Test,
  Unit,
} from '../compile/program.js';
import { direction } from '../values/intl.js';
import type { Frame } from './frame.js';
import { buttonTags, htmlStyles, openTag, panelTags, type HtmlStyles } from './styles.js';
import { LineWriter, maySign, type Collected } from './writer.js';
import { walk } from './walk.js';

/** Writes a program with its values as HTML, with traces and marks where they are asked for. */
export class HtmlWriter {
  out = '';
  /** How much of the output is notes: what holds nothing else holds nothing. */
  private noted = 0;
  private readonly styles: HtmlStyles;
  private readonly writer: LineWriter;

  constructor(
    private readonly frame: Frame,
    private readonly collected: Collected,
  ) {
    this.styles = htmlStyles(frame.program.house.style);
    this.writer = new LineWriter(frame, 'html', collected);
  }

  blocks(nodes: readonly Governed<BlockUnit>[]): void {
    walk(
      nodes,
      this.frame,
      this.collected,
      (unit) => this.block(unit),
      this.collected.proof ? (test, children, path) => this.fold(test, children, path) : undefined,
    );
  }

  /** In a proof, what is left out is a line with its name that opens to show it. */
  private fold(
    { label, condition: { of } }: Test,
    children: readonly Governed<BlockUnit>[],
    path: readonly number[],
  ): void {
    this.out += `<details class="${PROOF_CLASS.leftOut}" ${PROOF_DATA.path}="${path.join('.')}" ${PROOF_DATA.of}="${escapeHtml(of)}"><summary>left out: ${escapeHtml(label)}</summary>`;
    const units = children.flatMap((child) => ('node' in child ? [child.node] : []));
    // Shown as it would read; what it lacks is nobody's blank.
    const inner = new HtmlWriter(this.frame, {
      ...this.collected,
      blanks: new Set(),
      findings: [],
      trace: undefined,
      proof: false,
      editing: false,
    });
    for (const unit of units) inner.block(unit);
    this.out += `${inner.out}</details>`;
  }

  private attributes(unit: Unit, style: string): string {
    const proof =
      this.collected.proof && unit.text === this.frame.program.name
        ? ` ${PROOF_DATA.path}="${unit.path.join('.')}"`
        : '';
    return `${style === '' ? '' : ` style="${style}"`}${proof}`;
  }

  /** Tags around blocks, which in a proof say where they stand. */
  private proofed([open, close]: readonly [string, string], unit: Unit): [string, string] {
    return [open.replace(/^<[a-z]+/, (tag) => tag + this.attributes(unit, '')), close];
  }

  /** Writes one block. */
  block(unit: BlockUnit): void {
    const { styles } = this;
    switch (unit.kind) {
      case 'line': {
        const { tag, line } = unit;
        const open = this.collected.proof
          ? `<${tag}${this.attributes(unit, styles[tag] + unit.style)}${this.address(line)}>`
          : openTag(styles, tag, unit.style);
        // A line that leaving out has emptied has written nothing, so there is nothing to take back.
        const html = this.writer.write(line, this.out.length + open.length);
        if (html !== undefined) this.out += `${open}${html === '' ? '<br>' : html}</${tag}>`;
        return;
      }
      case 'button':
        return this.button(unit);
      case 'panel':
        return this.around(...this.proofed(panelTags(this.frame.program.house.style, unit.colour), unit), () =>
          this.blocks(unit.children),
        );
      case 'code':
        return this.code(unit);
      case 'rule':
        this.out += `<hr${this.attributes(unit, styles.hr)}>`;
        return;
      case 'note':
        return this.note(unit);
      case 'quote':
        return this.around(...this.proofed(this.styles.quoted, unit), () => this.blocks(unit.children));
      case 'list': {
        const tag = unit.ordered ? 'ol' : 'ul';
        const start = unit.ordered && unit.start !== 1 ? ` start="${unit.start}"` : '';
        return this.around(`<${tag}${start}${this.attributes(unit, styles.list)}>`, `</${tag}>`, () =>
          walk(unit.items, this.frame, this.collected, (item) => this.item(item)),
        );
      }
      case 'table':
        return this.table(unit);
      case 'include': {
        if (unit.signature && !maySign(this.collected)) return;
        const lang = unit.lang === undefined ? '' : ` lang="${escapeHtml(unit.lang)}" dir="${direction(unit.lang)}"`;
        const proof = this.collected.proof
          ? ` ${PROOF_DATA.block}="${escapeHtml(unit.name)}"${unit.text === this.frame.program.name && unit.path.length > 0 ? ` ${PROOF_DATA.path}="${unit.path.join('.')}"` : ''}`
          : '';
        if (lang === '' && proof === '') return this.blocks(unit.children);
        return this.around(`<div${lang}${proof}>`, '</div>', () => this.blocks(unit.children));
      }
    }
  }

  private code(unit: Extract<BlockUnit, { kind: 'code' }>): void {
    this.out += `<pre${this.attributes(unit, this.styles.pre)}>`;
    const from = this.out.length;
    this.out += escapeHtml(unit.code);
    if (unit.code !== '') this.collected.trace?.push({ from, to: this.out.length, origin: unit.origin });
    this.out += '</pre>';
  }

  /** Remembers where the output stands, trace included; calling the result takes back what came after. */
  private mark(): () => void {
    const { out } = this;
    const stretches = this.collected.trace?.length ?? 0;
    return () => {
      this.out = out;
      if (this.collected.trace) this.collected.trace.length = stretches;
    };
  }

  /** Writes a container, and takes it back if nothing came of what it held. */
  private around(open: string, close: string, inside: () => void): void {
    const takeBack = this.mark();
    this.out += open;
    const { length } = this.out;
    const { noted } = this;
    inside();
    if (this.out.length - length === this.noted - noted) {
      takeBack();
      this.noted = noted;
    } else this.out += close;
  }

  /** In a proof, a note stands behind what it is about. */
  private note({ words, ...unit }: NoteUnit): void {
    if (!this.collected.proof) return;
    const { length } = this.out;
    this.out += `<aside class="${PROOF_CLASS.note}"${this.attributes(unit, '')}>${escapeHtml(words)}</aside>`;
    this.noted += this.out.length - length;
  }

  /** Writes one list item. */
  item(item: ItemUnit): void {
    const { children } = item;
    const [only] = children;
    const tight =
      children.length === 1 && only && 'node' in only && only.node.kind === 'line' && only.node.tag === 'p'
        ? only.node
        : undefined;
    const open = this.collected.proof
      ? `<li${this.attributes(item, this.styles.item)}${tight ? this.address(tight.line) : ''}>`
      : this.styles.open.li;
    const notes = (): void => item.notes.forEach((note) => this.note(note));
    if (!tight)
      return this.around(open, '</li>', () => {
        this.blocks(children);
        notes();
      });
    const html = this.writer.write(tight.line, this.out.length + open.length) ?? '';
    const words = tight.line.leaves.length === 0 ? '<br>' : html;
    if (words === '') return;
    this.out += open + words;
    notes();
    this.out += '</li>';
  }

  private button({ align, href, line, ...unit }: Extract<BlockUnit, { kind: 'button' }>): void {
    const [open, close] = this.proofed(buttonTags(this.frame.program.house.style, align), unit);
    const address = this.writer.address(href);
    const link = `<a class="b"${address === '' ? '' : ` href="${escapeHtml(address)}"`} style="${this.styles.button}">`;
    const words = this.writer.write(line, this.out.length + open.length + link.length);
    if (words !== undefined && words !== '') this.out += `${open}${link}${words}</a>${close}`;
  }

  private table(unit: Extract<BlockUnit, { kind: 'table' }>): void {
    const takeBack = this.mark();
    this.out += `<table${this.attributes(unit, this.styles.table)}>`;
    if (unit.head) {
      this.out += '<thead>';
      this.row(unit.head, true);
      this.out += '</thead>';
    }
    this.out += '<tbody>';
    const length = this.out.length;
    walk(unit.rows, this.frame, this.collected, (row) => this.row(row, false));
    // A table whose body rows all went goes with its head.
    if (this.out.length === length && unit.rows.length > 0) takeBack();
    else this.out += '</tbody></table>';
  }

  private row(row: RowUnit, always: boolean): void {
    const takeBack = this.mark();
    this.out += `<tr${this.attributes(row, '')}>`;
    let emptied = false;
    let filled = always || row.spanned;
    for (const cell of row.cells) {
      this.out += this.openCell(cell, this.address(cell.line));
      const html = this.writer.write(cell.line, this.out.length);
      if (html === undefined) emptied = true;
      else if (html !== '') filled = true;
      this.out += `${html ?? ''}</${cell.head ? 'th' : 'td'}>`;
    }
    if (emptied && !filled) takeBack();
    else this.out += '</tr>';
  }

  /** Where a line that is to be edited stands. */
  private address({ leaves }: Line): string {
    const [first] = leaves;
    if (!this.collected.editing || !first) return '';
    return ` ${PROOF_DATA.line}="${escapeHtml(lineAddress(first.origin.text, first.origin.path.slice(0, -1)))}"`;
  }

  private openCell({ align, head, colspan, rowspan }: CellUnit, address: string): string {
    const spans = `${colspan > 1 ? ` colspan="${colspan}"` : ''}${rowspan > 1 ? ` rowspan="${rowspan}"` : ''}`;
    const style = head ? this.styles.th : this.styles.td;
    const ground = head ? this.styles.headAttributes : '';
    return `<${head ? 'th' : 'td'}${spans}${ground} style="${style};text-align:${align ?? 'left'}"${address}>`;
  }
}
