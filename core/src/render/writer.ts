/**
 * Writes lines: leaves become output in one of several dialects, and where something was left out the
 * white space around it is joined (clean joins, engine notes, section 3).
 */
import { PROOF_CLASS, PROOF_DATA } from './proof-markup.js';
import { dayFormat } from '../values/intl.js';
import { closeDirections, escapeFixed, escapeHtml, valueHtml } from '../words/escape.js';
import type { Leaf, Line, MarkPiece, Origin, Slot, SpliceLeaf, Test, TextLeaf, ValueLeaf } from '../compile/program.js';
import { error, type Finding, advice } from '../findings/finding.js';
import { safeUrl } from '../values/address.js';
import { inOneLine, type ImageValue, type Value } from '../values/index.js';
import type { Frame } from './frame.js';

/** `html` with form; `text` and `plain` without, `plain` in one line; `url` for what a link leads to. */
export type Dialect = 'html' | 'text' | 'plain' | 'url';

/** A stretch of output, in UTF-16 units, and where it comes from. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly origin: Origin;
}

/** What a rendering collects while it writes. */
export interface Collected {
  readonly findings: Finding[];
  /** Keys of missing required values, in order. */
  readonly blanks: Set<string>;
  readonly trace: Stretch[] | undefined;
  /** True for proofs: placeholders, blanks and what is left out are marked in the HTML. */
  readonly proof: boolean;
  /** True where lines are to be edited in the page: each run says which inline node of its line it is of. */
  readonly editing?: boolean;
  signed: boolean;
}

const NO_MARKS: readonly MarkPiece[] = [];
const CLOSE_UP = new Set([',', '.', ';', ':', '!', '?']);
const SPACED = new Set([';', ':', '!', '?']);

/** Writes one line: leaves with their marks, joined where something was left out. */
export class LineWriter {
  private out = '';
  private marks: readonly MarkPiece[] = NO_MARKS;
  /** For each open link: where its words began, and its address. */
  private readonly links: { at: number; href: string }[] = [];
  /** Where the line begins in the whole output, for the trace. */
  private offset = 0;
  /** White space that waits for what follows, and the leaf it began in. */
  private waiting = '';
  private waitingFrom: Leaf | undefined;
  private seam = false;
  private emitted = false;
  private anything = false;
  private leftOut = false;
  private everLeftOut = false;
  private breaks = 0;
  private breakFrom: Leaf | undefined;
  /** While lines are written for editing: the leaves of the line itself, and the one that is being written. */
  private own: ReadonlySet<Leaf> | undefined;
  private writing: Leaf | undefined;

  constructor(
    private readonly frame: Frame,
    private readonly dialect: Dialect,
    private readonly collected: Collected,
  ) {}

  /**
   * Writes one line, which begins at `offset` of the whole output; undefined if leaving out has emptied it.
   * A writer writes any number of lines, one after the other.
   */
  write(line: Line, offset = 0): string | undefined {
    this.out = '';
    this.offset = offset;
    const stretches = this.collected.trace?.length ?? 0;
    this.marks = NO_MARKS;
    this.waiting = '';
    this.waitingFrom = this.breakFrom = undefined;
    this.seam = this.emitted = this.anything = this.leftOut = this.everLeftOut = false;
    this.breaks = 0;
    this.frame.budget.spend(line.leaves.length);
    this.own = this.collected.editing && this.dialect === 'html' ? new Set(line.leaves) : undefined;
    this.line(line);
    const written = this.finish();
    // A line that is gone has come from nowhere, whatever breaks it had.
    if (written === undefined && this.collected.trace) this.collected.trace.length = stretches;
    return written;
  }

  private line(line: Line): void {
    const { leaves } = line;
    for (let index = 0; index < leaves.length; index += 1) {
      const leaf = leaves[index] as Leaf;
      if (this.own?.has(leaf)) this.writing = leaf;
      if (leaf.tests.length > 0 && !this.kept(leaf.tests)) this.vanish(leaf);
      else if (leaf.kind === 'text') this.text(leaf, line.spacesPunctuation);
      else if (leaf.kind === 'value') this.value(leaf);
      else this.other(leaf);
    }
  }

  private finish(): string | undefined {
    this.endSegment();
    const emptiedLast = !this.emitted && this.leftOut;
    if (emptiedLast && this.breaks > 0) this.breaks -= 1;
    this.flushBreaks();
    this.shift(NO_MARKS);
    return !this.anything && this.everLeftOut ? undefined : this.out;
  }

  private kept(tests: readonly Test[]): boolean {
    for (let index = 0; index < tests.length; index += 1) {
      const test = tests[index] as Test;
      if (this.frame.read(test.read) === undefined) noteCondition(this.frame, test, this.collected);
      if (!this.frame.holds(test)) return false;
    }
    return true;
  }

  private vanish(leaf: Leaf): void {
    this.seam = true;
    this.leftOut = true;
    this.everLeftOut = true;
    const last = leaf.tests.at(-1);
    if (this.collected.proof && this.dialect === 'html' && last)
      this.out += `<span class="${PROOF_CLASS.gone}" ${PROOF_DATA.of}="${escapeHtml(last.condition.of)}" title="left out: ${escapeHtml(last.label)}"></span>`;
  }

  private endSegment(): void {
    if (!this.seam && this.waiting !== '') this.put(this.escape(this.waiting), this.waitingFrom);
    this.forget();
  }

  private text(leaf: TextLeaf, spaced: boolean): void {
    if (leaf.blank) {
      if (this.seam || leaf.defer) {
        if (!this.seam) this.shift(leaf.marks);
        this.wait(this.waiting + leaf.text, this.waitingFrom ?? leaf);
        return;
      }
      if (leaf.text === '') return;
    }
    if (!this.seam) {
      this.before(leaf);
      if (!leaf.defer) return this.emit(leaf, this.dialect === 'html' ? leaf.html : leaf.text);
      this.emit(leaf, this.escape(leaf.lead) + (this.dialect === 'html' ? leaf.coreHtml : leaf.core));
      this.wait(leaf.trail, leaf);
      return;
    }
    const space = this.joint(this.waiting + leaf.lead, leaf.core.charAt(0), spaced);
    this.before(leaf, space);
    this.emit(
      leaf,
      (this.dialect === 'html' ? leaf.coreHtml : leaf.core) + (leaf.defer ? '' : this.escape(leaf.trail)),
    );
    if (leaf.defer) this.wait(leaf.trail, leaf);
  }

  /** What becomes of the white space on the two sides of a seam. */
  private joint(space: string, next: string, spaced: boolean): string {
    if (!this.emitted || space === '') return '';
    if (CLOSE_UP.has(next)) {
      if (!spaced || !SPACED.has(next)) return '';
      return /[\u00A0\u202F]/.exec(space)?.[0] ?? ' ';
    }
    return space.includes(' ') ? ' ' : space.charAt(0);
  }

  /** Everything due before words: breaks, waiting white space, changes of marks. */
  private before(leaf: Leaf, space: string = this.waiting): void {
    this.flushBreaks();
    if (space !== '') this.put(this.escape(space), this.waitingFrom ?? leaf);
    this.forget();
    this.shift(leaf.marks);
    this.emitted = true;
    this.anything = true;
  }

  /** Everything due before what is no fixed text: its first character joins like a letter. */
  private beforeWords(leaf: Leaf): void {
    this.before(leaf, this.seam ? this.joint(this.waiting, '', false) : undefined);
  }

  private flushBreaks(): void {
    for (; this.breaks > 0; this.breaks -= 1)
      this.emit(this.breakFrom, this.dialect === 'html' ? '<br>' : this.dialect === 'text' ? '\n' : ' ');
  }

  private put(text: string, from: Leaf | undefined): void {
    this.flushBreaks();
    this.emit(from, text);
  }

  private wait(space: string, from: Leaf): void {
    this.waiting = space;
    this.waitingFrom = from;
  }

  /** Nothing waits any more, and the seam is done with. */
  private forget(): void {
    this.waiting = '';
    this.waitingFrom = undefined;
    this.seam = false;
  }

  private emit(leaf: Leaf | undefined, text: string): void {
    if (this.collected.trace && leaf && text !== '') {
      const from = this.offset + this.out.length;
      const { trace } = this.collected;
      const last = trace.at(-1);
      const goesOn = last?.to === from && last.origin === leaf.origin;
      if (goesOn) trace.pop();
      trace.push({ from: goesOn ? last.from : from, to: from + text.length, origin: leaf.origin });
    }
    const of = this.own && text !== '' ? (leaf && this.own.has(leaf) ? leaf : this.writing) : undefined;
    this.out += of ? `<span ${PROOF_DATA.node}="${of.origin.path.at(-1)}">${text}</span>` : text;
  }

  private escape(text: string): string {
    return this.dialect === 'html' && text !== ' ' && text !== '' ? escapeFixed(text) : text;
  }

  private value(leaf: ValueLeaf): void {
    const value = this.frame.read(leaf.read);
    if (value === undefined) return this.missing(leaf);
    if (leaf.weekday !== undefined) this.compareWeekday(leaf, String(value));
    if (leaf.wordings) return this.wording(leaf, value, leaf.wordings);
    if (leaf.imageStyle !== undefined && this.dialect === 'html')
      return this.image(leaf, value as ImageValue, leaf.imageStyle);
    const text = leaf.format(value);
    if (text === '') return this.gap();
    this.words(leaf, text);
  }

  private words(leaf: ValueLeaf, words: string, blank?: string): void {
    this.beforeWords(leaf);
    const text = closeDirections(words);
    if (this.dialect === 'html') {
      const html = valueHtml(words, leaf.breaks);
      if (!this.collected.proof) return this.emit(leaf, html);
      this.out += `<span ${blank ? `class="${PROOF_CLASS.blank}" ${PROOF_DATA.blank}="${escapeHtml(blank)}"` : `class="${PROOF_CLASS.value}"`} ${PROOF_DATA.of}="${escapeHtml(leaf.origin.variable ?? '')}">`;
      this.emit(leaf, html);
      this.out += '</span>';
    } else if (this.dialect === 'url') {
      this.emit(leaf, this.out === '' ? text : encodeURIComponent(text).replace(/%40/g, '@'));
    } else {
      this.emit(leaf, this.dialect === 'text' && leaf.breaks ? text : inOneLine(text));
    }
  }

  private missing(leaf: ValueLeaf): void {
    const waiting = noteMissing(this.frame, leaf, this.collected);
    if (waiting) return this.words(leaf, `[${leaf.label}]`, waiting);
    if (leaf.fallback !== '') return this.words(leaf, leaf.fallback);
    this.gap();
  }

  private gap(): void {
    this.seam = true;
    this.leftOut = true;
    this.everLeftOut = true;
  }

  private wording(leaf: ValueLeaf, value: Value, wordings: ReadonlyMap<string, Line>): void {
    const one = (key: string): void => {
      const line = wordings.get(key);
      if (!line) return this.words(leaf, leaf.format(leaf.join ? [key] : key));
      this.splice(line, leaf.marks);
    };
    if (typeof value === 'string') return one(value);
    const keys = value as readonly string[];
    let next = 0;
    for (const piece of leaf.join?.formatToParts(keys) ?? []) {
      if (piece.type === 'element') one(keys[next++] as string);
      else this.words(leaf, piece.value);
    }
  }

  /** Writes another line's leaves here, under the marks of this place as well as their own. */
  private splice(line: Line, marks: readonly MarkPiece[]): void {
    if (marks.length === 0) return this.line(line);
    this.line({
      ...line,
      leaves: line.leaves.map((leaf) => ({
        ...leaf,
        marks: [...marks, ...leaf.marks.filter((mark) => !marks.includes(mark))],
      })),
    });
  }

  private other(leaf: Exclude<Leaf, TextLeaf | ValueLeaf>): void {
    switch (leaf.kind) {
      case 'break': {
        this.endSegment();
        const emptied = !this.emitted && this.leftOut;
        if (!emptied) {
          this.breaks += 1;
          this.breakFrom = leaf;
        }
        this.emitted = false;
        this.leftOut = false;
        return;
      }
      case 'image': {
        const alt = plainLine(leaf.alt, this.frame, this.collected);
        if (this.dialect === 'html') return this.image(leaf, { src: leaf.src, alt }, leaf.style, leaf.width);
        this.beforeWords(leaf);
        return this.emit(leaf, alt);
      }
      case 'splice':
        return this.spliced(leaf);
    }
  }

  private image(leaf: Leaf, { src, alt }: ImageValue, style: string, width?: number): void {
    this.beforeWords(leaf);
    const wide = width === undefined ? '' : ` width="${width}"`;
    this.emit(leaf, `<img src="${escapeHtml(src)}" alt="${escapeHtml(alt)}"${wide} style="${style}">`);
  }

  private spliced(leaf: SpliceLeaf): void {
    if (leaf.signature && !maySign(this.collected)) return this.gap();
    const html = leaf.lang !== undefined && this.dialect === 'html';
    if (html) this.beforeWords(leaf);
    if (html) this.out += `<span lang="${escapeHtml(leaf.lang ?? '')}">`;
    this.splice(leaf.line, leaf.marks);
    if (html) {
      this.shift(leaf.marks);
      this.out += '</span>';
    }
  }

  /** Closes and opens marks so that `marks` are in force. */
  private shift(marks: readonly MarkPiece[]): void {
    if (marks === this.marks || (marks.length === 0 && this.marks.length === 0)) return;
    let shared = 0;
    while (shared < marks.length && shared < this.marks.length && marks[shared] === this.marks[shared]) shared += 1;
    for (let index = this.marks.length - 1; index >= shared; index -= 1) this.closeMark(this.marks[index] as MarkPiece);
    for (let index = shared; index < marks.length; index += 1) this.openMark(marks[index] as MarkPiece);
    this.marks = marks;
  }

  private openMark(piece: MarkPiece): void {
    if (!piece.href) {
      if (this.dialect === 'html') this.out += piece.open;
      return;
    }
    const href = this.address(piece.href);
    if (this.dialect === 'html')
      this.out +=
        href === '' ? '<a>' : piece.open.startsWith('<') ? piece.open : `<a href="${escapeHtml(href)}"${piece.open}`;
    this.links.push({ at: this.out.length, href });
  }

  private closeMark(piece: MarkPiece): void {
    if (this.dialect === 'html') this.out += piece.close;
    if (!piece.href) return;
    const link = this.links.pop();
    if (this.dialect !== 'text' || !link || link.href === '') return;
    const words = this.out.slice(link.at);
    const bare = link.href.replace(/^mailto:|^tel:/, '');
    // Words that are the address need not say it twice.
    if (words !== link.href && words !== bare) this.out += ` (${bare})`;
  }

  /** What a link leads to, or nothing if that is no safe address. */
  address(line: Line): string {
    const blanks = this.collected.blanks.size;
    const writer = new LineWriter(this.frame, 'url', { ...this.collected, trace: undefined, proof: false });
    const href = writer.write(line) ?? '';
    if (this.collected.blanks.size > blanks || href === '') return '';
    if (safeUrl(href)) return href;
    this.collected.findings.push(error({ code: 'unsafe-link', why: 'filled', href }));
    return '';
  }

  private compareWeekday(leaf: ValueLeaf, day: string): void {
    const actual = new Date(`${day}T00:00:00Z`).getUTCDay();
    if (actual === leaf.weekday || Number.isNaN(actual)) return;
    const { text, path } = leaf.origin;
    const name = dayFormat(this.frame.program.locale, { weekday: 'long' }).format(Date.parse(`${day}T00:00:00Z`));
    this.collected.findings.push(
      advice(
        { code: 'weekday-mismatch', why: 'filled', label: leaf.label, right: name },
        text === this.frame.program.name ? { path } : { text, path },
      ),
    );
  }
}

/** A value's HTML without any of the bookkeeping of seams; undefined where it is missing, or its words are none. */
export function valueOf(leaf: ValueLeaf, frame: Frame): string | undefined {
  const given = leaf.asItIs ? frame.html(leaf.read) : undefined;
  if (given !== undefined) return given;
  const value = frame.read(leaf.read);
  const text = value === undefined ? '' : leaf.format(value);
  return text === '' ? undefined : valueHtml(text, leaf.breaks);
}

/** True for the first signature of a message; later ones are left out. */
export function maySign(collected: Collected): boolean {
  const first = !collected.signed;
  collected.signed = true;
  return first;
}

/** Notes the required values that a missing value is or waits for; the first key, if it is a blank. */
function noteMissing(frame: Frame, leaf: ValueLeaf, collected: Collected): string | undefined {
  if (leaf.read.from === 'slot' && leaf.read.slot.variable.value !== undefined)
    return addBlanks(frame.waitsFor(leaf.read.slot), collected);
  if (!leaf.required) return undefined;
  const key = leaf.read.from === 'column' ? leaf.read.list.key : leaf.read.key;
  collected.blanks.add(key);
  return key;
}

/** Notes the required values that only govern: what a condition asks and has not been told. */
export function noteCondition(frame: Frame, test: Test, collected: Collected): void {
  if (test.read.from !== 'slot') return;
  const { slot } = test.read;
  if (slot.variable.value !== undefined) addBlanks(frame.waitsFor(slot), collected);
  else if (slot.variable.required) collected.blanks.add(slot.key);
}

function addBlanks(slots: readonly Slot[], collected: Collected): string | undefined {
  for (const slot of slots) collected.blanks.add(slot.key);
  return slots[0]?.key;
}

/** A line without form, in one line: subjects, addresses, file names, alternative texts. */
export function plainLine(line: Line, frame: Frame, collected: Collected, trace?: Stretch[]): string {
  const short = line.plain && !trace ? plainWords(line, frame) : undefined;
  if (short !== undefined) return short;
  const writer = new LineWriter(frame, 'plain', { ...collected, trace });
  return writer.write(line) ?? '';
}

/** The words of a plain line; undefined where a value is missing. */
function plainWords({ leaves }: Line, frame: Frame): string | undefined {
  let out = '';
  for (const leaf of leaves as readonly (TextLeaf | ValueLeaf)[]) {
    const value = leaf.kind === 'text' ? undefined : frame.read(leaf.read);
    const words = leaf.kind === 'text' ? leaf.text : value === undefined ? '' : leaf.format(value);
    if (words === '') return undefined;
    out += leaf.kind === 'text' ? words : inOneLine(closeDirections(words));
  }
  return out;
}
