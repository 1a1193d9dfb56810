import { describe, expect, it } from 'vitest';
import { contrast, turned } from '../../house/colour.js';
import { rendered } from '../../testing/build.js';
import { arriveIn } from './arrives.js';
import { FAMILIES } from './families.js';
import { MARK } from './loss.js';
import { treeOf, written } from './tree.js';

const BODY = `# Your visit

Dear friend, **come** by [the gate](https://x.example) with <span data-colour="moss">a map</span>.

![The map of the garden](assets/map.png) and ![](assets/line.png)

- one
- two

> A quotation

| Bed | What grows there |
|---|---|
| 1 | Ferns |

<div data-panel="moss">

Bring a coat.

</div>

<a data-button href="https://x.example/book">Book</a>

\`\`\`
code
\`\`\`
`;
const message = rendered({ body: BODY });
const arrival = (family: (typeof FAMILIES)[number], of = message) => arriveIn(family, of, 'en-GB');
const lost = (family: (typeof FAMILIES)[number], body?: string): string[] =>
  arrival(family, body === undefined ? message : rendered({ body })).losses.map(({ what }) => what);

describe('a message in families of mail programs', () => {
  it('written again is the same', () => {
    expect(written(treeOf(message.html).children)).toBe(message.html);
  });
  it('loses nothing of its look where only inline styles are kept, but its dark colours', () => {
    expect(lost('page')).toEqual([]);
    expect(lost('inline')).toEqual(['colours for dark pages']);
    expect(arrival('inline').html).not.toMatch(/<style|<body style/);
  });
  it('keeps buttons, panels, quotations, lists and tables in word-processor engines: round corners go', () => {
    expect(lost('word')).toEqual(['colours for dark pages', 'round corners', 'wrapping of long lines']);
    const { html = '' } = arrival('word');
    expect(html).not.toMatch(/border-radius|@media/);
    expect(html).toMatch(/<td class="b" bgcolor="#[0-9A-F]{6}" style="padding:9px 18px;background-color/);
  });
  it('has its places of losses marked, in the original as well', () => {
    const { original, html, losses } = arrival('word');
    const corners = losses.find(({ what }) => what === 'round corners');
    expect(corners?.places).toEqual(['Book']);
    const mark = `${MARK}="${corners?.number}"`;
    expect(original).toContain(mark);
    expect(html).toContain(mark);
    expect(original.replace(new RegExp(` ${MARK}="\\d+"`, 'g'), '')).toBe(message.html);
  });
  it('forced dark stays readable: every word has a contrast of 4.5 at least', () => {
    expect(lost('dark')).toEqual(['colours for dark pages']);
    const { html = '' } = arrival('dark');
    expect(html).toContain('background-color:#121212');
    expect(contrast('#FFFFFF', turned('#20262E'))).toBeLessThan(contrast('#121212', turned('#20262E')));
  });
  it('says where forced dark leaves words that can hardly be read', () => {
    const pale = {
      ...message,
      html: '<body><p style="color:#20262E">fine</p><p style="color:#20262E;background-color:#707070">hard to read</p></body>',
    };
    expect(arrival('dark', pale).losses).toMatchObject([{ what: 'enough contrast', places: ['hard to read'] }]);
  });
  it('with images blocked shows alternative texts', () => {
    const { html = '', losses } = arrival('no-images');
    expect(html).not.toContain('<img');
    expect(html).toContain('>The map of the garden</span>');
    expect(losses.map(({ what, instead }) => [what, instead])).toEqual([
      ['an image', 'its alternative text in its place'],
      ['an image', 'nothing in its place'],
    ]);
  });
  it('on a small screen loses what does not fit', () => {
    expect(lost('narrow')).toEqual([]);
    const wide =
      '| Arrangement | Responsible | Telephone | Confirmation |\n|---|---|---|---|\n| Wheelchairs | Groundskeeping | +353209100123 | Unconfirmed |\n';
    expect(lost('narrow', wide)).toEqual(['a part of the table']);
  });
  it('as plain text has no emphasis, colours or panels', () => {
    expect(arrival('plain').text).toBe(message.text);
    expect(lost('plain')).toEqual(['emphasis', 'colours', 'an image', 'the panel around words']);
  });
  it('that is very long may be cut', () => {
    const long = 'Words that go on. '.repeat(40);
    expect(lost('page', `${long}\n\n`.repeat(160))).toEqual(['the end of the message']);
    expect(lost('plain', `${long}\n\n`.repeat(160))).toEqual([]);
  });
  it('is read aloud in order, with what each part is', () => {
    const spoken = arrival('aloud').spoken?.map(({ as, words }) => `${as}|${words}`);
    expect(spoken).toEqual([
      'heading 1|Your visit',
      '|Dear friend, come by the gate [link] with a map.',
      '|[image: The map of the garden] and [image]',
      'list, 2 items|',
      '•|one',
      '•|two',
      'quotation|',
      '|A quotation',
      'table, 2 columns, 2 rows|',
      'Bed|1',
      'What grows there|Ferns',
      '|Bring a coat.',
      'link|Book',
      'code|code',
    ]);
    expect(lost('aloud')).toEqual(['colours', 'an image']);
  });
  it('says the language of words in another one', () => {
    const irish = rendered({ body: '<span lang="ga">Fáilte</span> to all' });
    expect(arrival('aloud', irish).spoken).toMatchObject([{ words: '[Irish: Fáilte] to all' }]);
  });
});
