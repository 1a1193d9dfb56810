// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { useScreenHeight } from '../ui/testing/screenHeight';
import { FOLDER, summary } from '../ui/testing/made';
import { MAEVE, openPage, screen, settled, type Answers, type Page } from '../ui/testing/page';

let page: Page;
useScreenHeight();
afterEach(() => {
  page.close();
});

const TEXTS = [
  summary('visit', 'Group visit confirmed', { tags: ['spring'], reviewBy: '2026-03-01', owner: 'Maeve Quill' }),
  summary('rota', 'Volunteer rota', { state: 'not published', offered: false, updatedAt: '2026-11-25T09:00:00.000Z' }),
  summary('hours', 'Opening hours', { kind: 'block' }),
  summary('old', 'Old letter', { binned: true }),
];
const USUAL: Answers = {
  'GET /texts': TEXTS,
  'GET /folders': [FOLDER],
  'GET /requests': [],
  'GET /people': [],
  'GET /fills': [],
};
async function open(path: string, answers: Answers = {}): Promise<void> {
  page = await openPage(path, { ...USUAL, ...answers });
  await screen.findByRole('heading', { name: 'Catalogue' });
  await settled();
}
const options = (): string[] => screen.getAllByRole('option').map(({ textContent }) => textContent ?? '');
const line = (): HTMLElement => screen.getByRole('searchbox', { name: 'Filter the list' });

describe('the catalogue', () => {
  it('lists texts that are not in the bin, with how many there are', async () => {
    await open('/catalogue');
    expect(options().join()).toMatch(/Group visit confirmed.*Opening hours.*Volunteer rota/);
    expect(options().join()).not.toContain('Old letter');
    expect(screen.getByText('3 texts')).toBeTruthy();
  });
  it('is filtered by words and by conditions, which are said as they were understood, and cleared', async () => {
    await open('/catalogue');
    await page.user.type(line(), 'tagged spring');
    expect(options()).toHaveLength(1);
    expect(screen.getByText('tagged spring')).toBeTruthy();
    await page.user.click(screen.getByRole('button', { name: 'Clear' }));
    expect(options()).toHaveLength(3);
    await page.user.type(line(), 'zebra');
    expect(screen.getByText('No text matches this filter.')).toBeTruthy();
    expect(screen.queryByRole('option')).toBeNull();
  });
  it('goes from the filter into the list by arrow', async () => {
    await open('/catalogue');
    await page.user.type(line(), '{ArrowDown}');
    expect(document.activeElement?.getAttribute('role')).toBe('listbox');
  });
  it('says what to do next while nothing is chosen: reviews that are due, what changed last, requests', async () => {
    await open('/catalogue', {
      'GET /requests': [
        {
          ...{ id: 'r1', text: 'rota', title: 'Volunteer rota', revision: 1, note: 'For May', who: 'Tomasz' },
          ...{ mine: false, at: '2026-11-20T09:00:00.000Z', state: 'open' },
          report: { messages: 3, set: 'Spring', errors: 0, warnings: 0, findings: [] },
        },
      ],
    });
    expect(screen.getByRole('link', { name: '1 request to publish' })).toBeTruthy();
    const due = screen.getByRole('region', { name: 'Review due' });
    expect(due.textContent).toContain('Group visit confirmed');
    expect(due.textContent).toMatch(/by (1 March|March 1)/);
    expect(screen.getByRole('region', { name: 'Recently changed' }).querySelector('a')?.textContent).toBe(
      'Volunteer rota',
    );
  });
  it('keeps what is chosen in the address, and marks it where it is come to by that', async () => {
    await open('/catalogue/rota');
    expect(screen.getByRole('option', { selected: true }).textContent).toContain('Volunteer rota');
    await page.user.click(screen.getByRole('option', { name: /Group visit/ }));
    await settled();
    expect(page.router.currentRoute.value.params.name).toBe('visit');
  });
  it('shows the bin, where texts are restored', async () => {
    await open('/catalogue/old?view=bin', { 'POST /texts/many': undefined });
    expect(options()).toHaveLength(1);
    expect(screen.getByText('In the bin.')).toBeTruthy();
    await page.user.click(screen.getByRole('button', { name: 'Restore' }));
    await settled();
    expect(page.seen.some(({ name }) => name === 'POST /texts/many')).toBe(true);
  });
  it('offers a colleague to fill, and not to write', async () => {
    await open('/catalogue', {
      'GET /me': { ...MAEVE, role: 'colleague' },
      'GET /texts': TEXTS.map((text) => ({ ...text, mayWrite: false })),
    });
    expect(screen.queryByRole('button', { name: 'Start a text' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Import and export' })).toBeNull();
    expect(screen.getByText(/fills it/)).toBeTruthy();
  });
  it('has words and a way on where it is empty', async () => {
    await open('/catalogue', { 'GET /texts': [] });
    expect(screen.getByText('This folder is empty.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Start a text' })).toBeTruthy();
  });
});
