/**
 * The short way through a body: where no seam can arise, its HTML is fixed pieces with values between them, and
 * the pieces are joined once for each program. Everything else is written by the `HtmlWriter`, and so is a line
 * one of whose values turns out to be missing. Both ways give the same bytes.
 */
import { escapeHtml } from '../words/escape.js';
import type {
  BlockUnit,
  Governed,
  ItemUnit,
  Line,
  Program,
  Read,
  Test,
  TextLeaf,
  ValueLeaf,
} from '../compile/program.js';
import { meets, type Frame } from './frame.js';
import { HtmlWriter } from './html.js';
import { htmlStyles, openTag, type HtmlStyles } from './styles.js';
import { noteCondition, valueOf, type Collected } from './writer.js';

/** What is written next. All steps have one shape: the runtime reads that quicker than several. */
interface Step {
  readonly kind: 'fixed' | 'line' | 'when' | 'rows' | 'around' | 'general';
  /** The HTML before, between and behind what varies. */
  readonly pieces: readonly string[];
  /** Of `line`: what stands between the pieces. */
  readonly values: readonly ValueLeaf[];
  /** Of `when` and `rows`. */
  readonly test: Test | undefined;
  /** Of `when`, `rows` and `around`, which goes where nothing comes of them. */
  readonly steps: readonly Step[];
  /** Of `rows`: whether each row is one line that shows cells of the row and nothing else. */
  readonly direct: boolean;
  /** Of `general`; of `line`, for where a value is missing. */
  readonly general: ((writer: HtmlWriter) => void) | undefined;
}

function step(
  kind: Step['kind'],
  { pieces = [], values = [], test, steps = [], direct = false, general }: Partial<Step>,
): Step {
  return { kind, pieces, values, test, steps, direct, general };
}

type ColumnRead = Extract<Read, { readonly from: 'column' }>;

const made = new WeakMap<Program, readonly Step[]>();

/** The HTML of a program's body, for messages that are neither proofs nor traced. */
export function quickHtml(frame: Frame, collected: Collected): string {
  const { program } = frame;
  let steps = made.get(program);
  if (!steps) {
    steps = blockSteps(program.body, htmlStyles(program.house.style));
    made.set(program, steps);
  }
  return write(steps, frame, collected);
}

const titles = new WeakMap<Program, readonly string[]>();

/** The subject as HTML where all its values stand as they are; undefined where it has to be written as any line is. */
export function quickTitle(frame: Frame): string | undefined {
  const { subject } = frame.program;
  if (!subject.plain) return undefined;
  const leaves = subject.leaves as readonly (TextLeaf | ValueLeaf)[];
  let fixed = titles.get(frame.program);
  if (!fixed) {
    fixed = leaves.map((leaf) => (leaf.kind === 'text' ? escapeHtml(leaf.text) : ''));
    titles.set(frame.program, fixed);
  }
  let out = '';
  for (let at = 0; at < leaves.length; at += 1) {
    const leaf = leaves[at] as TextLeaf | ValueLeaf;
    const html = leaf.kind === 'text' ? (fixed[at] as string) : leaf.asItIs ? frame.html(leaf.read) : undefined;
    if (html === undefined || html === '') return undefined;
    out += html;
  }
  return out.trim();
}

function write(steps: readonly Step[], frame: Frame, collected: Collected): string {
  let out = '';
  for (let at = 0; at < steps.length; at += 1) {
    const next = steps[at] as Step;
    switch (next.kind) {
      case 'fixed':
        out += next.pieces[0] as string;
        break;
      case 'line':
        out += plainHtml(next.pieces, next.values, frame) ?? writeGeneral(next, frame, collected);
        break;
      case 'when': {
        const test = next.test as Test;
        const value = frame.readTest(test);
        if (value === undefined) noteCondition(frame, test, collected);
        if (meets(test, value)) out += write(next.steps, frame, collected);
        break;
      }
      case 'rows':
        out += writeRows(next, frame, collected);
        break;
      case 'around': {
        const inside = write(next.steps, frame, collected);
        if (inside !== '') out += (next.pieces[0] as string) + inside + (next.pieces[1] as string);
        break;
      }
      case 'general':
        out += writeGeneral(next, frame, collected);
    }
  }
  return out;
}

const weights = new WeakMap<readonly Step[], number>();
/** What writing some steps once costs, as far as it is theirs. */
function weightOf(steps: readonly Step[]): number {
  let weight = weights.get(steps);
  if (weight === undefined) {
    weight = steps.reduce((sum, each) => sum + 1 + each.values.length + weightOf(each.steps), 0);
    weights.set(steps, weight);
  }
  return weight;
}

function writeRows(next: Step, frame: Frame, collected: Collected): string {
  const { steps } = next;
  const test = next.test as Test;
  let out = '';
  if (frame.read(test.read) === undefined) noteCondition(frame, test, collected);
  const rows = frame.rowsOf(test);
  const weight = weightOf(steps);
  const cells = next.direct ? frame.cellsOf(test) : undefined;
  for (let at = 0; at < rows.length; at += 1) {
    if (!frame.budget.spend(weight)) break;
    const line = cells && rowHtml(steps[0] as Step, cells[at] as (typeof cells)[number]);
    if (line !== undefined) {
      out += line;
      continue;
    }
    frame.enterRow(test, rows[at] as (typeof rows)[number], at);
    out += write(steps, frame, collected);
  }
  if (rows.length > 0) frame.leaveRow(test);
  return out;
}

/** A line of cells as they stand; undefined where one is missing. */
function rowHtml({ pieces, values }: Step, cells: readonly (string | undefined)[]): string | undefined {
  let out = pieces[0] as string;
  for (let at = 0; at < values.length; at += 1) {
    const cell = cells[((values[at] as ValueLeaf).read as ColumnRead).at];
    if (cell === undefined || cell === '') return undefined;
    out += cell + (pieces[at + 1] as string);
  }
  return out;
}

/** Whether all that a row shows is one line of its own cells as they are. */
const isDirect = ([line, ...others]: readonly Step[], { depth }: Test): boolean =>
  line?.kind === 'line' &&
  others.length === 0 &&
  line.values.every(({ asItIs, read }) => asItIs && read.from === 'column' && read.depth === depth);

function writeGeneral({ general }: Step, frame: Frame, collected: Collected): string {
  const writer = new HtmlWriter(frame, collected);
  general?.(writer);
  return writer.out;
}

/** Pieces with the values between them; undefined where a value is missing. */
function plainHtml(pieces: readonly string[], values: readonly ValueLeaf[], frame: Frame): string | undefined {
  let out = pieces[0] as string;
  for (let at = 0; at < values.length; at += 1) {
    const html = valueOf(values[at] as ValueLeaf, frame);
    if (html === undefined) return undefined;
    out += html + (pieces[at + 1] as string);
  }
  return out;
}

const blockSteps = (nodes: readonly Governed<BlockUnit>[], styles: HtmlStyles): readonly Step[] =>
  governedSteps(nodes, (unit) => unitSteps(unit, styles));

function governedSteps<N>(nodes: readonly Governed<N>[], stepsOf: (node: N) => readonly Step[]): readonly Step[] {
  const out: Step[] = [];
  for (const each of nodes) {
    if ('node' in each) stepsOf(each.node).forEach((next) => append(out, next));
    else {
      const { test, children } = each;
      const repeats = test.kind === 'list' && !test.condition.not;
      const steps = governedSteps(children, stepsOf);
      append(out, step(repeats ? 'rows' : 'when', { test, steps, direct: repeats && isDirect(steps, test) }));
    }
  }
  return out;
}

/** Appends a step; fixed neighbours become one. */
function append(steps: Step[], next: Step): void {
  const last = steps.at(-1);
  if (next.kind === 'fixed' && last?.kind === 'fixed')
    steps[steps.length - 1] = step('fixed', { pieces: [last.pieces.join('') + next.pieces.join('')] });
  else steps.push(next);
}

function unitSteps(unit: BlockUnit, styles: HtmlStyles): readonly Step[] {
  const general = (writer: HtmlWriter): void => writer.block(unit);
  switch (unit.kind) {
    case 'line':
      return [lineStep(unit.line, openTag(styles, unit.tag, unit.style), `</${unit.tag}>`, general)];
    case 'code':
      return [step('fixed', { pieces: [`<pre style="${styles.pre}">${escapeHtml(unit.code)}</pre>`] })];
    case 'note':
      return [];
    case 'rule':
      return [step('fixed', { pieces: [`<hr style="${styles.hr}">`] })];
    case 'quote':
      return [step('around', { pieces: styles.quoted, steps: blockSteps(unit.children, styles) })];
    case 'list': {
      const tag = unit.ordered ? 'ol' : 'ul';
      const start = unit.ordered && unit.start !== 1 ? ` start="${unit.start}"` : '';
      const pieces = [`<${tag}${start} style="${styles.list}">`, `</${tag}>`];
      return [step('around', { pieces, steps: governedSteps(unit.items, (item) => [itemStep(item, styles)]) })];
    }
    case 'include':
      return unit.lang === undefined && !unit.signature
        ? blockSteps(unit.children, styles)
        : [step('general', { general })];
    default:
      return [step('general', { general })];
  }
}

function itemStep(item: ItemUnit, styles: HtmlStyles): Step {
  const general = (writer: HtmlWriter): void => writer.item(item);
  const [only, ...others] = item.children;
  const line =
    only && 'node' in only && only.node.kind === 'line' && only.node.tag === 'p' ? only.node.line : undefined;
  return line && others.length === 0 ? lineStep(line, styles.open.li, '</li>', general) : step('general', { general });
}

function lineStep({ leaves, plain }: Line, open: string, close: string, general: Step['general']): Step {
  if (!plain) return step('general', { general });
  const pieces = [open];
  const values: ValueLeaf[] = [];
  for (const leaf of leaves as readonly (TextLeaf | ValueLeaf)[]) {
    if (leaf.kind === 'text') pieces[pieces.length - 1] += leaf.html;
    else {
      values.push(leaf);
      pieces.push('');
    }
  }
  if (leaves.length === 0) pieces[0] += '<br>';
  pieces[pieces.length - 1] += close;
  return step(values.length === 0 ? 'fixed' : 'line', { pieces, values, general });
}
