import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answers, documents, plainLine, richLine } from '../../testing/arbitrary.js';
import { compile } from '../../compile/compile.js';
import { render } from '../../render/render.js';
import { bodyOf, part } from '../../template/document.js';
import { normaliseInline, normaliseLine } from '../../template/normalise.js';
import { parseDocument } from '../../template/schema.js';
import { readInline, readLine, readText, Reading, writeLine, writeText, writeWording } from './index.js';

const none = { get: () => undefined };
const file = (body: string, variables = ''): string =>
  `---\nvocabula: 1\nkind: message\ntitle: T\nsubject: S\n${variables ? `variables:\n${variables}\n` : ''}---\n${body}\n`;
const blocks = (body: string, variables = 'x: { type: yes-no }') =>
  bodyOf(readText(file(body, `  ${variables}`)).document);
const codes = (source: string): string[] => readText(source).findings.map((finding) => finding.code);
const line = (source: string): (number | undefined)[] => readText(source).findings.map((finding) => finding.place.line);

describe('reading and writing are inverse', () => {
  it('for whole documents', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const written = writeText(document);
        const read = readText(written);
        expect(read.document).toEqual(JSON.parse(JSON.stringify(document)));
        expect(writeText(read.document)).toBe(written);
        expect(parseDocument(document)).toHaveProperty('document');
      }),
      { numRuns: 400 },
    );
  });

  it('for lines and wordings', () => {
    fc.assert(
      fc.property(plainLine, (nodes) => {
        const normal = normaliseLine(nodes);
        // A lone brace beside a tag is the one thing lines cannot say.
        fc.pre(!/\{$/.test(normal.map((node) => (node.type === 'text' ? node.text : '')).join('|')));
        expect(readLine(writeLine(normal))).toEqual(normal);
      }),
      { numRuns: 500 },
    );
    fc.assert(
      fc.property(richLine, (nodes) => {
        const normal = normaliseInline(nodes);
        expect(readInline(writeWording(normal), new Reading(new Set()))).toEqual(normal);
      }),
      { numRuns: 500 },
    );
  });

  it('and nothing renders differently', () => {
    fc.assert(
      fc.property(documents, answers, (document, given) => {
        const input = { answers: given, today: '2026-11-24' };
        const before = render(compile({ name: 'a', document }, { library: none }), input);
        const after = render(
          compile({ name: 'a', document: readText(writeText(document)).document }, { library: none }),
          input,
        );
        expect(after).toEqual(before);
      }),
      { numRuns: 150 },
    );
  });
});

describe('tags as structure', () => {
  it('ends a paragraph, lazy continuation included, and governs whole blocks', () => {
    expect(blocks('one\n{{#x}}\ntwo\n{{/x}}\nthree').map((block) => block.type)).toEqual([
      'paragraph',
      'passage',
      'paragraph',
    ]);
    expect(blocks('> quoted\n{{#x}}\ntwo\n{{/x}}').map((block) => block.type)).toEqual(['blockquote', 'passage']);
  });

  it('governs items of one list, even all of them; a blank line separates lists', () => {
    const [list, ...rest] = blocks('- a\n{{#x}}\n- b\n{{/x}}\n- c');
    expect(rest).toEqual([]);
    expect(list).toMatchObject({
      type: 'bulletList',
      content: [{ attrs: { when: [] } }, { attrs: { when: [{ of: 'x' }] } }, { attrs: { when: [] } }],
    });
    expect(blocks('{{#x}}\n- a\n- b\n{{/x}}')).toMatchObject([{ type: 'bulletList' }]);
    expect(blocks('- a\n\n{{#x}}\n- b\n{{/x}}')).toHaveLength(2);
  });

  it('governs rows of a table, and ends the table where its partner stands elsewhere', () => {
    expect(blocks('| a |\n|---|\n| 1 |\n{{#x}}\n| 2 |\n{{/x}}')).toMatchObject([
      { type: 'table', content: [{}, {}, { attrs: { when: [{ of: 'x' }] } }] },
    ]);
    expect(blocks('{{#x}}\n| a |\n|---|\n| 1 |\n{{/x}}\nAfter')).toMatchObject([
      { type: 'passage', content: [{ type: 'table' }] },
      { type: 'paragraph' },
    ]);
  });

  it('counts a tag as a letter for emphasis', () => {
    expect(blocks('a**{{x}}**b')[0]).toMatchObject({
      content: [{ text: 'a' }, { type: 'placeholder', marks: [{ type: 'bold' }] }, { text: 'b' }],
    });
  });

  it('is literal inside code and behind a backslash', () => {
    expect(blocks('`{{x}}` and \\{{x}}')[0]).toMatchObject({
      content: [{ text: '{{x}}', marks: [{ type: 'code' }] }, { text: ' and {{x}}' }],
    });
  });

  it('keeps a bar inside a tag of a cell', () => {
    const [table] = blocks(
      '| a |\n|---|\n| {{#g.n\\|r}}b{{/g.n\\|r}} |',
      'g: { type: choice, options: { n: {}, r: {} } }',
    );
    expect(table).toMatchObject({
      content: [{}, { content: [{ content: [{ content: [{ marks: [{ attrs: { is: ['n', 'r'] } }] }] }] }] }],
    });
  });

  it('wants opening and closing tags to be siblings', () => {
    expect(codes(file('**a {{#x}}b** c{{/x}}', '  x: { type: yes-no }'))).toEqual(['unclosed-passage']);
    expect(codes(file('{{#x}}\n\n> q\n> {{/x}}', '  x: { type: yes-no }'))).toEqual(
      ['unclosed-passage', 'unclosed-passage'].slice(0, 1),
    );
  });

  it('says no to what would hide values', () => {
    expect(codes(file('{{{x}}} {{&x}} {{=<% %>=}}'))).toEqual([
      'unsupported-tag',
      'unsupported-tag',
      'unsupported-tag',
    ]);
  });

  it('keeps other HTML as text, with a warning', () => {
    const read = readText(file('a <span style="x">b</span>'));
    expect(read.findings.map((finding) => finding.code)).toContain('unsupported-html');
    expect(bodyOf(read.document)[0]).toMatchObject({ content: [{ text: 'a <span style="x">b</span>' }] });
  });
});

describe('bad files are named with their lines', () => {
  it.each([
    ['---\ntitle: [\n---\n', 'bad-file'],
    ['no front matter', 'bad-file'],
    ['---\nvocabula: 2\ntitle: T\n---\n', 'bad-file'],
    [file('{{#x}}\nopen', '  x: { type: yes-no }'), 'unclosed-passage'],
    [file('', '  x: { type: colour }'), 'unknown-type'],
    [file('', '  x: { type: text }\n  x: { type: date }'), 'duplicate-key'],
    [file('', '  x: { type: text, currency: EUR }'), 'unknown-attribute'],
    [file('', '  In: { type: text }'), 'bad-key'],
    [file('', '  list: { type: text }'), 'reserved-key'],
    [file('', '  x: { type: number, min: abc }'), 'bad-value'],
    [file('a').replace('subject: S', 'subject: {{x}} hello'), 'bad-file'],
    [file('a').replace('subject: S', 'colour: red'), 'unknown-attribute'],
    [file('a\0b'), 'bad-file'],
  ])('%j', (source, code) => {
    expect(codes(source)).toContain(code);
    expect(line(source).every((at) => at !== undefined)).toBe(true);
  });

  it('counts lines from the top of the file', () => {
    expect(line(file('a\n\n{{#x}}\nb', '  x: { type: yes-no }'))).toEqual([11]);
    expect(line(file('', '  a: { type: text }\n  b:\n    type: text\n    nope: 1'))).toEqual([10]);
  });

  it.each(['~~~ aa ``` ~~~\ncode\n~~~', '~~~~ a`b\n~~~\n```\n~~~~', '``` ~~~\ncode\n```', '~~~ ~x`y\ncode\n~~~'])(
    'has a canonical form of the code block %j',
    (body) => {
      const { document } = readText(file(body));
      const again = readText(writeText(document)).document;
      expect(again).toEqual(document);
      expect(writeText(again)).toBe(writeText(document));
    },
  );

  it('gives a message of its own to a value that begins with a tag', () => {
    expect(readText(file('').replace('subject: S', 'subject: {{x}}')).findings[0]?.message).toMatch(/quotes/);
  });
});

describe('front matter', () => {
  it('keeps scalars as they were written, and comments', () => {
    const source = file('a', '  # the plot\n  plot: { type: text, default: 007 }').replace(
      'subject: S',
      '# shown first\nsubject: S',
    );
    const { document } = readText(source);
    expect(document.attrs.variables[0]?.default).toBe('007');
    expect(writeText(document)).toContain('  # the plot\n  plot: { type: text, default: 007 }');
    expect(writeText(document)).toContain('# shown first\nsubject: "S"');
  });

  it('keeps every attribute of the example', () => {
    for (const name of ['visit', 'opening-hours']) {
      const source = readFileSync(new URL(`../../../fixtures/example/${name}.md`, import.meta.url), 'utf8');
      const { document, findings } = readText(source);
      expect(findings).toEqual([]);
      expect(readText(writeText(document)).document).toEqual(document);
      expect(writeText(document).split('---\n')[1]).toBe(source.split('---\n')[1]);
    }
    expect(part(readText(file('a')).document, 'subject').content).toEqual([{ type: 'text', text: 'S' }]);
  });
});
