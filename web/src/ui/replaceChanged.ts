/** Changes the content of a proof in place, so that nothing flickers, and shows what changed. */
import { PROOF_DATA } from '@vocabula/core';
import { assetUrl } from '../api/client';

/**
 * Replaces content by new content. Blocks at both ends that stay the same are not touched, and a line or summary that
 * had the focus has it again.
 * @param mark marks the new content as the old is marked, so that what stays the same is seen to be the same
 */
export function replaceChanged(
  body: HTMLElement,
  fragment: string,
  mark: (content: ParentNode) => void = () => {},
): void {
  const template = body.ownerDocument.createElement('template');
  template.innerHTML = fragment;
  for (const image of template.content.querySelectorAll('img')) fetchOwn(image);
  mark(template.content);
  const focused = placeOf(body.ownerDocument.activeElement);
  const [old, next] = [[...body.childNodes], [...template.content.childNodes]];
  const same = (a: Node | undefined, b: Node | undefined): boolean => a?.isEqualNode(b ?? null) ?? false;
  let start = 0;
  while (start < Math.min(old.length, next.length) && same(old[start], next[start])) start += 1;
  let end = 0;
  while (end < Math.min(old.length, next.length) - start && same(old.at(-1 - end), next.at(-1 - end))) end += 1;
  const behind = old[old.length - end] ?? null;
  for (const node of old.slice(start, old.length - end)) node.remove();
  for (const node of next.slice(start, next.length - end)) body.insertBefore(node, behind);
  if (focused && !body.querySelector(':focus'))
    body.querySelector<HTMLElement>(focused)?.focus({ preventScroll: true });
}

/** How a line, or the summary of what is left out, is found again. */
function placeOf(element: Element | null): string | undefined {
  const line = element?.getAttribute(PROOF_DATA.line);
  if (line) return `[${PROOF_DATA.line}="${CSS.escape(line)}"]`;
  const path = element?.matches('summary') && element.parentElement?.getAttribute(PROOF_DATA.path);
  return path ? `details[${PROOF_DATA.path}="${CSS.escape(path)}"] > summary` : undefined;
}

/** Points an image to this server's copy; images of other servers are not fetched and show their alternative text. */
function fetchOwn(image: HTMLImageElement): void {
  const src = image.getAttribute('src') ?? '';
  if (src.startsWith('assets/')) image.setAttribute('src', assetUrl(src));
  else if (!src.startsWith('data:')) image.removeAttribute('src');
}

/** The text of each block of a page, by its path. */
export const blockTexts = (page: Document): Map<string, string> =>
  new Map([...page.body.children].map((child, index) => [pathOf(child, index), child.textContent ?? '']));
const pathOf = (block: Element, index: number): string => block.getAttribute(PROOF_DATA.path) ?? `#${index}`;

/** Underlines for a moment what changed in each block, between its common beginning and end. @param before texts by path */
export function highlightChanges(inside: Document, before: ReadonlyMap<string, string>): void {
  const view = inside.defaultView as
    (Window & { CSS?: { highlights?: Map<string, unknown> }; Highlight?: new (...ranges: Range[]) => unknown }) | null;
  if (!view?.CSS?.highlights || !view.Highlight) return;
  const ranges: Range[] = [];
  [...inside.body.children].forEach((child, index) => {
    const old = before.get(pathOf(child, index));
    const now = child.textContent ?? '';
    if (old === undefined || old === now) return;
    let start = 0;
    while (start < now.length && now[start] === old[start]) start += 1;
    let end = 0;
    while (
      end < now.length - start &&
      end < old.length - start &&
      now[now.length - 1 - end] === old[old.length - 1 - end]
    )
      end += 1;
    const range = textRange(child, start, now.length - end);
    if (range) ranges.push(range);
  });
  view.CSS.highlights.set('changed', new view.Highlight(...ranges));
  setTimeout(() => view.CSS?.highlights?.delete('changed'), 600);
}

function textRange(within: Element, from: number, to: number): Range | undefined {
  const inside = within.ownerDocument;
  const walker = inside.createTreeWalker(within, 4);
  const range = inside.createRange();
  let at = 0;
  let begun = false;
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const { length } = node.textContent ?? '';
    if (!begun && at + length >= from) {
      range.setStart(node, from - at);
      begun = true;
    }
    if (begun && at + length >= to) {
      range.setEnd(node, to - at);
      return range;
    }
    at += length;
  }
  return undefined;
}
