/** Writes a document as a file in canonical form: the bytes that reading and writing again keep. */
import { ADDRESS_PARTS, bodyOf, part, type TextDocument } from '../../template/document.js';
import { normalise } from '../../template/normalise.js';
import { FRONT_SCALARS, FRONT_TAIL } from './front-attributes.js';
import { writeLine } from './line.js';
import { stepLines } from './steps.js';
import { writeBody } from './write-body.js';
import { block, flow, quoted, scalar, variableEntries } from './yaml.js';

/** Writes a document. */
export function writeText(raw: TextDocument): string {
  const document = normalise(raw);
  const { front, variables, steps = [] } = document.attrs;
  const lines: string[] = ['---'];
  const remark = (key: string, indent = ''): void => {
    for (const text of front.remarks?.[key]?.split('\n') ?? []) lines.push(`${indent}# ${text}`.trimEnd());
  };
  const add = (key: string, value: string | undefined): void => {
    if (value === undefined) return;
    remark(key);
    lines.push(`${key}: ${value}`);
  };
  const line = (key: 'subject' | 'start' | 'length' | 'place'): string | undefined => {
    const text = writeLine(part(document, key).content);
    return text === '' ? undefined : quoted(text);
  };

  add('vocabula', '1');
  add('kind', front.kind);
  for (const key of FRONT_SCALARS) add(key, front[key] === undefined ? undefined : scalar(front[key]));
  add('subject', line('subject'));
  for (const key of ADDRESS_PARTS) {
    const addresses = part(document, key)
      .content.map((address) => writeLine(address.content))
      .filter((text) => text !== '');
    if (addresses.length > 0)
      add(key, addresses.length === 1 ? quoted(addresses[0] as string) : `[${addresses.map(quoted).join(', ')}]`);
  }
  const files = part(document, 'attachments').content ?? [];
  if (files.length > 0) {
    remark('attachments');
    lines.push('attachments:');
    for (const file of files) {
      const name = writeLine(file.content);
      lines.push(
        `  - ${flow([['file', scalar(file.attrs.file)], ...(name === '' ? [] : [['name', quoted(name)] as const])])}`,
      );
    }
  }
  for (const key of ['start', 'length', 'place'] as const) add(key, line(key));
  for (const key of FRONT_TAIL) {
    const value = front[key];
    if (value !== undefined) add(key, typeof value === 'string' ? scalar(value) : `[${value.map(scalar).join(', ')}]`);
  }
  lines.push(...stepLines(steps, remark));
  if (variables.length > 0) {
    lines.push('variables:');
    for (const variable of variables) {
      remark(`variables.${variable.key}`, '  ');
      lines.push(...block([variable.key, variableEntries(variable)], '  '));
    }
  }
  lines.push('---');
  const body = writeBody(bodyOf(document));
  return `${lines.join('\n')}\n${body === '<p></p>' ? '' : `${body}\n`}`;
}
