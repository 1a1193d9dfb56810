/** Escaping, read back by an HTML parser that is not ours. */
import fc from 'fast-check';
import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5';
import { describe, expect, it } from 'vitest';
import { closeDirections, escapeFixed, escapeHtml, usualHtml, valueHtml } from './escape.js';

type Node = DefaultTreeAdapterTypes.Node;
const nodesOf = (html: string): readonly Node[] => parseFragment(html).childNodes;
/** The text that a parser reads, with breaks as line feeds; undefined where there is any other element. */
function textOf(html: string): string | undefined {
  let text = '';
  for (const node of nodesOf(html)) {
    if (node.nodeName === '#text') text += (node as DefaultTreeAdapterTypes.TextNode).value;
    else if (node.nodeName === 'br') text += '\n';
    else return undefined;
  }
  return text;
}
/** Words of any script, with what HTML would take for structure among them. */
const words = fc.oneof(
  fc.string({ unit: 'grapheme' }),
  fc
    .array(fc.constantFrom('<', '>', '&', '"', "'", '&amp;', '<b>', '</p>', '<!--', '-->', ']]>', 'a', ' ', '\n', 'é'))
    .map((parts) => parts.join('')),
);
/** What a parser changes by itself: carriage returns, and what is no character. */
const isKept = (text: string): boolean => !/[\r\0]|[\uD800-\uDFFF]/u.test(text);

describe('escaped text', () => {
  it('is read back as it was, and holds no element', () => {
    fc.assert(
      fc.property(words.filter(isKept), (text) => {
        expect(textOf(escapeHtml(text))).toBe(text);
      }),
    );
  });
  it('stays one attribute in quotes of either kind', () => {
    fc.assert(
      fc.property(words.filter(isKept), (text) => {
        for (const quote of ['"', "'"]) {
          const [element] = nodesOf(
            `<a title=${quote}${escapeHtml(text)}${quote}>x</a>`,
          ) as DefaultTreeAdapterTypes.Element[];
          expect(element?.attrs).toEqual([{ name: 'title', value: text }]);
        }
      }),
    );
  });
  it('of a value has its line breaks as breaks, or as spaces', () => {
    fc.assert(
      fc.property(words.filter(isKept), (text) => {
        expect(textOf(valueHtml(text, true))).toBe(closeDirections(text));
        expect(textOf(valueHtml(text, false))).toBe(closeDirections(text).replace(/\n+/g, ' '));
      }),
    );
    expect(valueHtml('a\n\nb & c', true)).toBe('a<br><br>b &amp; c');
    expect(valueHtml('a\n\nb', false)).toBe('a b');
  });
  it('of usual values is the same by the quick way, which leaves what is unusual', () => {
    fc.assert(
      fc.property(words, (text) => {
        const quick = usualHtml(text);
        if (quick !== undefined) expect(quick).toBe(valueHtml(text, false));
      }),
    );
    for (const unusual of ['a\nb', 'a\u0007', 'a\u007F', '\u202Eabc', '\u2066x', '\uFFFF'])
      expect([unusual, usualHtml(unusual)]).toEqual([unusual, undefined]);
    expect(usualHtml('Zoë & Co <zoe>')).toBe('Zoë &amp; Co &lt;zoe&gt;');
  });
  it('that is fixed keeps its runs of spaces in sight', () => {
    expect(escapeFixed('a   b')).toBe('a&nbsp;&nbsp; b');
    expect(escapeFixed('a\u00A0b')).toBe('a&nbsp;b');
    fc.assert(
      fc.property(words.filter(isKept), (text) => {
        expect(textOf(escapeFixed(text))?.replace(/\u00A0/g, ' ')).toBe(text.replace(/\u00A0/g, ' '));
      }),
    );
  });
});

describe('directions that a value leaves open', () => {
  it.each([
    ['\u202Eabc', '\u202Eabc\u202C'],
    ['\u2067abc', '\u2067abc\u2069'],
    ['\u202Aa\u2066b', '\u202Aa\u2066b\u2069\u202C'],
    ['\u202Eabc\u202C', '\u202Eabc\u202C'],
    ['\u202C\u202Eabc', '\u202C\u202Eabc\u202C'],
    ['abc', 'abc'],
  ])('%j are closed', (open, closed) => expect(closeDirections(open)).toBe(closed));
  it('are closed once: what is closed stays as it is', () => {
    const marks = fc.constantFrom(
      '\u202A',
      '\u202B',
      '\u202C',
      '\u202D',
      '\u202E',
      '\u2066',
      '\u2067',
      '\u2068',
      '\u2069',
      'a',
    );
    fc.assert(
      fc.property(fc.array(marks), (parts) => {
        const closed = closeDirections(parts.join(''));
        expect(closeDirections(closed)).toBe(closed);
        expect(closed.startsWith(parts.join(''))).toBe(true);
      }),
    );
  });
});
