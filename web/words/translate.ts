/**
 * Another language: replaces the words of the interface in the sources before they are compiled. `LANGUAGE=de npm run build`
 * reads `web/words/de.json`, a flat table from the English words to the others; words that it lacks stay English.
 */
import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Plugin } from 'vite';
import { wordsIn, type Found } from './collect.js';
import { programValues } from './table.js';

/** Gives the words of another language for English ones, or undefined. `{0}` stands for a value and may move. */
export type Translate = (words: string) => string | undefined;

/** The source of a file in another language. @param values strings that programs compare, in all files */
export function translated(file: string, source: string, translate: Translate, values?: ReadonlySet<string>): string {
  const found = wordsIn(file, source, values);
  /** Writes a stretch of the source, with the words in it replaced. */
  const write = (start: number, end: number): string => {
    let text = '';
    let at = start;
    for (const each of found) {
      if (each.start < at || each.end > end) continue;
      const words = translate(each.words);
      if (words === undefined) continue;
      text += source.slice(at, each.start) + written(each, words, (value) => write(...value));
      at = each.end;
    }
    return text + source.slice(at, end);
  };
  return write(0, source.length);
}

/** Words in the syntax of their place. @param valueOf writes the expression of a value */
function written({ kind, values }: Found, words: string, valueOf: (value: Found['values'][number]) => string): string {
  const put = (before: string, after: string, plain: (text: string) => string): string =>
    words
      .split(/\{(\d+)\}/)
      .map((part, index) => {
        const value = index % 2 === 1 ? values[Number(part)] : undefined;
        return index % 2 === 0 ? plain(part) : value ? before + valueOf(value) + after : '';
      })
      .join('');
  const markup = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
  if (kind === 'attribute') return markup(words);
  if (kind === 'text') return put('{{ ', ' }}', markup);
  if (kind === 'template') return `\`${put('${', '}', (text) => text.replace(/[\\`$]/g, '\\$&'))}\``;
  return `'${words.replace(/[\\']/g, '\\$&').replace(/\n/g, '\\n').replace(/"/g, '\\u0022')}'`;
}

/** Builds the application in a language; English needs nothing. */
export function inLanguage(language: string | undefined): Plugin | undefined {
  if (!language || language === 'en') return undefined;
  const file = fileURLToPath(new URL(`./${language}.json`, import.meta.url));
  if (!existsSync(file)) throw new Error(`There is no table of words for “${language}”: ${file}`);
  const table = JSON.parse(readFileSync(file, 'utf8')) as Readonly<Record<string, string>>;
  const values = programValues();
  return {
    name: 'words',
    enforce: 'pre',
    transform(source, id) {
      const [path = ''] = id.split('?');
      const isOurs = path.includes('/web/src/') && /\.(vue|ts)$/.test(path) && !id.includes('?');
      return isOurs ? { code: translated(path, source, (words) => table[words], values), map: null } : undefined;
    },
  };
}
