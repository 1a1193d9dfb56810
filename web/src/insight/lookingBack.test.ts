// @vitest-environment happy-dom
import type { OutcomeGroup, SentenceInsight, TextInsight } from '@vocabula/contract';
import { visit, type TextDocument } from '@vocabula/core';
import { inlineOf } from '@vocabula/core/filling';
import { readText, writeText } from '@vocabula/core/markdown';
import { afterEach, describe, expect, it } from 'vitest';
import { FOLDER, ledgerRow, summary } from '../ui/testing/made';
import { MAEVE, openPage, screen, settled, within, type Answers, type Page } from '../ui/testing/page';

let page: Page;
afterEach(() => page.close());

const LEDGER = [
  ledgerRow('visit', 'Visit confirmed', {
    ...{ uses: 40, people: 5, lastUse: '2026-11-20T09:00:00.000Z', worked: 95, workedOf: 30 },
    reworded: { successes: 12, trials: 40 },
  }),
  ledgerRow('lost', 'Lost and found', { uses: 4, people: 1, answered: { successes: 1, trials: 4 } }),
];
const USUAL: Answers = {
  'GET /insight/ledger': LEDGER,
  'GET /texts': [summary('visit', 'Visit confirmed'), summary('lost', 'Lost and found', { tags: ['desk'] })],
  'GET /folders': [FOLDER],
};
const titles = (): (string | null)[] =>
  screen.getAllByRole('link', { name: /confirmed|found/ }).map((a) => a.textContent);

describe('the ledger', () => {
  it('has a row for each text: shares with their range from ten messages on, counts below', async () => {
    page = await openPage('/looking-back', USUAL);
    await screen.findByRole('table', { name: 'Texts and what happened to their messages' });
    const row = (name: RegExp): string => screen.getByRole('row', { name }).textContent ?? '';
    expect(row(/^Visit confirmed/)).toMatch(/18–45 % of 40/);
    expect(row(/^Lost and found/)).toContain('1of 4');
    expect(row(/^Lost and found/)).not.toContain('%');
    expect(screen.getByText(/2 texts, 44 messages/)).toBeTruthy();
    expect(screen.getByText('Figures are by text, never by colleague.')).toBeTruthy();
  });
  it('is asked for a period, which stands in the address', async () => {
    page = await openPage('/looking-back?time=all', USUAL);
    await screen.findByText('Visit confirmed');
    expect(page.seen.find(({ name }) => name === 'GET /insight/ledger')?.query).toEqual({});
    await page.router.push('/looking-back?time=days&from=2026-03-01&until=2026-03-31');
    await settled();
    expect(page.seen.filter(({ name }) => name === 'GET /insight/ledger').at(-1)?.query).toEqual({
      from: '2026-03-01',
      until: '2026-03-31',
    });
    expect(screen.getByLabelText('From')).toBeTruthy();
  });
  it('is filtered by a typed line as the catalogue is, and says where nothing matches', async () => {
    page = await openPage('/looking-back', USUAL);
    await screen.findByText('Visit confirmed');
    const line = screen.getByRole('searchbox', { name: 'Filter the ledger' });
    await page.user.type(line, 'tagged desk');
    expect(titles()).toEqual(['Lost and found']);
    await page.user.clear(line);
    await page.user.type(line, 'zebra');
    expect(screen.getByText('No text matches this filter.')).toBeTruthy();
  });
  it('is of one’s own messages for a colleague', async () => {
    page = await openPage('/looking-back', { ...USUAL, 'GET /me': { ...MAEVE, role: 'colleague' } });
    expect(await screen.findByText('Your own messages. Only you see these figures.')).toBeTruthy();
  });
});

const sentence = (at: number, words: string, more: Partial<SentenceInsight> = {}): SentenceInsight => ({
  ...{ text: 'visit', path: [0, 0], at, words, shown: 40, reworded: 0, takenOut: 0, replacements: [] },
  ...more,
});
const group = (label: string, successes: number, trials: number): OutcomeGroup => {
  const none = { successes: 0, trials: 0 };
  return { label, messages: trials, answered: { successes, trials }, opened: none, followed: none, bounced: none };
};
const TEXT: TextInsight = {
  ...{ name: 'visit', title: 'Visit confirmed', uses: 40, added: [{ words: 'See you then.', count: 3, of: 0 }] },
  sentences: [
    sentence(0, 'Dear [first_name],'),
    sentence(1, 'Please be on time.', {
      ...{ reworded: 12, takenOut: 2 },
      replacements: [{ words: 'Come when you can.', count: 9, all: [{ words: 'Come when you can.', count: 9 }] }],
    }),
  ],
  questions: [
    { key: 'first_name', label: 'First name', type: 'text', asked: 40, empty: 1, options: [] },
    {
      ...{ key: 'gate', label: 'Gate', type: 'choice', asked: 40, empty: 0, changed: 37 },
      usual: { words: 'North', count: 37 },
      options: [{ key: 'n', label: 'North', count: 37 }],
    },
  ],
  suggestions: [
    { kind: 'default', words: 'Make “North” the default of “Gate”?', evidence: '37 of 40 chose it.', about: 'gate' },
  ],
  outcomes: [
    { by: 'version', about: '', groups: [group('version 1', 48, 80), group('version 2', 56, 70)] },
    { by: 'answer', about: 'Gate', groups: [group('North', 3, 5), group('River', 20, 40)] },
  ],
};
const source = `---\ntitle: Visit confirmed\n---\nPlease be on time.\n`;

describe('one text', () => {
  it('begins with the sentence that is changed most, and says what was written instead', async () => {
    page = await openPage('/looking-back/visit', { ...USUAL, 'GET /insight/texts/{name}': TEXT });
    const chosen = await screen.findByRole('button', { name: 'Please be on time.' });
    expect(chosen.getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByRole('region', { name: 'The sentence' }).textContent).toContain('“Come when you can.” 9 ×');
    expect(screen.getByRole('button', { name: 'Dear [First name],' })).toBeTruthy();
    expect(screen.getByText('See you then.', { exact: false })).toBeTruthy();
    expect(screen.getByText('37 of 40 chose it.')).toBeTruthy();
    // The ledger is not asked for where it is not shown.
    expect(page.seen.some(({ name }) => name === 'GET /insight/ledger')).toBe(false);
  });
  it('says that a sentence was left as it is', async () => {
    page = await openPage('/looking-back/visit', { ...USUAL, 'GET /insight/texts/{name}': TEXT });
    await page.user.click(await screen.findByRole('button', { name: 'Dear [First name],' }));
    expect(screen.getByText('No other wording was used.')).toBeTruthy();
  });
  it('puts a replacement into the working copy, which is saved on what it was read as', async () => {
    const { document: made } = readText(source);
    let path: number[] = [];
    visit(made, (node, at) => void (JSON.stringify(inlineOf(node)).includes('on time') && (path = [...at])));
    const sentences = TEXT.sentences.slice(1).map((each) => ({ ...each, path, at: 0 }));
    page = await openPage('/looking-back/visit', {
      ...USUAL,
      'GET /insight/texts/{name}': { ...TEXT, sentences },
      'GET /texts/{name}': { name: 'visit', revision: 7, updatedAt: '2026-11-20T09:00:00.000Z', document: made },
      'PUT /texts/{name}': { name: 'visit', revision: 8, updatedAt: '2026-11-20T09:00:00.000Z', document: made },
    } as Answers);
    await page.user.click((await screen.findAllByRole('button', { name: 'Put it in Write' }))[0]!);
    await settled();
    const [saved] = page.sent('PUT /texts/{name}') as { revision: number; document: unknown }[];
    expect(saved?.revision).toBe(7);
    expect(JSON.stringify(saved?.document)).toContain('Come when you can.');
    expect(JSON.stringify(saved?.document)).not.toContain('on time');
  });
  it('puts what its messages propose into the working copy, those that are chosen together', async () => {
    const { document: made } = readText(`---\ntitle: Visit confirmed\n---\nPlease be on time. Dogs stay.\n`);
    let path: number[] = [];
    visit(made, (node, at) => void (JSON.stringify(inlineOf(node)).includes('on time') && (path = [...at])));
    const place = { text: 'visit', path, at: 1 };
    page = await openPage('/looking-back/visit', {
      ...USUAL,
      'GET /insight/texts/{name}': {
        ...TEXT,
        sentences: [{ ...TEXT.sentences[1], path, at: 0 }, sentence(1, 'Dogs stay.', { path, takenOut: 18 })],
        added: [{ words: 'Bring boots and a coat.', count: 14, of: 40, place }],
      } as TextInsight,
      'GET /texts/{name}': { name: 'visit', revision: 7, updatedAt: '2026-11-20T09:00:00.000Z', document: made },
      'PUT /texts/{name}': { name: 'visit', revision: 8, updatedAt: '2026-11-20T09:00:00.000Z', document: made },
      'POST /texts/{name}/checkpoints': {},
    } as Answers);
    const proposed = within(await screen.findByRole('form', { name: 'Proposed changes' }));
    expect(proposed.getAllByRole('listitem').map((each) => each.textContent)).toEqual([
      expect.stringContaining('Add “Bring boots and a coat.” as an option14 of 40 messages'),
      expect.stringContaining('Let people choose: “Please be on time.” or “Come when you can.”9 of 40'),
      expect.stringContaining('Make “Dogs stay.” optional18 of 40 messages left it out.'),
    ]);
    await page.user.click(proposed.getAllByRole('checkbox')[2]!);
    await page.user.click(proposed.getByRole('button', { name: 'Put 2 in Write' }));
    await settled();
    const [saved] = page.sent('PUT /texts/{name}') as { document: TextDocument }[];
    expect(writeText(saved!.document).split('---\n')[2]?.trim()).toBe(
      '{{time_or_come_when_can}} Dogs stay.{{#bring_boots_coat}} Bring boots and a coat.{{/bring_boots_coat}}',
    );
  });
  it('says what became of its messages, and how sure a difference is', async () => {
    page = await openPage('/looking-back/visit', { ...USUAL, 'GET /insight/texts/{name}': TEXT });
    const outcomes = within(await screen.findByRole('region', { name: 'Outcomes' }));
    expect(outcomes.getByRole('row', { name: /^version 2/ }).textContent).toContain('80 %');
    const answered = (): string => outcomes.getByRole('list', { name: 'Differences' }).textContent ?? '';
    expect(answered()).toContain('+20 points (+5 to +33): more');
    await page.user.click(outcomes.getByRole('combobox', { name: 'Against' }));
    await page.user.click(await screen.findByRole('option', { name: 'version 2' }));
    expect(await screen.findByText('Choose two different groups.')).toBeTruthy();
  });
  it('tells messages apart by an answer; of too few it says nothing', async () => {
    page = await openPage('/looking-back/visit', { ...USUAL, 'GET /insight/texts/{name}': TEXT });
    const outcomes = within(await screen.findByRole('region', { name: 'Outcomes' }));
    await page.user.click(outcomes.getByRole('combobox', { name: 'Told apart by' }));
    await page.user.click(await screen.findByRole('option', { name: 'Answer: Gate' }));
    await settled();
    expect(outcomes.getByRole('row', { name: /^North/ }).textContent).toContain('of 5');
    expect(outcomes.getByRole('list', { name: 'Differences' }).textContent).toContain('too few messages');
  });
  it('that cannot be shown says why, with a way back', async () => {
    page = await openPage('/looking-back/gone', USUAL);
    expect(await screen.findByText(/Nothing here\./)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'All texts' })).toBeTruthy();
  });
});
