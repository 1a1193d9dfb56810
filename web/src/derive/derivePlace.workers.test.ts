// @vitest-environment happy-dom
import type { PastWords, WorkingCopy } from '@vocabula/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { MAEVE, openPage, Refusal, screen, settled, within, type Answers, type Page } from '../ui/testing/page';

let page: Page;
afterEach(() => page.close());

const mail = (file: string, name: string, day: string, more = ''): PastWords => ({
  ...{ file, subject: 'Your visit', to: [`${name} <${name.toLowerCase()}@friends.example>`], day: '2027-01-10' },
  text: `Dear ${name},\n\nYour visit is on ${day} 2027. Please come to the north gate.${more}\n\nKind regards`,
});
const MAILS = [
  mail('a.eml', 'Ann', '4 March'),
  mail('b.eml', 'Bo', '5 April'),
  mail('c.eml', 'Cy', '16 May'),
  mail('d.eml', 'Dee', '27 June', ' The geese send their love.'),
];
async function open(answers: Answers = {}): Promise<void> {
  page = await openPage('/from-mails?in=f1', {
    'GET /convert/sent/texts': [{ text: 'visit', title: 'Group visit', messages: 12 }],
    'GET /convert/sent': MAILS,
    ...answers,
  });
  await screen.findByRole('heading', { name: 'From past mails' });
}
const compareSent = async (): Promise<void> => {
  await page.user.click(screen.getByRole('button', { name: 'Group visit' }));
  await screen.findByText(/match word for word/);
};
const slips = (): HTMLElement[] => within(screen.getByRole('list', { name: 'Mails' })).getAllByRole('listitem');

describe('from past mails', () => {
  it('begins with words on what belongs here, and with what was sent before', async () => {
    await open();
    expect(screen.getByText(/Drop mails of one kind here/)).toBeTruthy();
    expect(screen.getAllByRole('button', { name: 'Choose files…' }).length).toBeGreaterThan(0);
    expect(screen.getByText('12 messages')).toBeTruthy();
  });
  it('says how many mails match, lists those that do not first, and shows where they differ', async () => {
    await open();
    await compareSent();
    expect(screen.getByRole('status', { name: '' }).textContent).toBeDefined();
    expect(screen.getByText('3 of 4 match word for word')).toBeTruthy();
    const [first] = slips();
    expect(first?.textContent).toContain('d.eml');
    expect(first?.textContent).toMatch(/places? differs?/);
    await page.user.click(within(first!).getByRole('button', { name: 'd.eml' }));
    expect(slips()[0]?.textContent).toContain('The geese send their love.');
    await page.user.click(within(slips()[1]!).getByRole('button', { name: 'a.eml' }));
    expect(slips()[1]?.textContent).toContain('The template reproduces this mail exactly.');
  });
  it('are settled: a question is refused, of another kind, and taken back, each time with the score anew', async () => {
    await open();
    await compareSent();
    const table = (): HTMLElement => screen.getByRole('table', { name: 'What varies' });
    const said = (): HTMLElement | null => screen.queryByRole('list', { name: 'Said of the questions' });
    const settle = async (act: string): Promise<void> => {
      const [first] = within(table()).getAllByRole('button', { name: /^What .* is$/ });
      await page.user.click(first!);
      const item = await screen.findByRole('menuitem', { name: act });
      // The library hears of it where its words stand.
      await page.user.click(item.querySelector<HTMLElement>('[data-pc-section="itemcontent"]') ?? item);
    };
    await settle('text');
    await vi.waitFor(() => expect(said()?.textContent).toContain('text'));
    expect(await within(table()).findByText('text')).toBeTruthy();
    expect(await screen.findByText('3 of 4 match word for word')).toBeTruthy();
    await settle('Refuse: write what most say');
    expect(await screen.findByText('1 of 4 match word for word')).toBeTruthy();
    await page.user.click(screen.getByRole('button', { name: /^Take back: .*refused/ }));
    expect(await screen.findByText('3 of 4 match word for word')).toBeTruthy();
  });
  it('what is in one mail only is taken in as an option, and that is taken back', async () => {
    await open();
    await compareSent();
    await page.user.click(within(slips()[0]!).getByRole('button', { name: 'd.eml' }));
    await page.user.click(
      await screen.findByRole('button', { name: /^Take “The geese send their love\.” in as an option/ }),
    );
    expect(await screen.findByText('4 of 4 match word for word')).toBeTruthy();
    await page.user.click(screen.getByRole('button', { name: /^Take back: “The geese send their love\.”: taken in/ }));
    expect(await screen.findByText('3 of 4 match word for word')).toBeTruthy();
  });
  it('begins with what went to somebody, from their page', async () => {
    const calls: string[] = [];
    page = await openPage('/from-mails?address=ann%40x.example', {
      'GET /convert/sent/texts': [],
      'GET /convert/sent': ({ query }: { query: { address?: string } }) => {
        calls.push(query.address ?? '');
        return MAILS;
      },
    } as unknown as Answers);
    expect(await screen.findByText('3 of 4 match word for word')).toBeTruthy();
    expect(calls).toEqual(['ann@x.example']);
  });
  it('sets a common signature apart, which becomes one’s own', async () => {
    const signed = MAILS.map((each) => ({ ...each, text: `${each.text}\n\n-- \nMaeve Aldous\nLarkmoor` }));
    const made = { name: 'signature', revision: 1, updatedAt: '2026-11-20T09:00:00.000Z' };
    await open({
      'GET /convert/sent': signed,
      'GET /me': { ...MAEVE, profile: { ...MAEVE.profile, signature: '' } },
      'POST /texts': ({ body }) => ({ ...made, document: (body as WorkingCopy).document }),
      'POST /versions/{name}/publish': {},
      'PUT /me': ({ body }) => body,
    } as Answers);
    await compareSent();
    const said = await screen.findByRole('note', { name: 'Signature' });
    expect(said.textContent).toContain('“Maeve Aldous / Larkmoor”');
    await page.user.click(within(said).getByRole('button', { name: 'Make it mine' }));
    expect(await screen.findByText('This is your signature now, below new messages.')).toBeTruthy();
    expect(page.sent('PUT /me')).toMatchObject([{ signature: 'signature' }]);
    expect(JSON.stringify(page.sent('POST /texts'))).toContain('Maeve Aldous');
    expect(said.textContent).toContain('Yours stands below its messages.');
  });
  it('is computed again without a mail that is left out, and with it when it is taken in', async () => {
    await open();
    await compareSent();
    await page.user.click(screen.getByRole('button', { name: 'Leave d.eml out' }));
    expect(await screen.findByText('3 of 3 match word for word')).toBeTruthy();
    await page.user.click(screen.getByRole('button', { name: 'Take d.eml in again' }));
    expect(await screen.findByText('3 of 4 match word for word')).toBeTruthy();
  });
  it('asks for another mail where there is one only', async () => {
    await open({ 'GET /convert/sent': MAILS.slice(0, 1) });
    await page.user.click(screen.getByRole('button', { name: 'Group visit' }));
    expect(await screen.findByText('Add at least one more mail of the same kind.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Start with this' })).toBeNull();
  });
  it('names what varies, and takes another label for it', async () => {
    await open();
    await compareSent();
    const label = screen.getByRole<HTMLInputElement>('textbox', { name: /^Label of .*date/ });
    await page.user.clear(label);
    await page.user.type(label, 'Day of the visit');
    await page.user.tab();
    expect(label.value).toBe('Day of the visit');
  });
  it('saves the template as a working copy in the folder, with its answers as a sample set in made-up names', async () => {
    await open({
      'POST /texts': ({ body }) => ({
        ...{ name: 'your-visit', revision: 1, updatedAt: '2026-11-20T09:00:00.000Z' },
        document: (body as WorkingCopy).document,
      }),
      'POST /tables': {
        ...{ id: 's1', use: 'sample', title: 'Your visit', rows: 4, revision: 1, updatedAt: '', ownOf: [], keys: [] },
        ...{ mayChange: true, mayShare: true },
      },
    });
    await compareSent();
    await page.user.click(screen.getByRole('button', { name: 'Start with this' }));
    await settled();
    const [made] = page.sent('POST /texts') as { folder: string; kind: string; document: unknown }[];
    expect([made?.kind, made?.folder]).toEqual(['message', 'f1']);
    expect(JSON.stringify(made?.document)).toContain('Please come to the north gate.');
    expect(JSON.stringify(made?.document)).not.toContain('4 March');
    const [set] = page.sent('POST /tables') as Blob[];
    const csv = (await set?.text()) ?? '';
    expect(csv.split('\n')[0]).toMatch(/^email,/i);
    expect(csv.trim().split('\n')).toHaveLength(5);
    expect(csv).not.toMatch(/ann@|bo@|Dee\b/);
    await vi.waitFor(() => expect(page.router.currentRoute.value.name).toBe('write'), 20_000);
  });
  it('leaves no text behind where its set cannot be saved', async () => {
    await open({
      'POST /texts': ({ body }) => ({
        ...{ name: 'your-visit', revision: 1, updatedAt: '2026-11-20T09:00:00.000Z' },
        document: (body as WorkingCopy).document,
      }),
      'POST /tables': () => {
        throw new Refusal(500, 'failed', 'The disk is full.');
      },
      'DELETE /texts/{name}': undefined,
    });
    await compareSent();
    await page.user.click(screen.getByRole('button', { name: 'Start with this' }));
    expect(await screen.findByText(/The disk is full/)).toBeTruthy();
    expect(page.seen.filter(({ name }) => name === 'DELETE /texts/{name}').map(({ params }) => params['name'])).toEqual(
      ['your-visit'],
    );
    expect(page.router.currentRoute.value.path).toBe('/from-mails');
  });
});
