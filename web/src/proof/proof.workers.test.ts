// @vitest-environment happy-dom
/** Proofing a template of the demo, each way there is. */
import type { TableSummary, WorkingCopy } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { rewrite, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, settled, within } from '../ui/testing/page';
import { useScreenHeight } from '../ui/testing/screenHeight';
import { eventually, frameSays, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
const maeve = demo.as('maeve');
useScreenHeight(2000);
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());

/** Makes a copy of the demo's confirmation of a visit, proofed with “Visits confirmed”; its name. */
async function copy(title: string): Promise<string> {
  const { document } = await maeve.call<WorkingCopy>('GET', '/texts/group-visit-confirmed');
  const { call: _call, ...front } = document.attrs.front;
  const data = { kind: front.kind, title, document: { ...document, attrs: { ...document.attrs, front } } };
  const { name } = await maeve.call<WorkingCopy>('POST', '/texts', data);
  const { tables } = { tables: await maeve.call<TableSummary[]>('GET', '/tables?use=sample') };
  const set = tables.find((each) => each.title === 'Visits confirmed');
  await maeve.call('PUT', `/tables/own/${name}`, { table: set?.id });
  return name;
}
async function open(name: string, view: string): Promise<void> {
  page = await demo.open(`/proof/${name}/${view}`);
  person = stepsOf(page.user);
  await says(/proofed$/);
}
const messageSays = (words: string): Promise<void> => frameSays('Message', words);

describe('one message', () => {
  it('is gone through recipient by recipient, by key and by button', async () => {
    await open(await copy('One by one'), 'one');
    await messageSays('Dear Siobhán,');
    await person.keys('{F9}');
    await messageSays('Dear Tomás,');
    await person.keys('{Shift>}{F9}{/Shift}');
    await messageSays('Dear Siobhán,');
    await person.press('Next recipient');
    await messageSays('Dear Tomás,');
    expect(page.router.currentRoute.value.query.at).toBe('1');
  });
  it('is looked at as plain text, and with its headers', async () => {
    await open(await copy('In many ways'), 'one');
    await messageSays('Dear Siobhán,');
    await person.press('plain text');
    await eventually(() =>
      expect(document.querySelector('pre')?.textContent).toContain('your group of 24 on Saturday 3 April 2027.'),
    );
    await person.press('headers');
    await eventually(() => expect(document.querySelector('dl')?.textContent).toContain('guest41@quillmere.example'));
  });
  it('is found again by its address', async () => {
    const name = await copy('By its address');
    page = await demo.open(`/proof/${name}/one?at=3`);
    await messageSays('Dear Bo,');
  });
});

describe('all messages', () => {
  const seen = (): string[] => screen.queryAllByRole('rowheader').map(({ textContent }) => textContent ?? '');
  it('are narrowed by what became of a passage, and by words', async () => {
    await open(await copy('All of them'), 'all');
    await person.pick('Only messages with', /^Rain plan: kept/);
    await says(/^5 of 24$/);
    await person.pick('Only messages with', 'all messages');
    await person.write('Filter by words', 'bo li');
    await eventually(() => expect(seen()).toHaveLength(1));
    expect(seen()[0]).toContain('Bo Li');
  });
  it('open one from the grid, at the words of a value', async () => {
    await open(await copy('A cell of it'), 'all');
    await person.write('Filter by words', 'bo li');
    await eventually(() => expect(seen()).toHaveLength(1));
    screen.getByRole('grid').focus();
    await person.keys('{ArrowRight}{ArrowRight}{Enter}');
    await eventually(() => expect(page.router.currentRoute.value.fullPath).toMatch(/\/one\?at=3&value=visit_date/));
  });
});

describe('side by side', () => {
  it('marks every word in which two recipients differ, and those of two texts', async () => {
    await open(await copy('Beside'), 'beside');
    const marked = (tag: string): string => [...document.querySelectorAll(tag)].map((each) => each.textContent).join();
    await eventually(() => expect(marked('del')).toContain('Siobhán'));
    expect(marked('ins')).toContain('Tomás');
    await person.keys('{F8}');
    await eventually(() => expect(document.querySelector('[data-change].now')?.textContent).toBe('1'));
    await person.pick('Recipient on the right', /Siobhán/);
    await says('They read the same.');
    await person.pick('Text on the right', 'Visit moved because of the weather');
    await eventually(() => expect(marked('ins')).toContain('has to wait'));
  });
});

describe('every pairing', () => {
  it('says how many messages show all pairs, and keeps what was looked at through an edit elsewhere', async () => {
    const name = await copy('Paired');
    await open(name, 'pairing');
    await says(/^8 messages show all 82 pairs of options\.$/);
    await page.user.click(await says(/pairs cannot happen$/));
    await says(/“Rain plan” does not come up when “Party of 15 or more” is no/);
    await messageSays('Dear Siobhán,');
    const ticks = screen.getAllByRole('checkbox', { name: /^Looked at/ });
    for (const tick of ticks) await page.user.click(tick);
    await says(new RegExp(`^${ticks.length} of ${ticks.length} looked at`));
    await rewrite(maeve, name, 'If it rains, the palm house', 'When it rains, the palm house');
    page.close();
    await open(name, 'pairing');
    const words = (await says(/looked at; \d+ changed since$/)).textContent ?? '';
    const [, looked = 0, of = 0, changed = 0] = (/(\d+) of (\d+) looked at; (\d+)/.exec(words) ?? []).map(Number);
    expect([of, looked + changed]).toEqual([ticks.length, ticks.length]);
    expect(Math.min(looked, changed)).toBeGreaterThan(0);
    expect(screen.getAllByText('changed since looked at')).toHaveLength(changed);
  });
});

describe('hard cases', () => {
  it('say what they are there to provoke', async () => {
    await open(await copy('Hard'), 'hard');
    await person.press(/Signs of markup/);
    await messageSays('Dear <b>Ann</b>,');
    await says('Here for values that become structure or a formula.');
    await person.press(/^\d+ Numbers: 1/);
    await messageSays('your group of 1 on');
  });
});

describe('findings', () => {
  const group = (words: string): HTMLElement | undefined =>
    [...document.querySelectorAll<HTMLElement>('.group')].find(({ textContent }) => textContent?.includes(words));
  const inGroup = (words: string): ReturnType<typeof within> => within(group(words) as HTMLElement);
  async function withFindings(title: string): Promise<string> {
    const name = await copy(title);
    await rewrite(maeve, name, 'The entrance fee comes to ', 'This is a old rate (see below. The fee comes to ');
    await open(name, 'findings');
    await eventually(() => expect(group('should be “an old”')).toBeTruthy());
    return name;
  }
  it('are repaired by a press, and that is undone by another', async () => {
    await withFindings('Repaired');
    await page.user.click(inGroup('should be “an old”').getByRole('button', { name: 'Write “an”' }));
    await eventually(() => expect(group('should be “an old”')).toBeUndefined());
    await person.press('Undo');
    await eventually(() => expect(group('should be “an old”')).toBeTruthy());
  });
  it('are set aside with a reason, and come back when their words change', async () => {
    const name = await withFindings('Set aside');
    await page.user.click(inGroup('is opened and not closed').getByRole('button', { name: 'Set aside…' }));
    await person.write('Reason to keep it', 'closed in the next line{Enter}');
    const aside = (): string => document.querySelector('.aside .group')?.textContent ?? '';
    await eventually(() => expect(aside()).toContain('“closed in the next line” — Maeve Aldous'));
    page.close();
    await open(name, 'findings');
    await eventually(() => expect(aside()).toContain('closed in the next line'));
    await rewrite(maeve, name, 'old rate (see below', 'new rate (see below');
    page.close();
    await open(name, 'findings');
    await eventually(() => expect(group('is opened and not closed')).toBeTruthy());
    expect(aside()).toBe('');
  });
});

describe('a proof by mail', () => {
  it('goes to whom it is addressed, marked as a proof', async () => {
    await open(await copy('By mail'), 'one');
    await messageSays('Dear Siobhán,');
    await person.press('Send proofs…');
    await person.write('To', 'approver@larkmoor.example');
    await person.press('Send the proof');
    await says('One proof sent to approver@larkmoor.example.');
    expect(await screen.findAllByRole('button', { name: /^\[Proof\] .*to approver@larkmoor\.example/ })).not.toEqual(
      [],
    );
  });
  it('is not sent to what is no address', async () => {
    await open(await copy('To nobody'), 'send');
    await person.write('To', 'somebody');
    const before = await maeve.call<unknown[]>('GET', '/mailroom/letters');
    const button = await screen.findByRole('button', { name: /^Send the proof/ });
    await page.user.click(button);
    await settled();
    expect(screen.queryByText(/^One proof sent/)).toBeNull();
    expect(await maeve.call<unknown[]>('GET', '/mailroom/letters')).toHaveLength(before.length);
  });
});
