/** The look of a message stands on elements that every mail program keeps: it holds without `<style>` and `<body>`. */
import { Parser } from 'htmlparser2';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { documents } from '../testing/arbitrary.js';
import { rendered } from '../testing/build.js';
import { render, type Message } from './render.js';

const NEEDED = ['font-family', 'font-size', 'line-height', 'color'] as const;

/** The words of some HTML whose font, size, line height or colour is on no element but `<body>`, with what they lack. */
function wordsWithoutLook(html: string): string[] {
  const lacking: string[] = [];
  const open: { readonly tag: string; readonly style: string }[] = [];
  const parser = new Parser({
    onopentag(tag, { style = '' }) {
      open.push({ tag, style: tag === 'body' ? '' : style });
    },
    ontext(words) {
      if (words.trim() === '' || open.some(({ tag }) => tag === 'head')) return;
      const styles = open.map(({ style }) => style).join(';');
      const lost = NEEDED.filter((property) => !new RegExp(`(?:^|;)\\s*${property}:`).test(styles));
      if (lost.length > 0) lacking.push(`${words.trim()}: ${lost.join(', ')}`);
    },
    onclosetag: () => void open.pop(),
  });
  parser.end(html);
  return lacking;
}

const EVERYTHING = `# One
## Two
### Three
Words with **bold**, [a link](https://larkmoor.example), \`code\` and <span data-colour="moss">colour</span>.

- item
- item with a block

  and more

1. first

> quoted

| Head | Other |
|---|---|
| cell | cell |

\`\`\`
code block
\`\`\`

---

<a data-button href="https://larkmoor.example">Book</a>

<div data-panel="moss">

In a panel

</div>
`;

describe('the look of a message', () => {
  const both = ({ html, fragment }: Message): string[] => [...wordsWithoutLook(html), ...wordsWithoutLook(fragment)];
  it('is on every form that the manuscript can make', () => {
    expect(both(rendered({ body: EVERYTHING }))).toEqual([]);
  });
  it('is on all words of any document', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const program = compile({ name: 't', document }, { library: { get: () => undefined } });
        expect(both(render(program, { today: '2026-11-27' }))).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});
