// @vitest-environment happy-dom
import type { StoredTable, TableSummary } from '@vocabula/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useScreenHeight } from '../ui/testing/screenHeight';
import { openPage, screen, settled, within, type Answers, type Page } from '../ui/testing/page';

let page: Page;
useScreenHeight();
afterEach(() => {
  page.close();
});

const summary = (id: string, title: string, more: Partial<TableSummary> = {}): TableSummary => ({
  ...{ id, title, use: 'sample', rows: 2, revision: 1, updatedAt: '2026-11-20T09:00:00.000Z', ownOf: [], keys: [] },
  ...{ mayChange: true, mayShare: true },
  ...more,
});
const SPRING: StoredTable = {
  ...summary('s1', 'Spring groups'),
  columns: [
    { key: 'name', name: 'Name', type: 'text' },
    { key: 'party', name: 'Party', type: 'number' },
    { key: 'fee', name: 'Fee', type: 'number', value: 'party * 4.5' },
  ],
  cells: [
    { name: 'Ann', party: '2', fee: '9' },
    { name: '', party: '3', fee: '13.5' },
  ],
  positions: [0, 1],
  problems: {},
};
const changed = { ...summary('s1', 'Spring groups', { revision: 2 }) };
async function open(path: string, answers: Answers = {}): Promise<void> {
  page = await openPage(path, {
    'GET /tables': [summary('s1', 'Spring groups'), summary('l1', 'Group leaders', { use: 'recipients', rows: 12 })],
    'GET /tables/{id}': SPRING,
    'GET /texts': [],
    'PATCH /tables/{id}': changed,
    ...answers,
  });
  await screen.findByRole('heading', { name: 'Samples' });
  await settled();
}
const cell = (name: string): HTMLElement => screen.getByRole('gridcell', { name });
const grid = (): HTMLElement => screen.getByRole('grid', { name: 'Spring groups' });

describe('samples', () => {
  it('list sets for proofs and lists of people apart, each with its rows', async () => {
    await open('/samples');
    expect(screen.getByRole('link', { name: /Spring groups/ }).textContent).toContain('2');
    expect(screen.getByRole('link', { name: /Group leaders/ }).textContent).toContain('12');
    expect(screen.getByText('for proofs; never mailed')).toBeTruthy();
  });
  it('show a set with what is in each column', async () => {
    await open('/samples/s1');
    expect(
      within(grid())
        .getAllByRole('columnheader')
        .map(({ textContent }) => textContent?.trim()),
    ).toEqual([
      expect.stringContaining('1 empty · 1 distinct'),
      expect.stringContaining('Party'),
      expect.stringContaining('Fee ='),
    ]);
    expect(cell('Ann')).toBeTruthy();
  });
  it('are edited by typing into a cell; what is calculated opens its formula instead', async () => {
    let stored = SPRING;
    await open('/samples/s1', {
      'GET /tables/{id}': () => stored,
      'PATCH /tables/{id}': () => {
        stored = { ...SPRING, revision: 2, cells: [{ ...SPRING.cells[0], name: 'Zoë' }, SPRING.cells[1]!] };
        return changed;
      },
    });
    grid().focus();
    await page.user.keyboard('Zoë{Enter}');
    await vi.waitFor(() => expect(page.sent('PATCH /tables/{id}')).toHaveLength(1), 20_000);
    expect(JSON.stringify(page.sent('PATCH /tables/{id}'))).toContain('Zoë');
    expect(await screen.findByRole('gridcell', { name: 'Zoë' })).toBeTruthy();
    await page.user.click(cell('9'));
    grid().focus();
    await page.user.keyboard('x');
    expect(screen.queryByRole('textbox', { name: /^Fee, row/ })).toBeNull();
    await page.user.keyboard('{Enter}');
    await settled();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Formula/ }).value).toBe('party * 4.5');
  });
  it('take pasted rows from the current cell on, and leave calculated columns alone', async () => {
    await open('/samples/s1');
    grid().focus();
    grid().dispatchEvent(
      Object.assign(new Event('paste', { bubbles: true, cancelable: true }), {
        clipboardData: { getData: () => 'Cléo\t4\t99\nDag\t5\t99\nEve\t6\t99\n' },
      }),
    );
    await vi.waitFor(() => expect(JSON.stringify(page.sent('PATCH /tables/{id}'))).toContain('Eve'), 20_000);
    const sent = JSON.stringify(page.sent('PATCH /tables/{id}'));
    expect(sent).toContain('Cléo');
    expect(sent).toContain('add-rows');
    expect(sent).not.toContain('99');
  });
  it('have the form of a column beside them, and close it', async () => {
    await open('/samples/s1');
    await page.user.click(within(grid()).getByRole('button', { name: /^Party|Party/ }));
    await settled();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Party');
    await page.user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(screen.queryByRole('button', { name: 'Cancel' })).toBeNull();
  });
  it('say what belongs here where there are none', async () => {
    await open('/samples', { 'GET /tables': [] });
    expect(screen.getByText('No recipients yet')).toBeTruthy();
    expect(screen.getAllByRole('button', { name: 'Import…' }).length).toBeGreaterThan(0);
  });
});
