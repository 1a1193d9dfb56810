/** Every reader, checker, finder and join looks at its input a fixed number of times, whatever it is made of. */
import { describe, expect, it } from 'vitest';
import { checkProgram } from '../check/index.js';
import { findMarkers } from '../check/markers.js';
import { compile } from '../compile/compile.js';
import { foundValues, recipientFromWords } from '../filling/index.js';
import { readHtml } from '../formats/html/index.js';
import { readLine, readText } from '../formats/markdown/index.js';
import { looksLikeMarkdown, readMarkdown, readPlain } from '../formats/plain/index.js';
import { readTable, TableProblem } from '../formats/table/index.js';
import { render } from '../render/render.js';
import { structureOnly, withoutImages } from '../render/reduced-html.js';
import type { TextDocument } from '../template/document.js';
import { addressesIn, readMailbox } from '../values/mailbox.js';
import { GROWTH_LIMIT, growthOf, STUMBLING } from './growth.js';

const BASE = readText('---\nvocabula: 1\nkind: message\ntitle: T\nsubject: Hello\n---\nWords\n').document;
const saying = (text: string): TextDocument =>
  ({
    ...BASE,
    content: BASE.content.map((part) =>
      part.type === 'body' ? { ...part, content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] } : part,
    ),
  }) as TextDocument;
const program = (document: TextDocument) => compile({ name: 'x', document }, { library: { get: () => undefined } });
const JOINED = program(
  readText(
    '---\nvocabula: 1\nkind: message\ntitle: T\nsubject: "Hi {{n}}"\nvariables:\n  n: { type: text }\n  o: { type: text }\n---\nA {{n}} b {{o}} c {{n}}.\n',
  ).document,
);
const WORK: Readonly<Record<string, (input: string) => unknown>> = {
  'reads a file': (input) => readText(`---\nvocabula: 1\nkind: message\ntitle: T\nsubject: S\n---\n${input}\n`),
  'reads a line': (input) => readLine(input),
  'reads plain text': (input) => readPlain(input),
  'reads Markdown': (input) => readMarkdown(input),
  'tells Markdown': (input) => looksLikeMarkdown(input),
  'reads HTML': (input) => readHtml(input),
  'reads a table': (input) => {
    try {
      return readTable(new TextEncoder().encode(input));
    } catch (problem) {
      if (problem instanceof TableProblem) return problem;
      throw problem;
    }
  },
  'checks a text': (input) => {
    const document = saying(input);
    return checkProgram({ name: 'x', document }, program(document), [], '2027-01-01');
  },
  'finds markers': (input) => findMarkers(input),
  'finds values': (input) => foundValues(input, '2027-01-01', 'en-GB'),
  'finds addresses': (input) => [...addressesIn(input)],
  'reads a mailbox': (input) => readMailbox(input),
  'reads a recipient': (input) => recipientFromWords(input),
  'joins values': (input) =>
    render(JOINED, { recipient: {}, sender: {}, answers: { n: input.slice(0, 90_000) }, today: '2027-01-01' }),
  'joins fixed words': (input) =>
    render(program(saying(input)), { recipient: {}, sender: {}, answers: {}, today: '2027-01-01' }),
  'makes HTML plainer': (input) => [structureOnly(input), withoutImages(input)],
};

describe.each(Object.entries(WORK))(
  'what %s',
  (_name, work) => {
    it('takes no more than in proportion', () => {
      const steep = STUMBLING.flatMap((unit) => {
        const growth = growthOf(work, unit);
        return growth !== undefined && growth > GROWTH_LIMIT ? [[unit, growth.toFixed(1)]] : [];
      });
      expect(steep).toEqual([]);
    });
  },
  120_000,
);
