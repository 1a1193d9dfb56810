/** Builds inline content from a stream of text, form and tags, keeping opening and closing tags siblings. */
import { conditionName, type Condition } from '../../template/condition.js';
import type { Inline, Mark } from '../../template/document.js';
import type { Tag } from './tags.js';
import { error, type Finding } from '../../findings/finding.js';

/** What reading one file shares: its findings, and how repeats get their numbers. */
export class Reading {
  readonly findings: Finding[] = [];
  private runs = 0;

  constructor(private readonly lists: ReadonlySet<string>) {}

  /** A repeat gets a number that tells it from its neighbours. */
  numbered(opened: Condition): Condition {
    return this.lists.has(opened.of) && !opened.not ? { ...opened, run: (this.runs += 1) } : opened;
  }

  /** Reports a tag that cannot be read; false for tags that can. */
  reports(tag: Tag, line: number | undefined): boolean {
    if (tag.kind !== 'wrong') return false;
    this.findings.push(error(tag.data, place(line)));
    return true;
  }

  unclosed(name: string, line: number | undefined): void {
    const found = error({ code: 'unclosed-passage', name }, place(line));
    if (!this.findings.some(({ message }) => message === found.message)) this.findings.push(found);
  }
}

/** The place of a finding on a line of the file. */
export const place = (line: number | undefined): { line?: number } => (line === undefined ? {} : { line });

/** `end` is the name of the HTML tag that closes it; marks of Markdown have none. */
type Open = { readonly mark: Mark; readonly line: number | undefined; readonly end?: string };

/** Builds the inline nodes of a line from left to right, with the marks and phrases that are open. */
export class InlineBuilder {
  readonly nodes: Inline[] = [];
  private readonly open: Open[] = [];

  constructor(private readonly reading: Reading) {}

  text(text: string, extra: readonly Mark[] = []): void {
    if (text !== '') this.push({ type: 'text', text }, extra);
  }

  push(node: Inline, extra: readonly Mark[] = []): void {
    const marks = [...this.open.map(({ mark }) => mark), ...extra];
    this.nodes.push(marks.length > 0 ? { ...node, marks } : node);
  }

  openMark(mark: Mark, line?: number, end?: string): void {
    this.open.push({ mark, line, ...(end === undefined ? {} : { end }) });
  }

  /** Closes the innermost mark that an HTML tag of that name opened; false where there is none. */
  closeTag(name: string): boolean {
    if (!this.open.some(({ end }) => end === name)) return false;
    for (let last = this.open.pop(); last && last.end !== name; last = this.open.pop())
      if (last.mark.type === 'phrase') this.reading.unclosed(conditionName(last.mark.attrs), last.line);
    return true;
  }

  /** Closes the innermost mark of a type; passages left open inside it are not siblings of their end. */
  closeMark(type: Mark['type']): void {
    while (this.open.length > 0) {
      const { mark, line } = this.open.pop() as Open;
      if (mark.type === type) return;
      if (mark.type === 'phrase') this.reading.unclosed(conditionName(mark.attrs), line);
    }
  }

  /** Takes a tag; `source` is its text, kept where it cannot be read. */
  tag(tag: Tag, source: string, line: number | undefined): void {
    if (this.reading.reports(tag, line)) return this.text(source);
    switch (tag.kind) {
      case 'placeholder':
        return this.push({ type: 'placeholder', attrs: { name: tag.name, view: tag.view } });
      case 'inclusion':
        return this.push({ type: 'inlineInclusion', attrs: { name: tag.name } });
      case 'comment':
        return this.push({ type: 'inlineComment', attrs: { text: tag.text } });
      case 'open':
        return this.openMark({ type: 'phrase', attrs: this.reading.numbered(tag.condition) }, line);
      case 'close': {
        const last = this.open.at(-1)?.mark;
        if (last?.type === 'phrase' && conditionName(last.attrs) === tag.name) this.open.pop();
        else this.reading.unclosed(tag.name, line);
      }
    }
  }

  /** Ends the container: what is still open was never closed. */
  finish(): Inline[] {
    for (const { mark, line } of this.open)
      if (mark.type === 'phrase') this.reading.unclosed(conditionName(mark.attrs), line);
    return this.nodes;
  }
}
