import { expect, it } from 'vitest';
import { readText } from '../formats/markdown/index.js';
import { compile } from '../compile/compile.js';

const withOptions = (count: number) => {
  const options = Array.from({ length: count }, (_, at) => `o${at}: O${at}`).join(', ');
  const source = `---\nkind: message\ntitle: T\nsubject: S\nvariables:\n  gate: { type: choice, options: { ${options} } }\n---\n{{gate}}\n`;
  return compile({ name: 't', document: readText(source).document }, { library: { get: () => undefined } });
};

it('a question has 2,000 options at most, and says so quickly', () => {
  expect(withOptions(2000).findings).toEqual([]);
  expect(withOptions(10_000).findings.map(({ level, message }) => [level, message])).toEqual([
    ['error', '“gate”: There may be 2000 options at most; here are 10000.'],
  ]);
});
