import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyDocument } from '../../template/document.js';
import { parseDocument } from '../../template/schema.js';
import { writeBody } from '../markdown/index.js';
import { HtmlProblem, readHtml } from './index.js';

const FIXTURES = new URL('../../../fixtures/paste/', import.meta.url);
const fixture = (name: string): string => readFileSync(new URL(name, FIXTURES), 'utf8');
const body = (html: string): string => writeBody(readHtml(html).blocks);

describe('messy fragments come out clean', () => {
  const names = readdirSync(FIXTURES).filter((name) => name.endsWith('.html'));
  it.each(names)('%s', (name) => {
    expect(`${body(fixture(name))}\n`).toBe(fixture(name.replace('.html', '.md')));
  });
});

describe('foreign HTML', () => {
  it('brings nothing that runs, counts or hides', () => {
    const html =
      '<img src="https://x.example/a.png" onerror="alert(1)"><svg onload="alert(1)"><text>drawn</text></svg>' +
      '<a href="java&#10;script:alert(1)">a</a><iframe src="https://x.example"></iframe><p style="font-size:0">zero</p>' +
      '<p hidden>b</p><p style="opacity:0">c</p><style>p{}</style><template>d</template>';
    expect(body(html)).toBe('![](https://x.example/a.png)a');
  });

  it('has its images brought in, or counted as left out', () => {
    const html = '<p>a <img src="data:image/png;base64,AA" alt="Map"> <img src="cid:1"> <img src="file:///x.png"></p>';
    expect(readHtml(html).imagesLeftOut).toBe(3);
    const read = readHtml(html, { image: (source) => (source.startsWith('data:') ? 'assets/map.png' : undefined) });
    expect([writeBody(read.blocks), read.imagesLeftOut]).toEqual(['a ![Map](assets/map.png)', 2]);
  });

  it('is never too much: long, deep, broken or empty', () => {
    expect(body('')).toBe('<p></p>');
    expect(body('<div>'.repeat(5000) + 'deep')).toBe('deep');
    expect(body('<b><i>crossed</b> over</i>')).toContain('crossed');
    expect(() => readHtml('x'.repeat(2_000_001))).toThrow(HtmlProblem);
    const { blocks } = readHtml(
      '<table><tr><td><b>a</b></td></tr></table><p style="color:red">words &amp; more</p>'.repeat(20_000),
    );
    expect(blocks).toHaveLength(40_000);
  });

  it('always gives a document', () => {
    const piece = fc.constantFrom(
      '<p>',
      '</p>',
      '<div>',
      '</div>',
      '<table>',
      '</table>',
      '<tr>',
      '<td colspan=3>',
      '<th rowspan="9">',
      '</td>',
      '<ul>',
      '<li>',
      '</ul>',
      '<ol start=0>',
      '<h5>',
      '</h5>',
      '<b>',
      '</b>',
      '<a href="https://x.example">',
      '</a>',
      '<br>',
      '<br><br>',
      '<hr>',
      '<pre>',
      '</pre>',
      'words',
      ' ',
      '\n',
      '&nbsp;',
      '{{name}}',
      '<img src="https://x.example/a.png">',
      '<blockquote>',
      '</blockquote>',
      "<p style='mso-list:l0 level2 lfo1'>",
      '<code>',
      '</code>',
      '<span style="font-weight:bold">',
      '</span>',
      '*',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (pieces) => {
        const { blocks } = readHtml(pieces.join(''));
        const document = emptyDocument({ kind: 'block', title: 'T' });
        const content = document.content.map((part) => (part.type === 'body' ? { ...part, content: blocks } : part));
        expect(parseDocument(JSON.parse(JSON.stringify({ ...document, content })))).toHaveProperty('document');
      }),
      { numRuns: 1500 },
    );
  });
});
