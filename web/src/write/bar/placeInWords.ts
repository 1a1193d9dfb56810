/** Where a line stands, in a word or two. */
import { labelFromKey, PARTS, type LineRef } from '@vocabula/core';

const WORDS: Readonly<Record<string, string>> = { reply_to: 'reply-to', attachments: 'name of a file', body: '' };

export function placeInWords(line: LineRef): string {
  if (line.kind === 'wording') return `wording of ${labelFromKey(line.option)}`;
  if (line.kind === 'target') return 'where a link leads';
  if (line.kind === 'alt') return 'alternative text';
  const part = PARTS[line.path[0] ?? 0] ?? '';
  return WORDS[part] ?? part;
}
