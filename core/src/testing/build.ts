/** Short ways to make templates for tests. */
import { compile, type CompileOptions } from '../compile/compile.js';
import { readText } from '../formats/markdown/index.js';
import { render, type Message, type RenderOptions } from '../render/render.js';
import type { Program } from '../compile/program.js';
import type { TextDocument } from '../template/document.js';

/** A text as tests write it: its body, with variables and front matter where they matter. */
export interface Source {
  readonly body: string;
  readonly variables?: string;
  readonly front?: string;
}

/** A file of the format. `variables` are lines of YAML without their indent. */
export function source({ body, variables = '', front = 'kind: message\nsubject: S' }: Source): string {
  const declared = variables
    ? `variables:\n${variables
        .split('\n')
        .map((line) => `  ${line}`)
        .join('\n')}\n`
    : '';
  return `---\nvocabula: 1\ntitle: T\n${front}\n${declared}---\n${body}\n`;
}

/** The document of a source. */
export const documentOf = (text: Source | string): TextDocument =>
  readText(typeof text === 'string' ? text : source(text)).document;

/** Compiles a template with blocks by name. */
export function program(
  text: Source,
  blocks: Readonly<Record<string, Source>> = {},
  options: Partial<CompileOptions> = {},
): Program {
  const library = {
    get: (name: string) => (blocks[name] ? documentOf({ front: 'kind: block', ...blocks[name] }) : undefined),
  };
  return compile({ name: 'main', document: documentOf(text) }, { library, ...options });
}

/** Renders in one go. */
export function rendered(
  text: Source,
  answers: Record<string, unknown> = {},
  blocks: Readonly<Record<string, Source>> = {},
  options: RenderOptions & { recipient?: Record<string, unknown> } = {},
): Message {
  return render(program(text, blocks), { answers, today: '2026-11-24', recipient: options.recipient ?? {} }, options);
}

/** The plain text without its last newline. */
export const textOf = (
  text: Source,
  answers: Record<string, unknown> = {},
  blocks: Readonly<Record<string, Source>> = {},
): string => rendered(text, answers, blocks).text.replace(/\n$/, '');
/** The codes of what compiling finds in a source. @param blocks what it may include, by name */
export const codesOf = (text: Source, blocks: Readonly<Record<string, Source>> = {}): string[] =>
  program(text, blocks).findings.map((finding) => finding.code);
