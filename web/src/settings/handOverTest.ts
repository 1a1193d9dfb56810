/** A test message for the clipboard, and what of its look is left when it comes back from a mail program. */
import type { HandOverWays } from '@vocabula/contract';

/** A green point: an image of our own, small enough to travel in the words. */
const IMAGE =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAwAAAAMCAIAAADZF8uwAAAAFUlEQVR42mOQy0sjiBhGFY0qwq8IAMvFFVEqBgeSAAAAAElFTkSuQmCC';
const OPENING = 'A test from Vocabula';
const LOOK = 'font-family:Georgia,serif;font-size:18px;line-height:27px;color:#1E6E66';
const GREEN = 'rgb(30, 110, 102)';

export const TEST_HTML = `<p style="${LOOK}">${OPENING}, in green Georgia</p><ul><li style="${LOOK}">one <b>bold</b> word</li><li style="${LOOK}">a point of colour: <img src="${IMAGE}" alt="green point" width="12" height="12"></li></ul>`;
export const TEST_TEXT = `${OPENING}\n\n- one bold word\n- a point of colour: [green point]\n`;

/** What of the test there is in what came back. */
export type Arrived = Readonly<Record<'font' | 'size' | 'colour' | 'bold' | 'list' | 'image', boolean>>;
const NAMES: Readonly<Record<keyof Arrived, string>> = {
  font: 'the font',
  size: 'the size',
  colour: 'the colour',
  bold: 'bold words',
  list: 'the list',
  image: 'the image',
};

/** Looks at a document that shows what came back, by the styles that it computes. */
export function arrivedIn(shown: Document): Arrived {
  const words = shown.createTreeWalker(shown.body, NodeFilter.SHOW_TEXT);
  const elementOf = (pattern: RegExp): Element | null => {
    words.currentNode = shown.body;
    while (words.nextNode())
      if (pattern.test(words.currentNode.textContent ?? '')) return words.currentNode.parentElement;
    return null;
  };
  const styleOf = (element: Element | null): CSSStyleDeclaration | undefined =>
    element ? shown.defaultView?.getComputedStyle(element) : undefined;
  const opening = styleOf(elementOf(/A\s+test\s+from/));
  const bold = elementOf(/bold/);
  return {
    font: opening?.fontFamily.includes('Georgia') ?? false,
    // Programs that count in points come back with a share of a pixel more or less.
    size: Math.abs(Number.parseFloat(opening?.fontSize ?? '') - 18) < 0.7,
    colour: opening?.color === GREEN,
    bold: bold?.closest('b, strong') != null || Number.parseInt(styleOf(bold)?.fontWeight ?? '', 10) >= 600,
    list: bold?.closest('li, [role="listitem"]') != null,
    image: shown.querySelector('img[src]:not([src=""])') !== null,
  };
}

/** The same of pasted HTML, which is shown out of sight, without scripts, for as long as it is looked at. */
export async function arrivedOf(html: string): Promise<Arrived> {
  const frame = Object.assign(document.createElement('iframe'), { srcdoc: html, title: 'What came back' });
  frame.sandbox.add('allow-same-origin');
  frame.style.cssText = 'position:fixed;inset:auto 100% 100% auto;width:640px;height:400px';
  const loaded = new Promise((resolve) => frame.addEventListener('load', resolve, { once: true }));
  document.body.append(frame);
  await loaded;
  const { contentDocument } = frame;
  const arrived = contentDocument ? arrivedIn(contentDocument) : undefined;
  frame.remove();
  return arrived ?? { font: false, size: false, colour: false, bold: false, list: false, image: false };
}

/** How to hand over to a program that keeps so much. */
export const waysFor = ({ font, colour, bold, list, image }: Arrived): Pick<HandOverWays, 'look' | 'images'> => ({
  look: font && colour ? 'house' : bold || list ? 'structure' : 'plain',
  images: image,
});

/** What was lost, as a sentence. */
export function lossWords(arrived: Arrived): string {
  const lost = (Object.keys(NAMES) as (keyof Arrived)[]).filter((part) => !arrived[part]).map((part) => NAMES[part]);
  return lost.length === 0 ? 'Everything arrived.' : `Lost on the way: ${lost.join(', ')}.`;
}
