/** Brings the blocks of two pages that show one message level with each other. */

/** The blocks of a message, inside the frame that keeps it to its width. */
const blocksOf = (page: Document): HTMLElement[] => [
  ...page.querySelectorAll<HTMLElement>('body > table > tbody > tr > td > *'),
];

/** Puts room before blocks that stand higher than the same block of the other page. */
export function levelled(left: Document, right: Document): void {
  const [a, b] = [blocksOf(left), blocksOf(right)];
  if (a.length !== b.length) return;
  for (const [at, block] of a.entries()) {
    const other = b[at];
    if (!other) return;
    const difference = Math.round(other.getBoundingClientRect().top - block.getBoundingClientRect().top);
    if (Math.abs(difference) < 1) continue;
    const higher = difference > 0 ? block : other;
    const room = higher.ownerDocument.createElement('div');
    room.style.height = `${Math.abs(difference)}px`;
    higher.before(room);
  }
  for (const page of [left, right]) {
    const frame = page.defaultView?.frameElement as HTMLElement | null | undefined;
    if (frame) frame.style.height = `${page.documentElement.scrollHeight}px`;
  }
}
