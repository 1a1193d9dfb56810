/** The proofing table: many messages of one template, each small enough to keep thousands of. */
import { writtenEnvelope } from '../../values/mailbox.js';
import { checkMessage } from '../../check/index.js';
import type { Program } from '../../compile/program.js';
import type { Finding } from '../../findings/finding.js';
import { render, renderFrame, type Message } from '../../render/render.js';
import type { NamedDocument } from '../../template/document.js';
import { valueType } from '../../values/index.js';
import type { Filling } from '../cover/inputs.js';
import { digestOf } from './digest.js';
import { KeptPassages, passagesOf, type PassageColumn } from './passages.js';

/** What is kept of a message. */
export interface Sheet {
  /** The same for two messages only if nobody could tell them apart. */
  readonly digest: string;
  readonly ready: boolean;
  readonly subject: string;
  /** Numbers of its lines in the table's book, the subject first; empty lines are left out. */
  readonly lines: readonly number[];
  readonly words: number;
  readonly blanks: readonly string[];
  readonly findings: readonly Finding[];
  /** 1 for each passage of the table that has words in the message. */
  readonly kept: Uint8Array;
  /** 1 for each passage whose condition holds, or may hold, whatever it has to say. */
  readonly held: Uint8Array;
  /** The words of each value of the table. */
  readonly values: readonly string[];
}

/** A column of the proof table that shows a value. */
export interface ValueColumn {
  readonly key: string;
  readonly label: string;
}

/** The moment that the messages of a proof table are rendered for. */
export interface TableOptions {
  /** ISO day. */
  readonly today: string;
  readonly zone?: string;
}

const WORD = /[\p{L}\p{N}]+/gu;

/** Lines that several messages share are kept once. */
export class LineBook {
  private readonly numbers = new Map<string, number>();
  private readonly words: string[] = [];
  private readonly counts: number[] = [];

  number(line: string): number {
    let number = this.numbers.get(line);
    if (number === undefined) {
      number = this.words.length;
      this.numbers.set(line, number);
      this.words.push(line);
      this.counts.push(line.match(WORD)?.length ?? 0);
    }
    return number;
  }
  line(number: number): string {
    return this.words[number] ?? '';
  }
  /** How many words a line has; counted once, however many messages have it. */
  wordsIn(number: number): number {
    return this.counts[number] ?? 0;
  }
  /** Lines from a number on: what a reader who knows those before it lacks. */
  since(number: number): readonly string[] {
    return this.words.slice(number);
  }
  get size(): number {
    return this.words.length;
  }
}

/** All messages of a sample set side by side: which passages each keeps, and its values. Rows are rendered when asked for. */
export class ProofTable {
  readonly passages: readonly PassageColumn[];
  readonly values: readonly ValueColumn[];
  private readonly kept: KeptPassages;
  private readonly formatters: readonly ((value: Parameters<ReturnType<typeof formatterOf>>[0]) => string)[];

  constructor(
    private readonly named: NamedDocument,
    readonly program: Program,
    private readonly options: TableOptions,
    readonly book: LineBook = new LineBook(),
  ) {
    this.passages = passagesOf(program);
    this.values = program.slots.map(({ key, label }) => ({ key, label }));
    this.kept = new KeptPassages(this.passages);
    this.formatters = program.slots.map(formatterOf);
  }

  /** Renders a filling with its trace. */
  message(filling: Filling): Message {
    return render(this.program, { ...filling, ...this.options }, { trace: true });
  }

  /** Renders and checks a filling, and keeps what the table shows of it. */
  sheet(filling: Filling): Sheet {
    return this.proof(filling).sheet;
  }

  /** The same, with the message itself. */
  proof(filling: Filling): { readonly message: Message; readonly sheet: Sheet } {
    const input = { ...filling, ...this.options };
    const { message, frame } = renderFrame(this.program, input, { trace: true });
    const lines = linesOf(message).map((line) => this.book.number(line));
    const sheet: Sheet = {
      digest: digestOfMessage(message),
      ready: message.ready,
      subject: message.subject,
      lines,
      words: lines.reduce((sum, line) => sum + this.book.wordsIn(line), 0),
      blanks: message.blanks,
      findings: [...message.findings, ...checkMessage(this.named, this.program, input, message)],
      kept: this.kept.of(message.trace, message.subjectTrace),
      held: Uint8Array.from(this.passages, ({ test }) => (!test || frame.holds(test) ? 1 : 0)),
      values: this.program.slots.map((slot, at) => {
        const { value } = frame.settle(slot);
        return value === undefined ? '' : (this.formatters[at]?.(value) ?? '');
      }),
    };
    return { message, sheet };
  }
}

type Slot = Program['slots'][number];
type Words = NonNullable<ReturnType<ReturnType<typeof valueType>['formatter']>>;
function formatterOf({ variable, locale }: Slot): Words {
  const view = { list: 'count', choice: 'label', choices: 'labels' }[variable.type as string] ?? '';
  return valueType(variable.type).formatter(variable, view, locale) ?? (() => '');
}

/** A message's lines as they are compared: the subject, then the plain text's, empty ones left out. */
export const linesOf = ({ subject, text }: Pick<Message, 'subject' | 'text'>): string[] => [
  subject,
  ...text.split('\n').filter((line) => line !== ''),
];

/** Everything of a message that a recipient gets; the plain text says nothing that is not in the rest. */
export function digestOfMessage(message: Message): string {
  const { fragment, subject, attachments } = message;
  const { to, cc, bcc, replyTo } = writtenEnvelope(message);
  return digestOf([subject, fragment, JSON.stringify([to, cc, bcc, replyTo, attachments])]);
}
