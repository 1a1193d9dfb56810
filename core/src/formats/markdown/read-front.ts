/** Reads YAML as what people wrote: scalars are source text, entries keep their lines and comments. */
import {
  isAlias,
  isMap,
  isScalar,
  LineCounter,
  parseDocument,
  type Node as YamlNode,
  type Pair,
  type YAMLMap,
} from 'yaml';
import { error, type FindingData, type Declared } from '../../findings/finding.js';
import type { Reading } from './inline.js';

/** Reads the YAML of the front matter, and remembers the line of each entry. */
export class FrontReader {
  private readonly counter = new LineCounter();
  readonly root: YAMLMap | undefined;

  /** @param offset how many lines of the file stand before the YAML */
  constructor(
    private readonly source: string,
    private readonly reading: Reading,
    private readonly offset: number,
  ) {
    // The fail-safe schema makes no numbers, dates or truth values: each type reads its own.
    const yaml = parseDocument(source, {
      schema: 'failsafe',
      uniqueKeys: false,
      lineCounter: this.counter,
      prettyErrors: false,
      logLevel: 'silent',
    });
    for (const problem of yaml.errors) {
      const line = this.lineAt(problem.pos[0]);
      const text = source.split('\n')[line - offset - 1] ?? '';
      const data: FindingData<'bad-file'> = /:\s*\{\{/.test(text)
        ? UNQUOTED
        : { code: 'bad-file', why: 'not-yaml', says: problem.message.split('\n')[0] ?? '' };
      reading.findings.push(error(data, { line }));
    }
    if (isMap(yaml.contents)) this.root = yaml.contents as YAMLMap;
    else if (yaml.errors.length === 0)
      reading.findings.push(
        error({ code: 'bad-file', why: 'no-entries', example: '“title: Welcome”' }, { line: offset + 1 }),
      );
  }

  private lineAt(position: number): number {
    return this.counter.linePos(position).line + this.offset;
  }

  /** The entries of a map with their lines; a key that stands twice is reported and its first value kept. */
  entries(map: YAMLMap, what: Declared = 'entry'): [key: string, value: YamlNode | null, line: number][] {
    const seen = new Set<string>();
    return map.items.flatMap((pair: Pair): [string, YamlNode | null, number][] => {
      const keyNode = pair.key as YamlNode | null;
      const line = this.lineAt(keyNode?.range?.[0] ?? map.range?.[0] ?? 0);
      if (!isScalar(keyNode)) {
        this.reading.findings.push(
          error(this.beginsWithTag(keyNode) ? UNQUOTED : { code: 'bad-file', why: 'key-not-word' }, { line }),
        );
        return [];
      }
      const key = String(keyNode.value);
      if (seen.has(key)) {
        this.reading.findings.push(error({ code: 'duplicate-key', why: 'key', what, key }, { line }));
        return [];
      }
      seen.add(key);
      return [[key, pair.value as YamlNode | null, line]];
    });
  }

  /** A scalar's source text; anything else is reported. Undefined if there is none. */
  text(node: YamlNode | null | undefined, line: number, name: string): string | undefined {
    if (node === null || node === undefined) return undefined;
    if (isScalar(node)) return node.value === null ? undefined : String(node.value);
    const data: FindingData<'bad-file'> = isAlias(node)
      ? { code: 'bad-file', why: 'alias' }
      : this.beginsWithTag(node)
        ? UNQUOTED
        : { code: 'bad-file', why: 'not-one-value', name };
    this.reading.findings.push(error(data, { line }));
    return undefined;
  }

  /** A map of scalars. */
  texts(map: YAMLMap): Record<string, string> {
    return Object.fromEntries(
      this.entries(map).flatMap(([key, value, line]) => {
        const text = this.text(value, line, key);
        return text === undefined ? [] : [[key, text]];
      }),
    );
  }

  /** The comments before an entry and behind it, without their marks. */
  remark(map: YAMLMap, key: string): string | undefined {
    const pair = map.items.find((item: Pair) => isScalar(item.key) && item.key.value === key);
    const first = map.items[0] === pair ? map.commentBefore : undefined;
    const parts = [
      first,
      (pair?.key as YamlNode | undefined)?.commentBefore,
      (pair?.value as YamlNode | null | undefined)?.commentBefore,
      (pair?.value as YamlNode | null | undefined)?.comment,
    ];
    const text = parts
      .filter(Boolean)
      .join('\n')
      .split('\n')
      .map((line) => line.replace(/^ /, '').trimEnd())
      .join('\n');
    return text || undefined;
  }

  private beginsWithTag(node: YamlNode | null): boolean {
    return (
      node?.range !== undefined &&
      node.range !== null &&
      /^\{\s*\{/.test(this.source.slice(node.range[0], node.range[0] + 20))
    );
  }
}

const UNQUOTED: FindingData<'bad-file'> = { code: 'bad-file', why: 'unquoted' };
