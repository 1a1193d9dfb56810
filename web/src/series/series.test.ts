// @vitest-environment happy-dom
/** Series: written and tried out, started for one and for many, looked after while they run. */
import type { Run, RunSummary, WorkingCopy } from '@vocabula/contract';
import { readText } from '@vocabula/core/markdown';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { publish, takeIn, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, part, says, stepsOf } from '../ui/testing/steps';
import { differencesOf } from '../versions/differences';
import { cameWords, endWords, foreseenWords, runWords, stepWords, waitWords } from './seriesWords';

const demo = useDemo();
let page: DemoPage | undefined;
let person: ReturnType<typeof stepsOf>;
afterEach(() => {
  vi.restoreAllMocks();
  page?.close();
  page = undefined;
});
async function open(address: string, who = 'maeve'): Promise<void> {
  page = await demo.open(address, who);
  person = stepsOf(page.user);
}
const series = (title: string, steps: string): string =>
  `---\nvocabula: 1\nkind: series\ntitle: ${title}\nsteps:\n${steps}\n---\n`;
const stepsIn = async (name: string): Promise<unknown> =>
  (await demo.as('maeve').call<WorkingCopy>('GET', `/texts/${name}`)).document.attrs.steps;

describe('a series in words', () => {
  it.each([
    [{ text: 'a' }, true, 'at once'],
    [{ text: 'a' }, false, 'right after the step before'],
    [{ text: 'a', days: 1 }, true, '1 day after the start'],
    [
      { text: 'a', days: 3, working: true as const, at: '09:30' },
      false,
      '3 working days after the step before, at 09:30',
    ],
    [{ text: 'a', days: 5, before: 'visit_date' }, false, '5 days before “Visit date”'],
    [{ text: 'a', after: 'visit_date' }, false, 'on the day of “Visit date”'],
  ])('says when a step goes: %j', (step, isFirst, words) => {
    expect(waitWords(step, isFirst)).toBe(words);
  });

  it('says what will become of a step, and why not', () => {
    const label = (key: string) => `the ${key}`;
    expect(foreseenWords({ what: 'unknown', without: 'day' }, label)).toBe('not known yet: “the day” is missing');
    expect(foreseenWords({ what: 'unknown' }, label)).toContain('lacks a value');
    expect(foreseenWords({ what: 'left out' }, label)).toContain('does not hold');
    expect(foreseenWords({ what: 'passed', at: Date.parse('2026-11-28T10:00Z') }, label)).toMatch(/has passed \(.*28/);
    expect(foreseenWords({ what: 'perhaps', at: Date.parse('2026-11-28T10:00Z') }, label)).toMatch(/28.*depending/);
  });

  it('says where one stands', () => {
    const run: RunSummary = {
      id: '1',
      text: 'a',
      title: 'A',
      address: '',
      name: '',
      state: 'going',
      why: '',
      startedAt: '',
      steps: 3,
      gone: 1,
    };
    expect(runWords({ ...run, state: 'stopped', why: 'answered' })).toBe('stopped: answered');
    expect(runWords({ ...run, state: 'done', gone: 3 })).toBe('done, 3 of 3 sent');
    const next = { at: 1, title: 'News', look: true, why: 'to be looked at' };
    expect(runWords({ ...run, next })).toBe('“News” waits for you: to be looked at');
    expect(runWords({ ...run, next: { ...next, look: false } })).toBe('1 of 3 sent · next “News”');
    const step: Run['plan'][number] = {
      at: 0,
      text: 'a',
      title: 'A',
      state: 'skipped',
      why: 'left out by hand',
      perhaps: false,
      moved: false,
      look: false,
      fill: '',
    };
    expect(stepWords(step)).toBe('left out · left out by hand');
    expect(cameWords(['answered', 'followed'])).toBe('answered, a link followed');
    const filling = { recipient: {}, sender: {}, answers: {} };
    expect(endWords({ steps: [], ends: 'done', span: 0, filling })).toBe('no message goes');
  });
});

it('says which steps differ between two of its versions', () => {
  const state = (steps: string) => readText(series('A', steps)).document;
  const groups = differencesOf(
    state('  - { text: a }'),
    state('  - { text: a }\n  - { text: b, wait: 3 days, at: "09:30" }'),
  );
  expect(groups).toEqual([
    { title: 'Steps', items: [{ where: 'Steps', before: ['1. a'], after: ['1. a', '2. b, 3 days, at 09:30'] }] },
  ]);
});

describe('a series being written', () => {
  it('shows every way it can go, follows a change, and keeps it', async () => {
    await open('/write/around-a-visit');
    const tried = within(await part('Tried out'));
    expect((await tried.findByRole('status')).textContent).toMatch(/At most 3 messages to one person/);
    const ways = () => within(tried.getByRole('list', { name: 'Ways it can go' })).getAllByRole('button');
    const before = ways().length;
    expect(before).toBeGreaterThan(2);
    const second = within(screen.getByRole('listitem', { name: 'Step 2' }));
    await page?.user.click(second.getByRole('button', { name: 'Take step 2 out' }));
    await eventually(() => expect(ways().length).toBeLessThan(before));
    await eventually(async () => expect(await stepsIn('around-a-visit')).toHaveLength(2));
    // The condition went with its step: the one that stands in its place has none.
    expect(screen.queryByLabelText('It goes if')).toBeNull();
    await person.press('Add a step');
    await eventually(async () => expect(await stepsIn('around-a-visit')).toHaveLength(3));
    await page?.user.click(screen.getByRole('button', { name: 'Move step 3 up' }));
    await eventually(async () =>
      expect((await stepsIn('around-a-visit')) as { text: string }[]).toMatchObject([
        {},
        { days: 7 },
        { text: 'visit-thanks' },
      ]),
    );
  });

  it('says in its step what cannot be, and that a step goes in no way', async () => {
    await takeIn(demo.as('maeve'), {
      never: series(
        'Never',
        '  - { text: guided-tour }\n  - { text: visit-thanks, wait: 1 day, when: "party > 5 && party < 3" }',
      ),
    });
    await open('/write/never');
    await says(/Step 2 goes in none of them/);
    await person.write('It goes if', 'party >');
    await page?.user.tab();
    await says(/cannot be calculated/);
  });

  it('is begun under Write, has no step yet, and is not published so', async () => {
    await open('/write');
    await page?.user.click(await screen.findByRole('radio', { name: 'Series' }));
    await person.write(/^Title/, 'A course of three');
    await person.press('Start');
    await screen.findByRole('heading', { name: 'A course of three' });
    await says('⚠ A series needs one step at least.');
    await person.press('Add a step');
    await eventually(() => expect(screen.queryByText(/needs one step/)).toBeNull());
  });
});

describe('a series started', () => {
  it('asks once, shows when each message goes, and runs', async () => {
    await open('/start/around-a-visit');
    await person.write('Recipient', 'Ann Lee <ann@started.example>');
    await person.keys('{Enter}');
    await says('not known yet: “Visit date” is missing');
    const start = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Start the series' });
    expect(start().disabled).toBe(true);
    await person.write(/^Visit date/, '+30');
    await person.write(/^Party/, '20');
    await page?.user.click(screen.getByRole('radio', { name: /North/ }));
    await eventually(() => expect(start().disabled).toBe(false));
    const rows = within(await part('What will go')).getAllByRole('button');
    expect(rows.map((row) => row.textContent)).toMatchObject([
      expect.stringContaining('Group visit confirmed'),
      expect.stringContaining('Getting here'),
      expect.stringContaining('after you have looked at it'),
    ]);
    await person.press('Start the series');
    await screen.findByRole('heading', { name: 'Ann Lee' });
    const [run] = (await demo.as('maeve').call<RunSummary[]>('GET', '/series')).filter(
      ({ address }) => address === 'ann@started.example',
    );
    expect(run).toMatchObject({ steps: 3, state: 'going', title: 'Around a group visit' });
  });

  it('starts when that is asked for by key while who is meant is still being looked for', async () => {
    await takeIn(demo.as('maeve'), { quick: series('Quick', '  - { text: visit-thanks, wait: 3 days }') });
    await publish(demo.as('maeve'), 'quick');
    const search = api.recipients;
    vi.spyOn(api, 'recipients').mockImplementation(async (words) => {
      await new Promise((after) => setTimeout(after, 300));
      return search(words);
    });
    await open('/start/quick');
    await person.write('Recipient', 'Ann Lee <ann@quick.example>');
    await person.keys('{Control>}{Enter}{/Control}');
    await screen.findByRole('heading', { name: 'Ann Lee' });
  });

  it('is for several at once, and says for whom it was not started', async () => {
    await takeIn(demo.as('maeve'), { plain: series('Plain', '  - { text: visit-thanks, wait: 3 days }') });
    await publish(demo.as('maeve'), 'plain');
    await open('/start/plain');
    await person.tick('for several people');
    await person.write(/^Paste people/, 'Ann <a@many.example>\nnobody\nBo <b@many.example>');
    await person.press('Start for all of them');
    const left = await screen.findByRole('list', { name: 'Not started for' });
    expect(left.textContent).toContain('nobody');
    const runs = await demo.as('maeve').call<RunSummary[]>('GET', '/series');
    expect(
      runs
        .filter(({ text }) => text === 'plain')
        .map(({ address }) => address)
        .sort(),
    ).toEqual(['a@many.example', 'b@many.example']);
  });
});

describe('a series under way', () => {
  it('is looked after: a step left out, taken in, moved, and the whole stopped', async () => {
    await open('/series');
    await page?.user.click(await screen.findByRole('link', { name: /Siobhán Ní Bhriain/ }));
    await screen.findByRole('heading', { name: 'Siobhán Ní Bhriain' });
    await person.press('Leave out');
    await says(/left out by hand/);
    await person.press(/Getting here/);
    await person.press('Take in again');
    await eventually(() => expect(screen.queryByText(/left out by hand/)).toBeNull());
    await person.press('Move…');
    await person.write('It goes on', '+40');
    await person.press('Move it there');
    await says(/moved by hand/);
    await person.press('Stop it');
    await says(/stopped: stopped by Maeve Aldous/);
    expect(screen.queryByRole('button', { name: 'Leave out' })).toBeNull();
  });

  it('waits for a look where it says so, and says what is blank', async () => {
    const maeve = demo.as('maeve');
    const [run] = (await maeve.call<RunSummary[]>('GET', '/series')).filter(({ name }) => name === 'Ottoline Birch');
    // As soon as it is looked for what is due.
    for (const act of ['skip', 'take in']) await maeve.call('PATCH', `/series/${run?.id}/steps/1`, { act });
    await open('/series');
    await part('This series');
    await page?.user.click(await screen.findByRole('link', { name: /Ottoline Birch/ }));
    await says(/Still blank: Month/);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Let it go' }).disabled).toBe(true);
    await person.press('Change the message…');
    await screen.findByLabelText(/^Month/);
  });

  it('is seen in the record of its recipient', async () => {
    await open('/recipients/ottoline.birch@newhands.example');
    await page?.user.click(await screen.findByRole('link', { name: 'The first weeks of a volunteer' }));
    await screen.findByRole('heading', { name: 'Ottoline Birch' });
  });

  it('is nobody else’s', async () => {
    await open('/series', 'hana');
    await says(/You have started none yet/);
  });
});
