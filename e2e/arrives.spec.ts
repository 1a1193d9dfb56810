/** What arrives is what was seen: pasted, and in each family of mail programs. */
import { pick } from './steps';
import { expect, test, type Page } from './journey.js';
import { compile, render } from '@vocabula/core';
import { arriveIn, FAMILIES, FAMILY_WORDS } from '@vocabula/core/arrives';
import { readText } from '@vocabula/core/markdown';

/** The contrast of two computed colours (WCAG 2.2). */
function contrastOf(a: string, b: string): number {
  const luminance = (colour: string): number => {
    const [red = 0, green = 0, blue = 0] = (colour.match(/\d+/g) ?? []).map((channel) => {
      const share = Number(channel) / 255;
      return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  };
  const [low = 0, high = 0] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
}

/** Every form that the manuscript can make. */
const FORMS = `---
vocabula: 1
kind: message
title: Every form
subject: "Every form"
to: "{{recipient.email}}"
---
# Heading one

## Heading two

### Heading three

Words with **bold**, *italic*, ~~struck~~, \`code\`, [a link](https://x.example), <span data-colour="moss">colour</span> and <mark data-colour="moss">highlight</mark>.

<p align="center">In the middle</p>

- item
- another

1. first

> A quotation

| Head | Other |
|---|--:|
| cell | right |

<div data-panel="moss">

In a panel

</div>

<a data-button href="https://x.example/book">Book</a>

<a data-button href="https://x.example/right" align="center">In the middle too</a>

---

\`\`\`
a block of code
\`\`\`
`;

/** How a word looks: what a reader would notice. */
interface Look {
  readonly words: string;
  readonly look: Readonly<Record<string, string>>;
}
/** Computed styles of every run of words inside an element, and of the cell or block around it. */
const looksOf = (page: Page, within: string, frame?: string): Promise<Look[]> => {
  const root = frame ? page.frameLocator(frame).locator(within) : page.locator(within);
  return root.evaluate((element) => {
    const view = element.ownerDocument.defaultView as Window;
    const looks: Look[] = [];
    /** The first colour that lies under it. */
    const backgroundOf = (start: Element): string => {
      for (let each: Element | null = start; each; each = each.parentElement) {
        const { backgroundColor } = view.getComputedStyle(each);
        if (backgroundColor !== 'rgba(0, 0, 0, 0)') return backgroundColor;
      }
      return '';
    };
    const walker = element.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) {
      const words = (walker.currentNode.textContent ?? '').replace(/\s+/g, ' ').trim();
      const parent = walker.currentNode.parentElement;
      if (words === '' || !parent) continue;
      const own = view.getComputedStyle(parent);
      const cell = parent.closest('td, th, blockquote, p, h1, h2, h3, li, pre');
      const around = cell ? view.getComputedStyle(cell) : own;
      const look = {
        font: own.fontFamily,
        size: own.fontSize,
        line: own.lineHeight,
        colour: own.color,
        weight: own.fontWeight,
        italic: own.fontStyle,
        underlined: parent.closest('a') ? view.getComputedStyle(parent.closest('a') as Element).textDecorationLine : '',
        link: (parent.closest('a')?.getAttribute('href') ?? '').replace(/\/$/, ''),
        behind: backgroundOf(parent),
        padding: cell?.matches('td, th') ? around.padding : '',
        lines: cell?.matches('td, th') ? `${around.borderBottomWidth} ${around.borderLeftWidth}` : '',
        aligned: around.textAlign.replace(/^(?:-webkit-)?left$/, 'start'),
      };
      // Word by word: where a run ends is nothing that a reader sees.
      for (const word of words.split(' ')) looks.push({ words: word, look });
    }
    return looks;
  });
};

test('every form keeps its look in every family that has rich text', async ({ page }) => {
  const program = compile({ name: 'forms', document: readText(FORMS).document }, { library: { get: () => undefined } });
  const message = render(program, { today: '2026-11-27', recipient: { email: 'ann@x.example' } });
  await page.setContent(message.html);
  const whole = await looksOf(page, 'body');
  expect(whole.length).toBeGreaterThan(20);
  for (const family of FAMILIES) {
    const { html } = arriveIn(family, message, 'en-GB');
    if (html === undefined) continue;
    await page.setContent(html);
    // Where dark is forced all colours are others by design, and nothing else is.
    const compared = (looks: readonly Look[]): Look[] =>
      family === 'dark'
        ? looks.map(({ words, look }) => ({ words, look: { ...look, colour: '', behind: '' } }))
        : [...looks];
    expect([family, compared(await looksOf(page, 'body'))]).toEqual([family, compared(whole)]);
  }
});

test('in dark colours, the house’s own or forced ones, every word can be read', async ({ page }) => {
  const program = compile({ name: 'forms', document: readText(FORMS).document }, { library: { get: () => undefined } });
  const message = render(program, { today: '2026-11-27', recipient: { email: 'ann@x.example' } });
  await page.emulateMedia({ colorScheme: 'dark' });
  for (const html of [message.html, arriveIn('dark', message, 'en-GB').html ?? '']) {
    await page.setContent(html);
    const looks = await looksOf(page, 'body');
    const [first] = looks;
    // They are others than on light pages, and dark ones lie under them.
    expect(first?.look.colour).not.toBe('rgb(32, 38, 46)');
    for (const { words, look } of looks) {
      const contrast = contrastOf(look.colour ?? '', look.behind ?? '');
      expect([words, Math.floor(contrast * 10) / 10 >= 4.5]).toEqual([words, true]);
    }
  }
});

test('copied with our look and pasted into an editable page, it looks as it did in the proof', async ({
  page,
  context,
}) => {
  const { document } = readText(FORMS);
  const made = await (
    await page.request.post('/api/texts', { data: { kind: 'message', title: 'Every form', document } })
  ).json();
  await page.request.post(`/api/versions/${made.name}/publish`, { data: { revision: made.revision, note: 'x' } });
  const fill = await (await page.request.post('/api/fills', { data: { text: made.name } })).json();
  await page.request.put(`/api/fills/${fill.id}`, { data: { recipient: { email: 'ann@x.example' } } });
  await page.goto(`/fill/${fill.id}`);
  await expect(page.frameLocator('iframe[title="The message"]').locator('body')).toContainText('In a panel');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Copied with our look.')).toBeVisible();
  const seen = await looksOf(page, 'body', 'iframe[title="The message"]');

  const elsewhere = await context.newPage();
  await elsewhere.setContent('<div id="mail" contenteditable style="font: 13px/15px sans-serif; color: #888">.</div>');
  await elsewhere.locator('#mail').click();
  await elsewhere.keyboard.press('Control+a');
  await elsewhere.keyboard.press('Control+v');
  await expect(elsewhere.locator('#mail')).toContainText('In a panel');
  const pasted = await looksOf(elsewhere, '#mail');
  expect(pasted).toEqual(seen);
});

test('as it arrives: each family beside the original, what is lost, two families side by side', async ({ page }) => {
  await page.goto('/proof/workshop-booked/arrives');
  const families = page.getByRole('navigation', { name: 'Families of mail programs' });
  for (const family of FAMILIES) await expect(families).toContainText(FAMILY_WORDS[family].name);
  await families.getByRole('button', { name: /Word-processor engine/ }).click();
  await expect(page.getByRole('region', { name: 'What is lost' })).toContainText('colours for dark pages');
  await expect(page.frameLocator('iframe[title="Word-processor engine"]').locator('body')).toContainText(
    'Dear Siobhán,',
  );
  await expect(page.frameLocator('iframe[title="The original"]').locator('body')).toContainText('Dear Siobhán,');
  await page.keyboard.press('F9');
  await expect(page.frameLocator('iframe[title="The original"]').locator('body')).toContainText('Dear Tomás,');
  await families.getByRole('button', { name: /Read aloud/ }).click();
  await expect(page.getByRole('list', { name: 'Read aloud' })).toContainText(
    /table, 2 columns, 2 rows\s+Name\s+Ann Example/,
  );
  await pick(page.getByLabel('Compare with'), 'Small screen');
  await expect(page.locator('iframe[title="Small screen"]')).toHaveCSS('width', '360px');
});
