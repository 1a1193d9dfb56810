import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyDocument } from '../../template/document.js';
import { parseDocument } from '../../template/schema.js';
import { writeBody } from '../markdown/index.js';
import { PLAIN_HOUSE } from '../../house/house.js';
import { HtmlProblem, nearestColour, readHtml } from './index.js';

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

  it('keeps what is highlighted, where the house has a colour for it', () => {
    const { colours } = PLAIN_HOUSE.style;
    const highlighted = (html: string): string =>
      writeBody(readHtml(html, { highlight: (colour) => nearestColour(colour, colours) }).blocks);
    expect(highlighted('<p>Dear <mark>Ann</mark>, <span style="background:rgb(0,255,0)">on Friday</span></p>')).toBe(
      'Dear <mark data-colour="ochre">Ann</mark>, <mark data-colour="moss">on Friday</mark>',
    );
    expect(highlighted('<span style="background-color:yellow">a<span style="background:white">b</span></span>')).toBe(
      '<mark data-colour="ochre">a</mark>b',
    );
    // Grounds of boxes, and of the page that words were copied from, are no highlighting.
    expect(highlighted('<p style="background:yellow">a <span style="background:#1e1e1e">b</span></p>')).toBe('a b');
    expect(body('<p>Dear <mark>Ann</mark></p>')).toBe('Dear Ann');
  });

  it.each([
    ['yellow', 'ochre'],
    ['#0f0', 'moss'],
    ['deepskyblue', 'slate'],
    ['rgba(255, 0, 0, 0.5)', 'brick'],
    ['silver', 'ink'],
    ['white', undefined],
    ['transparent', undefined],
    ['rgba(255, 255, 0, 0)', undefined],
    ['url(x.png)', undefined],
    ['#0d1117', undefined],
  ])('that is highlighted in %s is so in %s', (colour, name) => {
    expect([nearestColour(colour, PLAIN_HOUSE.style.colours), nearestColour(colour, {})]).toEqual([name, undefined]);
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
