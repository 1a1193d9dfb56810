/** Reads a file of the template language: front matter, then a body. */
import { isMap, isScalar, isSeq, type Node as YamlNode, type YAMLMap } from 'yaml';
import { error, type Finding, type Place } from '../../findings/finding.js';
import {
  ADDRESS_PARTS,
  KINDS,
  LINE_PARTS,
  PARTS,
  type Attachment,
  type Front,
  type Inline,
  type Part,
  type TextDocument,
} from '../../template/document.js';
import { visit } from '../../template/walk.js';
import { isName } from '../../template/keys.js';
import { LINE, normalise } from '../../template/normalise.js';
import type { Variable } from '../../template/variable.js';
import { FRONT_SCALARS, FRONT_TAIL } from './front-attributes.js';
import { Reading } from './inline.js';
import { readLine } from './line.js';
import { readBody } from './read-body.js';
import { FrontReader } from './read-front.js';
import { readVariable } from './read-variable.js';
import { readSteps } from './steps.js';
import { ON_ANSWER, type Step } from '../../template/steps.js';

/** Where things stood in the file that was read. */
export interface SourceMap {
  /** The line of the node at a path, or of the nearest node around it. */
  lineOf(path: readonly number[]): number | undefined;
  /** The line of a variable's attribute, or of the variable. */
  lineOfVariable(key: string, attribute?: string): number | undefined;
}

/** A text as it was read from a file, with findings and where each node stood in the file. */
export interface ReadText {
  readonly document: TextDocument;
  readonly findings: readonly Finding[];
  readonly map: SourceMap;
}

/** The values of attributes that have a few. */
const ALLOWED = { kind: KINDS, purpose: ['new', 'reply', 'invitation'], on_answer: ON_ANSWER } as const;

const MAX_BYTES = 2_000_000;
const CONTAINER = /^(?:\uFEFF)?---[ \t]*\n([\s\S]*?)(?:^|\n)---[ \t]*(?:\n|$)/;

/**
 * Reads a file. Always gives a document: what could be read. Whether it may be trusted is for the
 * findings to say; a file with an error among them must not be rewritten or imported.
 */
export function readText(source: string): ReadText {
  const text = source.replace(/\r\n?/g, '\n');
  const front = CONTAINER.exec(text);
  const unreadable =
    source.length > MAX_BYTES ? 'too-large' : text.includes('\0') ? 'nul-byte' : !front ? 'no-front' : undefined;
  if (unreadable || !front) {
    const reading = new Reading(new Set());
    const body = front || source.length > MAX_BYTES ? [] : readBody(text.replace(/\0/g, ''), reading);
    const document = assemble(
      { kind: 'message', title: '' },
      [],
      new Map(),
      body.length > 0 ? body : [{ type: 'paragraph' }],
    );
    return {
      ...withLines(document, new Map(), new Map()),
      findings: [
        error({ code: 'bad-file', why: unreadable ?? 'no-front' }, { line: lineOf(text, '\0') }),
        ...reading.findings,
      ],
    };
  }
  return readParts(front[1] ?? '', text.slice(front[0].length), front[0].split('\n').length - 1);
}

/** The line, from 1, in which something first stands; the first one if it stands nowhere. */
const lineOf = (text: string, what: string): number =>
  text.slice(0, Math.max(0, text.indexOf(what))).split('\n').length;

function readParts(yaml: string, body: string, bodyOffset: number): ReadText {
  // Repeats are numbered while reading, so the lists must be known before the first tag.
  const first = new Reading(new Set());
  const yamlReader = new FrontReader(yaml, first, 1);
  const variables = new VariablesReader(yamlReader, first).read();
  const reading = new Reading(
    new Set(variables.list.filter((variable) => variable.type === 'list').map((variable) => variable.key)),
  );
  const { front, parts, lines, steps } = new TopReader(yamlReader, reading).read();
  const blocks = readBody(body, reading, bodyOffset);
  lines.set('body', bodyOffset + 1);
  const remarks = { ...variables.remarks, ...front.remarks };
  const { remarks: _none, ...rest } = front;
  const document = assemble(
    { ...rest, ...(Object.keys(remarks).length > 0 ? { remarks } : {}) },
    variables.list,
    parts,
    blocks,
    steps,
  );
  return { ...withLines(document, lines, variables.lines), findings: [...first.findings, ...reading.findings] };
}

/** Takes the lines off the normal form of a document. */
function withLines(
  raw: TextDocument,
  parts: ReadonlyMap<string, number>,
  variables: ReadonlyMap<string, number>,
): { document: TextDocument; map: SourceMap } {
  const normal = normalise(raw);
  const lines = new Map<string, number>();
  visit(normal, (node, path) => {
    const line =
      (node as { [LINE]?: number })[LINE] ??
      (path.length === 1 ? parts.get(PARTS[path[0] as number] as string) : undefined);
    if (line !== undefined) lines.set(path.join('.'), line);
  });
  return {
    document: JSON.parse(JSON.stringify(normal)) as TextDocument,
    map: {
      lineOf(path) {
        for (let length = path.length; length > 0; length -= 1) {
          const line = lines.get(path.slice(0, length).join('.'));
          if (line !== undefined) return line;
        }
        return undefined;
      },
      lineOfVariable: (key, attribute = '') =>
        variables.get(`${key}.${attribute}`) ??
        variables.get(`${key}.${attribute.split('.')[0]}`) ??
        variables.get(`${key}.`),
    },
  };
}

function assemble(
  front: Front,
  variables: readonly Variable[],
  parts: ReadonlyMap<string, Part>,
  blocks: Extract<Part, { type: 'body' }>['content'],
  steps: readonly Step[] = [],
): TextDocument {
  const content = PARTS.map((name): Part => {
    if (name === 'body') return { type: 'body', content: blocks };
    const given = parts.get(name);
    if (given) return given;
    if (name === 'attachments') return { type: 'attachments' };
    return (ADDRESS_PARTS as readonly string[]).includes(name)
      ? ({ type: name, content: [{ type: 'address' }] } as Part)
      : ({ type: name } as Part);
  });
  return { type: 'template', attrs: { front, variables, ...(steps.length > 0 ? { steps } : {}) }, content };
}

class VariablesReader {
  constructor(
    private readonly front: FrontReader,
    private readonly reading: Reading,
  ) {}

  read(): { list: Variable[]; lines: Map<string, number>; remarks: Record<string, string> } {
    const list: Variable[] = [];
    const lines = new Map<string, number>();
    const remarks: Record<string, string> = {};
    const node = this.front.root?.get('variables', true) as YamlNode | undefined;
    if (node === undefined || (isScalar(node) && node.value === '')) return { list, lines, remarks };
    if (!isMap(node)) {
      this.reading.findings.push(
        error({ code: 'bad-file', why: 'no-entries', name: 'variables', example: '“first_name: { type: text }”' }),
      );
      return { list, lines, remarks };
    }
    for (const [key, value, line] of this.front.entries(node, 'variable')) {
      const read = readVariable(this.front, this.reading, key, value, line);
      if (!read) continue;
      list.push(read.variable);
      for (const [attribute, at] of read.lines) lines.set(`${key}.${attribute}`, at);
      const remark = this.front.remark(node as YAMLMap, key);
      if (remark) remarks[`variables.${key}`] = remark;
    }
    return { list, lines, remarks };
  }
}

class TopReader {
  private readonly parts = new Map<string, Part>();
  private readonly lines = new Map<string, number>();
  private readonly remarks: Record<string, string> = {};

  constructor(
    private readonly yaml: FrontReader,
    private readonly reading: Reading,
  ) {}

  read(): { front: Front; parts: Map<string, Part>; lines: Map<string, number>; steps: Step[] } {
    const front: Record<string, unknown> = { kind: 'message', title: '' };
    const { root } = this.yaml;
    let version: string | undefined;
    let steps: Step[] = [];
    for (const [name, node, line] of root ? this.yaml.entries(root) : []) {
      this.lines.set(name, line);
      const remark = this.yaml.remark(root as YAMLMap, name);
      if (remark && name !== 'variables') this.remarks[name] = remark;
      if (name === 'variables') continue;
      else if (name === 'vocabula') version = this.yaml.text(node, line, name);
      else if (name === 'steps') steps = readSteps(this.yaml, this.reading, node, line);
      else if (name === 'kind' || name === 'purpose' || name === 'on_answer') this.oneOf(front, name, node, line);
      else if (name === 'fixed') front.fixed = this.texts(node, line, name);
      else if (([...FRONT_SCALARS, ...FRONT_TAIL] as string[]).includes(name)) {
        const text = this.yaml.text(node, line, name);
        if (text !== undefined && (text !== '' || name === 'title')) front[name] = text;
      } else if (!this.envelope(name, node, line)) {
        this.reading.findings.push(error({ code: 'unknown-attribute', why: 'front', name }, { line, attribute: name }));
      }
    }
    if (steps.length > 0 && front.kind !== 'series')
      this.reading.findings.push(error({ code: 'bad-step', why: 'elsewhere' }, { line: this.lines.get('steps') ?? 1 }));
    this.judge(front, version);
    if (Object.keys(this.remarks).length > 0) front.remarks = this.remarks;
    return { front: front as unknown as Front, parts: this.parts, lines: this.lines, steps };
  }

  private judge(front: Record<string, unknown>, version: string | undefined): void {
    const at = (name: string): Place => ({ line: this.lines.get(name) ?? 1, attribute: name });
    if (version !== '1')
      this.reading.findings.push(
        error(
          version === undefined
            ? { code: 'bad-file', why: 'no-version', where: 'front matter' }
            : { code: 'bad-file', why: 'other-version', version },
          at('vocabula'),
        ),
      );
    if (front.title === '') this.reading.findings.push(error({ code: 'bad-file', why: 'no-title' }, at('title')));
    if (typeof front.signature === 'string' && !isName(front.signature))
      this.reading.findings.push(
        error({ code: 'unknown-block', why: 'no-signature-name', name: front.signature }, at('signature')),
      );
  }

  private oneOf(front: Record<string, unknown>, name: keyof typeof ALLOWED, node: YamlNode | null, line: number): void {
    const allowed: readonly string[] = ALLOWED[name];
    const text = this.yaml.text(node, line, name);
    if (text !== undefined && allowed.includes(text)) front[name] = text;
    else
      this.reading.findings.push(
        error({ code: 'bad-value', why: 'not-one-of', name, allowed }, { line, attribute: name }),
      );
  }

  private texts(node: YamlNode | null, line: number, name: string): string[] {
    if (isSeq(node)) return node.items.flatMap((item) => this.yaml.text(item as YamlNode, line, name) ?? []);
    const text = this.yaml.text(node, line, name);
    return text === undefined ? [] : [text];
  }

  private envelope(name: string, node: YamlNode | null, line: number): boolean {
    const inline = (text: string): { content?: Inline[] } => {
      const content = readLine(text.replace(/\n/g, ' '), this.reading, line);
      return content.length > 0 ? { content } : {};
    };
    if ((ADDRESS_PARTS as readonly string[]).includes(name)) {
      const addresses = this.texts(node, line, name).map((text) => ({ type: 'address' as const, ...inline(text) }));
      this.parts.set(name, { type: name, content: addresses.length > 0 ? addresses : [{ type: 'address' }] } as Part);
      return true;
    }
    if ((LINE_PARTS as readonly string[]).includes(name)) {
      this.parts.set(name, { type: name, ...inline(this.yaml.text(node, line, name) ?? '') } as Part);
      return true;
    }
    if (name !== 'attachments') return false;
    const items = isSeq(node) ? (node.items as YamlNode[]) : [];
    if (!isSeq(node))
      this.reading.findings.push(
        error({ code: 'bad-file', why: 'not-list', name, example: '{ file, name }' }, { line, attribute: name }),
      );
    const content = items.flatMap((item): Attachment[] => {
      const entry = isMap(item) ? this.yaml.texts(item) : { file: this.yaml.text(item, line, name) ?? '' };
      const odd = Object.keys(entry).find((key) => key !== 'file' && key !== 'name');
      if (odd)
        this.reading.findings.push(
          error({ code: 'unknown-attribute', why: 'attachment', name: odd }, { line, attribute: name }),
        );
      return [{ type: 'attachment', attrs: { file: entry.file ?? '' }, ...inline(entry.name ?? '') }];
    });
    this.parts.set('attachments', { type: 'attachments', ...(content.length > 0 ? { content } : {}) });
    return true;
  }
}
