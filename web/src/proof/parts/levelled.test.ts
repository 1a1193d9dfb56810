// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { levelled } from './levelled';

/** A page whose blocks stand at those heights, as far as layout goes here. */
function page(heights: readonly number[]): Document {
  const made = document.implementation.createHTMLDocument();
  made.body.innerHTML = `<table><tbody><tr><td>${heights.map(() => '<p>x</p>').join('')}</td></tr></tbody></table>`;
  made.querySelectorAll('p').forEach((block, at) => {
    const room = (): number =>
      [...made.querySelectorAll('div')].reduce(
        (sum, each) =>
          each.compareDocumentPosition(block) & Node.DOCUMENT_POSITION_FOLLOWING
            ? sum + Number.parseInt(each.style.height, 10)
            : sum,
        0,
      );
    block.getBoundingClientRect = () => ({ top: (heights[at] ?? 0) + room() }) as DOMRect;
  });
  return made;
}
const tops = (made: Document): number[] =>
  [...made.querySelectorAll('p')].map((block) => block.getBoundingClientRect().top);

it('puts room before the block that stands higher, whichever page it is on', () => {
  const [left, right] = [page([0, 40, 80]), page([0, 64, 90])];
  levelled(left, right);
  expect(tops(left)).toEqual(tops(right));
  expect(tops(left)).toEqual([0, 64, 104]);
});
it('leaves pages alone that have other blocks', () => {
  const [left, right] = [page([0, 40]), page([0, 64, 90])];
  levelled(left, right);
  expect(left.querySelector('div')).toBeNull();
});
