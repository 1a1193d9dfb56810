import { compileTemplate, parse } from '@vue/compiler-sfc';
import { readFileSync } from 'node:fs';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { wordsIn } from './collect.js';
import { currentTable, programValues, sourceFiles, sourceOf, TABLE, tableText } from './table.js';
import { translated } from './translate.js';

const COMPONENT = `<script setup lang="ts">
import { x } from 'some words';
const STATES: Record<string, string> = { ready: 'ready' };
type Kind = 'two words' | 'other';
notice.say(\`Imported: \${count('new')} new.\`);
page.querySelector('.a .b');
if (kind === 'two words') throw new Error('It isn’t there.');
</script>
<template>
  <p class="quiet small" :title="open ? 'Close it' : 'Open'" aria-label="A mark">
    {{ sent }} {{ sent === 1 ? 'message' : 'messages' }} to <b>{{ who }}</b>
    <i @click="say('Done with it.')">×</i>
  </p>
</template>`;

describe('the words of a file', () => {
  it('are what people read: text with its values, attributes, phrases and branches; not what programs compare', () => {
    expect(wordsIn('A.vue', COMPONENT).map(({ words, kind }) => [kind, words])).toEqual([
      ['string', 'ready'],
      ['template', 'Imported: {0} new.'],
      ['string', 'It isn’t there.'],
      ['string', 'Close it'],
      ['string', 'Open'],
      ['attribute', 'A mark'],
      ['text', '{0} {1} to'],
      ['string', 'message'],
      ['string', 'messages'],
      ['string', 'Done with it.'],
    ]);
  });
  it('are replaced in the syntax of their place, and values may move', () => {
    const german: Record<string, string> = {
      'Imported: {0} new.': '{0} neu: `eingelesen`.',
      'It isn’t there.': "Es ist 'weg'.",
      '{0} {1} to': 'An <alle>: {1} ({0})',
      messages: 'Nachrichten',
      'A mark': 'Ein "Zeichen"',
    };
    const source = translated('A.vue', COMPONENT, (words) => german[words]);
    expect(source).toContain("notice.say(`${count('new')} neu: \\`eingelesen\\`.`);");
    expect(source).toContain("throw new Error('Es ist \\'weg\\'.')");
    expect(source).toContain("An &lt;alle>: {{ sent === 1 ? 'message' : 'Nachrichten' }} ({{ sent }}) <b>");
    expect(source).toContain('aria-label="Ein &quot;Zeichen&quot;"');
    expect(source).toContain("kind === 'two words'");
  });
});

describe('the table of words', () => {
  const table = currentTable();
  it('is as the sources have it (`npm run words` writes it)', () => {
    expect(tableText(table)).toBe(readFileSync(TABLE, 'utf8'));
  });
  it('has none of the words that the house does without', () => {
    const OLD =
      /\b(whoever|whereof|whom|anew|lest|shall|heed|thereof|hither|naught|nought|by no way|may stay empty|as usual|worked out|cannot tell yet|turned round)\b/i;
    const old = Object.entries(table).flatMap(([file, words]) =>
      words.filter((each) => OLD.test(each)).map((each) => `${file}: ${each}`),
    );
    expect(old).toEqual([]);
  });
  it('holds everything shown: no value that programs compare is one that people read', () => {
    const KEYS = /^(Arrow(Up|Down|Left|Right)|Home|End|Enter|Delete|Escape|Backspace|Tab|ContextMenu)$/;
    expect([...programValues()].filter((value) => /^\p{Lu}\p{Ll}/u.test(value) && !KEYS.test(value))).toEqual([]);
  });
  it('can be put into another language whole: every file still compiles, and says it in that language', () => {
    const values = programValues();
    const other = (words: string): string => `⟦${words}⟧`;
    for (const file of sourceFiles()) {
      const source = translated(file, sourceOf(file), other, values);
      if (file.endsWith('.vue')) {
        const { descriptor, errors } = parse(source, { filename: file });
        const { template, scriptSetup } = descriptor;
        expect(errors, file).toEqual([]);
        if (template) {
          const compiled = compileTemplate({
            source: template.content,
            filename: file,
            id: file,
            isProd: true,
            compilerOptions: { expressionPlugins: ['typescript'] },
          });
          expect(compiled.errors, file).toEqual([]);
        }
        expect(syntaxErrors(scriptSetup?.content ?? ''), file).toEqual([]);
      } else expect(syntaxErrors(source), file).toEqual([]);
      const left = wordsIn(file, source, values).filter(({ words }) => !words.includes('⟦'));
      expect(
        left.map(({ words }) => words),
        file,
      ).toEqual([]);
    }
  });
});

const syntaxErrors = (source: string): string[] =>
  (ts.transpileModule(source, { reportDiagnostics: true }).diagnostics ?? []).map(({ messageText }) =>
    ts.flattenDiagnosticMessageText(messageText, ' '),
  );
