/**
 * Each kind of part by key alone, in forced colours and at twice the size: what has the focus can be told, what is a
 * control has an edge, and what was pressed is in view.
 */
import { expect, test, type Locator, type Page } from './journey.js';

/** A part: where it is, how it is found, and what is done by key to see more of it. */
interface Part {
  readonly name: string;
  readonly path: string;
  readonly find: (page: Page) => Locator;
  /** Keys that open it, and what is there then; left out for what does not open. */
  readonly opens?: { readonly keys: string; readonly shows: (page: Page) => Locator };
  /** It is told by something else than an edge: a line below, a mark. */
  readonly bare?: boolean;
  /** It stands in the half of Write that a narrow window does not show first. */
  readonly other?: boolean;
  /** It is as large as there is room for, and scrolls. */
  readonly fills?: boolean;
}
const PARTS: readonly Part[] = [
  { name: 'a button', path: '/catalogue', find: (page) => page.getByRole('button', { name: 'Start a text' }) },
  { name: 'a text field', path: '/catalogue', find: (page) => page.getByLabel('Filter the list') },
  {
    name: 'a select',
    path: '/catalogue',
    find: (page) => page.getByRole('combobox', { name: 'Order' }),
    opens: { keys: 'ArrowDown', shows: (page) => page.locator('.p-select-overlay').getByRole('option').first() },
    bare: true,
  },
  {
    name: 'a menu',
    path: '/catalogue',
    find: (page) => page.getByRole('button', { name: 'Import and export' }),
    opens: { keys: 'Enter', shows: (page) => page.getByRole('menuitem').first() },
    bare: true,
  },
  {
    name: 'a date',
    path: '/fill/new?template=group-visit-confirmed',
    find: (page) => page.getByRole('button', { name: 'Calendar' }).first(),
    opens: { keys: 'Enter', shows: (page) => page.getByRole('dialog').first() },
    bare: true,
  },
  {
    name: 'a tick',
    path: '/settings/handing-over',
    find: (page) => page.getByRole('checkbox', { name: 'Mon' }),
    bare: true,
  },
  {
    name: 'one of several',
    path: '/settings/handing-over',
    find: (page) => page.getByLabel('As plain text'),
    bare: true,
  },
  {
    name: 'a tab',
    path: '/write/group-visit-confirmed',
    find: (page) => page.getByRole('tab', { name: /^Variables/ }),
    other: true,
    bare: true,
  },
  {
    name: 'a popover',
    path: '/write/group-visit-confirmed',
    find: (page) => page.getByRole('button', { name: 'Link', exact: true }),
    opens: { keys: 'Enter', shows: (page) => page.locator('.p-popover').first() },
    bare: true,
  },
  { name: 'a grid', path: '/samples', find: (page) => page.getByRole('grid'), bare: true, fills: true },
  { name: 'a link', path: '/fill', find: (page) => page.getByRole('link', { name: 'Recipients' }), bare: true },
];

/** Gives a part the focus as a key would, so that the browser shows it. */
async function focus(page: Page, part: Locator, other = false): Promise<void> {
  // In a narrow window Write shows one of its halves at a time.
  const half = page.getByRole('button', { name: 'Proof and tray' });
  if (other && (page.viewportSize()?.width ?? 0) < 900) await half.click();
  await part.waitFor();
  await page.keyboard.press('Shift');
  await part.focus();
}
/** How the focus shows on what has it, or on what is around it: the width of an outline, or a change of its edge. */
const shownFocus = (part: Locator): Promise<number> =>
  part.evaluate((element) => {
    const around = [
      element,
      element.parentElement,
      element.parentElement?.parentElement,
      ...element.querySelectorAll('*'),
    ];
    const widths = around.map((each) => {
      if (!each) return 0;
      const { outlineStyle, outlineWidth } = getComputedStyle(each);
      return outlineStyle === 'none' ? 0 : Number.parseFloat(outlineWidth);
    });
    return Math.max(...widths);
  });
const edge = (part: Locator): Promise<number> =>
  part.evaluate((element) =>
    Math.max(
      ...[element, element.parentElement].map((each) =>
        each ? Number.parseFloat(getComputedStyle(each).borderBottomWidth) : 0,
      ),
    ),
  );
/** Whether a point of a part can be seen: it is in the window, and nothing lies over it. */
const isInView = (part: Locator): Promise<boolean> =>
  part.evaluate((element) => {
    const { left, right, top, bottom } = element.getBoundingClientRect();
    const [x, y] = [
      Math.max(0, left) / 2 + Math.min(innerWidth, right) / 2,
      Math.max(0, top) / 2 + Math.min(innerHeight, bottom) / 2,
    ];
    const there = document.elementFromPoint(x, y);
    return (
      right <= innerWidth + 1 && left >= -1 && there !== null && (element.contains(there) || there.contains(element))
    );
  });

test.setTimeout(60_000);

for (const { name, path, find, opens, bare, fills, other } of PARTS) {
  test(`${name} shows its edge and its focus in forced colours, and is worked by key`, async ({ page }) => {
    await page.emulateMedia({ forcedColors: 'active' });
    await page.goto(path);
    const part = find(page);
    await focus(page, part, other);
    await expect.poll(() => shownFocus(part)).toBeGreaterThan(0);
    if (!bare) expect(await edge(part)).toBeGreaterThan(0);
    if (!opens) return;
    await page.keyboard.press(opens.keys);
    await expect(opens.shows(page)).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(opens.shows(page)).toBeHidden();
    await expect(part).toBeFocused();
  });
  test(`${name} is in view at twice the size`, async ({ page }) => {
    // 1280 × 800 at 200 %.
    await page.setViewportSize({ width: 640, height: 400 });
    await page.goto(path);
    const part = find(page);
    await focus(page, part, other);
    const seen = fills ? part.getByRole('columnheader').first() : part;
    await seen.scrollIntoViewIfNeeded();
    await expect.poll(() => isInView(seen)).toBe(true);
    if (!opens) return;
    await page.keyboard.press(opens.keys);
    await expect(opens.shows(page)).toBeVisible();
    await expect.poll(() => isInView(opens.shows(page))).toBe(true);
  });
}
