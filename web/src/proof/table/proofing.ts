/**
 * The work of the proofing table's worker: compiles the template, renders recipients, hard cases and every pairing in
 * steps, and answers what is asked meanwhile. After an edit only messages that the edit touches are rendered anew.
 */
import { checkProgram } from '@vocabula/core';
import { casesInWords, covering, reasonsOf } from '@vocabula/core/cover';
import {
  compareMessages,
  fillingOfRow,
  hardCases,
  LineBook,
  linesOf,
  needs,
  touches,
  type Filling,
  type SampleRow,
  type Sheet,
} from '@vocabula/core/proof';
import { lookOf } from '../../ui/look';
import { explanationOf, sentSheet, shownArrivals, shownMessage } from './messageAnswers';
import { proofedTemplate, type ProofedTemplate } from './proofedTemplate';
import type { CaseWords, PairingWords, ProofingReply, ProofingRequest, Series, TemplateParts, Which } from './protocol';

/** Recipients that are proofed before hard cases and pairings: enough to fill the first screen. */
const FIRST = 120;
/** Sheets that are sent together. */
const BATCH = 50;
/** Beyond this many lines that nothing shows any more, the book begins anew. */
const MOST_LINES = 400_000;

/** A series as it is: fillings, and what came of those that were rendered. */
interface Column {
  fillings: readonly Filling[];
  sheets: (Sheet | undefined)[];
}

export class Proofing {
  private template: ProofedTemplate | undefined;
  private rows: readonly SampleRow[] = [];
  private strength: 2 | 3 = 2;
  private readonly others = new Map<string, ProofedTemplate>();
  private readonly columns: Record<Series, Column> = {
    recipients: { fillings: [], sheets: [] },
    hard: { fillings: [], sheets: [] },
    pairing: { fillings: [], sheets: [] },
  };
  private book = new LineBook();
  private linesSent = 0;
  private fresh = 0;

  constructor(private readonly post: (reply: ProofingReply) => void) {}

  /** Takes a request. Gives work to be gone through from here on, if there is any; what was begun before is then void. */
  handle(request: ProofingRequest): Generator<void> | undefined {
    switch (request.what) {
      case 'template':
        if (request.rows) this.take(request.rows);
        this.open(request.parts);
        return this.work();
      case 'recipients':
        this.take(request.rows);
        this.tell();
        return this.work();
      case 'strength':
        this.strength = request.strength;
        this.columns.pairing = { fillings: [], sheets: [] };
        return this.work();
      case 'other': {
        const { template } = this;
        if (template)
          this.others.set(
            request.name,
            proofedTemplate({ ...template.parts, text: request, library: request.library }, this.book),
          );
        return undefined;
      }
      case 'message':
        this.post({ what: 'message', id: request.id, message: this.about(request, shownMessage) });
        return undefined;
      case 'explain':
        this.post({
          what: 'explain',
          id: request.id,
          explanation: this.about(request, (of, filling) => explanationOf(of, filling, request.part, request.stretch)),
        });
        return undefined;
      case 'compare':
        this.post({ what: 'compare', id: request.id, paragraphs: this.compared(request.left, request.right) });
        return undefined;
      case 'arrivals':
        this.post({
          what: 'arrivals',
          id: request.id,
          shown: this.about(request, (of, filling) => shownArrivals(of, filling, request.families)),
        });
        return undefined;
      case 'fillings':
        this.post({ what: 'fillings', id: request.id, fillings: request.of.map((which) => this.filling(which)) });
        return undefined;
      default:
        return undefined;
    }
  }

  private take(rows: readonly SampleRow[]): void {
    this.rows = rows;
    this.columns.recipients = { fillings: [], sheets: [] };
  }

  private open(parts: TemplateParts): void {
    const before = this.template;
    if (this.book.size > MOST_LINES || (before && before.parts.text.name !== parts.text.name)) {
      this.book = new LineBook();
      this.linesSent = 0;
      this.others.clear();
      for (const column of Object.values(this.columns)) column.sheets = [];
    }
    const after = proofedTemplate(parts, this.book);
    this.template = after;
    this.spare(before, after);
    this.tell();
  }

  /** Says what the template is; among its findings are those that name its sample recipients. */
  private tell(): void {
    if (!this.template) return;
    const { parts, program, table } = this.template;
    this.post({
      what: 'template',
      passages: table.passages.map(({ tag, label }) => ({ tag, label })),
      values: table.values,
      findings: checkProgram(parts.text, program, this.rows.slice(0, 500), parts.today),
      needs: needs(program).map(({ column, label, type, required, as }) => ({ column, label, type, required, as })),
      look: lookOf(program),
    });
  }

  /** Keeps the sheets that an edit does not touch, where nothing but the text has changed. */
  private spare(before: ProofedTemplate | undefined, after: ProofedTemplate): void {
    const rest = ({ text: _text, ...others }: TemplateParts): string => JSON.stringify(others);
    const same = before && before.parts.text.name === after.parts.text.name && rest(before.parts) === rest(after.parts);
    const touched = same
      ? touches(
          { document: before.parts.text.document, program: before.program },
          { document: after.parts.text.document, program: after.program },
        )
      : () => true;
    for (const column of Object.values(this.columns))
      column.sheets = column.sheets.map((sheet) => (sheet && !touched(sheet.held) ? sheet : undefined));
  }

  /** All there is to do, in steps; between two of them anything may be asked. */
  private *work(): Generator<void> {
    const { template } = this;
    if (!template) return;
    this.fresh = 0;
    const { program, parts } = template;
    const sender = parts.sender;
    const rows = this.rows.map((row) => fillingOfRow(program, row, sender));
    yield* this.prove('recipients', rows, 'Recipients', 0, FIRST);
    const [usual = {}] = this.rows;
    const hard = hardCases(program, { today: parts.today, sender, usual });
    this.post({
      what: 'cases',
      series: 'hard',
      cases: hard.map(({ key, label, provokes }) => ({ key, label, detail: `for ${provokes}`, levels: [] })),
    });
    yield* this.prove(
      'hard',
      hard.map(({ filling }) => filling),
      'Hard cases',
    );
    yield* this.pair(usual);
    yield* this.prove('recipients', rows, 'Recipients', FIRST);
    this.progress('', 0, 0, true);
  }

  private *pair(usual: SampleRow): Generator<void> {
    const { program, parts } = this.template as ProofedTemplate;
    const work = covering(program, { today: parts.today, strength: this.strength, usual, sender: parts.sender });
    let step = work.next();
    for (let at = 0; !step.done; at += 1) {
      if (at % 8 === 0)
        this.progress('Computing every pairing', step.value.covered, step.value.covered + step.value.open);
      yield;
      step = work.next();
    }
    const covered = step.value;
    const pairing: PairingWords = {
      strength: this.strength,
      covered: covered.covered,
      impossible: reasonsOf(covered),
      notFound: covered.notFound.length,
    };
    const cases = casesInWords(covered).map(({ key, title, news, levels }): CaseWords => ({
      key,
      label: title,
      detail: news,
      levels,
    }));
    this.post({ what: 'cases', series: 'pairing', cases, pairing });
    yield* this.prove(
      'pairing',
      covered.cases.map(({ recipient, sender, answers }) => ({ recipient, sender, answers })),
      'Every pairing',
    );
  }

  private *prove(
    series: Series,
    fillings: readonly Filling[],
    doing: string,
    from = 0,
    to = fillings.length,
  ): Generator<void> {
    const { table } = this.template as ProofedTemplate;
    const column = this.columns[series];
    const same = (at: number): boolean => JSON.stringify(column.fillings[at]) === JSON.stringify(fillings[at]);
    const sheets = column.sheets;
    if (from === 0) {
      // What was proofed for another filling counts for nothing.
      if (column.fillings !== fillings)
        column.sheets = fillings.map((_, at) => (sheets[at] && same(at) ? sheets[at] : undefined));
      column.fillings = fillings;
    }
    const end = Math.min(to, fillings.length);
    let batch: Sheet[] = [];
    let begin = from;
    for (let at = from; at < end; at += 1) {
      const kept = column.sheets[at];
      const sheet = kept ?? table.sheet(fillings[at] as Filling);
      if (!kept) {
        column.sheets[at] = sheet;
        this.fresh += 1;
      }
      batch.push(sheet);
      if (batch.length === BATCH || at === end - 1) {
        this.send(series, begin, batch);
        begin = at + 1;
        batch = [];
        this.progress(doing, at + 1, fillings.length);
      }
      if (!kept) yield;
    }
  }

  private send(series: Series, from: number, sheets: readonly Sheet[]): void {
    const lines = this.book.since(this.linesSent);
    this.post({ what: 'sheets', series, from, sheets: sheets.map(sentSheet), lines, linesFrom: this.linesSent });
    this.linesSent += lines.length;
  }

  private progress(doing: string, done: number, total: number, over = false): void {
    this.post({ what: 'progress', doing, done, total, fresh: this.fresh, over });
  }

  private templateOf({ other }: Which): ProofedTemplate | undefined {
    return other === undefined ? this.template : this.others.get(other);
  }
  private filling({ series, at, other }: Which): Filling | undefined {
    if (series !== 'recipients') return this.columns[series].fillings[at];
    // Another text has other variables: the row answers those.
    const template = this.templateOf({ series, at, ...(other === undefined ? {} : { other }) });
    const row = this.rows[at] ?? (this.rows.length === 0 && at === 0 ? {} : undefined);
    return template && row && fillingOfRow(template.program, row, template.parts.sender);
  }

  /** Calls `make` for a message, if its template and recipient exist. */
  private about<T>(
    { which }: { readonly which: Which },
    make: (of: ProofedTemplate, filling: Filling) => T,
  ): T | undefined {
    const template = this.templateOf(which);
    const filling = this.filling(which);
    return template && filling && make(template, filling);
  }

  private compared(left: Which, right: Which): ReturnType<typeof compareMessages> {
    const lines = (which: Which): string[] => {
      const template = this.templateOf(which);
      const filling = this.filling(which);
      return template && filling ? linesOf(template.table.message(filling)) : [];
    };
    return compareMessages(lines(left), lines(right), this.template?.program.locale);
  }
}
