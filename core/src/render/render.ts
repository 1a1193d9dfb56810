/** Renders a compiled template for one recipient (engine notes, section 6). */
import { escapeHtml } from '../words/escape.js';
import type { Line, Program, Slot } from '../compile/program.js';
import { distinct, error, hasErrors, type Finding } from '../findings/finding.js';
import { isEmail } from '../values/address.js';
import { mailboxOfLine, writtenMailbox, type Mailbox } from '../values/mailbox.js';
import type { Value } from '../values/index.js';
import { Frame, type RenderInput } from './frame.js';
import { direction } from '../values/intl.js';
import { HtmlWriter } from './html.js';
import { darkRules, frameTags, htmlStyles, widthOf } from './styles.js';
import { invitationOf, type Invitation } from './invitation.js';
import { quickHtml, quickTitle } from './quick-html.js';
import { TextWriter } from './text.js';
import { plainLine, type Collected, type Stretch } from './writer.js';

export type { Fields, Offered, RenderInput } from './frame.js';
export type { Invitation } from './invitation.js';
export type { Stretch } from './writer.js';

/** Who a message goes to, and its subject. */
export interface Envelope {
  readonly subject: string;
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly bcc: readonly Mailbox[];
  readonly replyTo: readonly Mailbox[];
  readonly attachments: readonly { readonly file: string; readonly name: string }[];
}

/** A rendered message. */
export interface Message extends Envelope {
  /** True if nothing is blank and nothing is wrong. */
  readonly ready: boolean;
  /** A whole document. */
  readonly html: string;
  /** How wide it is at most, in pixels. */
  readonly width: number;
  /** The body's own HTML, for a clipboard or a frame. */
  readonly fragment: string;
  readonly text: string;
  /** Keys of required values that are missing, in the order in which a reader meets them. */
  readonly blanks: readonly string[];
  /** What this message's values brought about; the template's own findings are the program's. */
  readonly findings: readonly Finding[];
  /** Of invitations: when and where; none while it cannot be told. */
  readonly invitation?: Invitation;
  /** Where every stretch of `fragment` that is words comes from, if asked for. */
  readonly trace?: readonly Stretch[];
  /** The same of `subject`. */
  readonly subjectTrace?: readonly Stretch[];
}

/** What is wanted of a rendering beside the message. */
export interface RenderOptions {
  readonly trace?: boolean;
  /** Marks placeholders, blanks and what was left out in the HTML. For proofs only. */
  readonly proof?: boolean;
  /** With `proof`: also says where each line and each of its runs comes from, for lines that are edited in the page. */
  readonly editing?: boolean;
  /** Leaves signatures out, for a mail program that adds its own. */
  readonly unsigned?: boolean;
}

function collecting(options: RenderOptions): Collected {
  return {
    findings: [],
    blanks: new Set(),
    trace: options.trace ? [] : undefined,
    proof: options.proof ?? false,
    editing: options.editing ?? false,
    signed: options.unsigned ?? false,
  };
}

/** Renders everything: envelope, HTML, text, blanks and findings. */
export const render = (program: Program, input: RenderInput, options: RenderOptions = {}): Message =>
  renderFrame(program, input, options).message;

/** Renders everything, and gives the values that it was made from. */
export function renderFrame(
  program: Program,
  input: RenderInput,
  options: RenderOptions = {},
): { readonly message: Message; readonly frame: Frame } {
  const collected = collecting(options);
  const frame = new Frame(program, input, collected.findings);
  const subjectTrace: Stretch[] | undefined = options.trace ? [] : undefined;
  const subject = plainLine(program.subject, frame, collected, subjectTrace);
  const fragment = fragmentOf(program, frame, collected);
  // The same findings and blanks come of the text; only its words are wanted.
  const quiet = collecting({ unsigned: options.unsigned ?? false });
  const text = `${new TextWriter(frame, quiet).blocks(program.body).join('\n\n')}\n`;
  const addresses = (lines: readonly Line[]): Mailbox[] =>
    lines
      .map((line) => plainLine(line, frame, collected).trim())
      .filter((address) => address !== '')
      .map(mailboxOfLine);
  const envelope: Envelope = {
    subject: subject.trim(),
    to: addresses(program.to),
    cc: addresses(program.cc),
    bcc: addresses(program.bcc),
    replyTo: addresses(program.replyTo),
    attachments: program.attachments.map(({ file, name }) => ({
      file,
      name: plainLine(name, frame, collected).replace(/[/\\]/g, '-') || (file.split('/').at(-1) ?? file),
    })),
  };
  const invitation = invitationOf(program, frame, collected);
  if (frame.budget.isExceeded) collected.findings.push(error({ code: 'too-costly' }));
  if (collected.blanks.size === 0) checkAddresses(envelope, collected.findings);
  const findings = collected.findings.length > 0 ? distinct(collected.findings) : collected.findings;
  const message: Message = {
    ready: collected.blanks.size === 0 && !hasErrors(findings),
    ...envelope,
    html: page(program, escapeHtml(envelope.subject), fragment),
    width: widthOf(program.house.style),
    fragment,
    text: text === '\n' ? '' : text,
    blanks: [...collected.blanks],
    findings,
    ...(invitation ? { invitation } : {}),
    ...(collected.trace ? { trace: collected.trace } : {}),
    ...(subjectTrace ? { subjectTrace: shifted(subjectTrace, subject) } : {}),
  };
  return { message, frame };
}

/** The stretches of a line when the white space at its ends is gone. */
function shifted(trace: readonly Stretch[], line: string): readonly Stretch[] {
  const lead = line.length - line.trimStart().length;
  const { length } = line.trim();
  return trace.flatMap(({ from, to, origin }) => {
    const [start, end] = [Math.max(0, from - lead), Math.min(length, to - lead)];
    return start < end ? [{ from: start, to: end, origin }] : [];
  });
}

/** Renders the HTML document alone, for callers that need nothing else. */
export function renderHtml(program: Program, input: RenderInput): string {
  const collected = collecting({});
  const frame = new Frame(program, input, collected.findings, true);
  const title = quickTitle(frame) ?? escapeHtml(plainLine(program.subject, frame, collected).trim());
  return page(program, title, fragmentOf(program, frame, collected));
}

function fragmentOf(program: Program, frame: Frame, collected: Collected): string {
  if (!collected.proof && !collected.trace) return quickHtml(frame, collected);
  const writer = new HtmlWriter(frame, collected);
  writer.blocks(program.body);
  return writer.out;
}

interface Page {
  readonly beforeTitle: string;
  readonly beforeBody: string;
  readonly afterBody: string;
}
const pages = new WeakMap<Program, Page>();

/** The whole document around a body; what does not vary is made once for each program. */
function page(program: Program, title: string, fragment: string): string {
  let made = pages.get(program);
  if (!made) {
    const locale = escapeHtml(program.locale);
    const [open, close] = frameTags(program.house.style);
    made = {
      beforeTitle: `<!doctype html><html lang="${locale}" dir="${direction(program.locale)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta name="color-scheme" content="light dark"><style>@media (prefers-color-scheme:dark){${darkRules(program.house.style, program.colours)}}</style><title>`,
      beforeBody: `</title></head><body style="${htmlStyles(program.house.style).body}">${open}`,
      afterBody: `${close}</body></html>`,
    };
    pages.set(program, made);
  }
  return `${made.beforeTitle}${title}${made.beforeBody}${fragment}${made.afterBody}`;
}

function checkAddresses(envelope: Envelope, findings: Finding[]): void {
  for (const [name, addresses] of Object.entries({
    to: envelope.to,
    cc: envelope.cc,
    bcc: envelope.bcc,
    reply_to: envelope.replyTo,
  })) {
    for (const mailbox of addresses)
      if (!isEmail(mailbox.address))
        findings.push(error({ code: 'bad-address', address: writtenMailbox(mailbox) }, { attribute: name }));
  }
}

/** The value of every variable of the whole message, for lists of them. */
export function valuesOf(
  program: Program,
  input: RenderInput,
): { readonly slot: Slot; readonly value: Value | undefined }[] {
  const frame = new Frame(program, input, []);
  return program.slots.map((slot) => ({ slot, value: frame.settle(slot).value }));
}
