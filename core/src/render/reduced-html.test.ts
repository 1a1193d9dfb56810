import { describe, expect, it } from 'vitest';
import { rendered } from '../testing/build.js';
import { program } from '../testing/build.js';
import { render } from './render.js';
import { forPasting, structureOnly, withoutImages } from './reduced-html.js';

const body = `# Head

<div data-panel="moss">

In a panel, with **bold** and ![a map](assets/map.png)

| A | B |
|---|---|
| 1 | 2 |

</div>

<a data-button href="https://x.example">Book</a>

- item`;

describe('a message for pasting', () => {
  it('is its blocks with their look, in its language, without a page or a frame', () => {
    const compiled = program({ body: 'Fáilte', front: 'kind: message\nsubject: S\nlocale: ga-IE' });
    const message = render(compiled, { today: '2026-11-27' });
    const html = forPasting(compiled, message);
    expect(html).toMatch(
      /^<div lang="ga-IE" dir="ltr"><p style="[^"]*font-family:[^"]*color:#[^"]*">Fáilte<\/p><\/div>$/,
    );
    expect(html).not.toMatch(/<(?:table|style|body|title)/);
  });
  it('with its structure only keeps headings, lists, data tables, emphasis and links, and no look', () => {
    const html = structureOnly(rendered({ body }).fragment);
    expect(html).not.toMatch(/style=|class=|bgcolor|cellpadding|presentation/);
    expect(html).toContain('<h1>Head</h1>');
    expect(html).toContain('<strong>bold</strong>');
    expect(html.match(/<table>/g)).toHaveLength(1);
    expect(html).toMatch(
      /<div><p>In a panel.*<table><thead><tr><th>A<\/th>.*<td>2<\/td><\/tr><\/tbody><\/table><\/div>/s,
    );
    expect(html).toContain('<div><a href="https://x.example">Book</a></div>');
    expect(html).toContain('<ul><li>item</li></ul>');
    const tags = (pattern: RegExp): number => html.match(pattern)?.length ?? 0;
    expect(tags(/<div/g)).toBe(tags(/<\/div/g));
    expect(tags(/<td|<tr|<tbody/g)).toBe(tags(/<\/td|<\/tr|<\/tbody/g));
  });
  it('has the words of its images where there are none', () => {
    expect(withoutImages(rendered({ body }).fragment)).toContain('[a map]');
  });
});
