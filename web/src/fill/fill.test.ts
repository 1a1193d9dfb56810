// @vitest-environment happy-dom
/** Filling a template of the demo: who it is for, what is asked, what is still blank, and what is kept. */
import type { FillSummary } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { publish, rewrite, takeIn, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, frameSays, inFrame, part, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(path: string, who = 'ines'): Promise<void> {
  page = await demo.open(path, who);
  person = stepsOf(page.user);
}
/** Begins a message from a template. */
async function fill(template: string, who = 'ines'): Promise<void> {
  await open(`/fill/new?template=${template}`, who);
  await screen.findByLabelText('Recipient', { selector: 'input' });
}
/** Types who it is for, and takes the first that is found, or what was typed. */
async function forWhom(words: string): Promise<void> {
  await person.write('Recipient', `${words}{Enter}`);
}
const control = (key: string): HTMLInputElement =>
  document.querySelector(`[data-question="${key}"] .control`) as HTMLInputElement;
async function answer(key: string, words: string): Promise<void> {
  await eventually(() => expect(control(key)).toBeTruthy());
  await page.user.clear(control(key));
  await page.user.type(control(key), `${words}{Enter}`);
}
const foot = (): string => document.querySelector('footer')?.textContent ?? '';
const kept = (): Promise<void> => eventually(() => expect(screen.getByText(/^kept/)).toBeTruthy());
const message = 'The message';

describe('who it is for', () => {
  it('is found by a few letters, and fills what their list knows', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    await frameSays(message, 'Dear Siobhán');
    await eventually(() => expect(control('party').value).not.toBe(''));
    expect(control('visit_date').value).toMatch(/2027/);
  });
  it('is typed where no list knows them: a name and an address', async () => {
    await fill('group-visit-confirmed');
    await forWhom('Ann Lee <ann@quillmere.example>');
    await frameSays(message, 'Dear Ann');
    expect(await person.inField('Recipient')).toBe('Ann Lee <ann@quillmere.example>');
    expect(control('party').value).toBe('');
  });
  it('is nobody who must not be written to: nothing is handed over', async () => {
    await demo.as('maeve').call('PUT', '/recipients/do-not-write', { address: 'no@more.example', because: 'asked' });
    await fill('visit-thanks');
    await forWhom('No More <no@more.example>');
    await frameSays(message, 'Dear No');
    await person.choose('Other ways', 'Send now');
    await says(/on the do-not-write list\. Nothing was handed over/);
  });
});

describe('questions', () => {
  it('take dates and numbers as people type them, and say what they do not take', async () => {
    await fill('group-visit-confirmed');
    await forWhom('Ann Lee <ann@quillmere.example>');
    await answer('visit_date', '14/6/27');
    await eventually(() => expect(control('visit_date').value).toMatch(/14 June 2027/));
    await page.user.type(control('party'), 'abc');
    await eventually(() => expect(document.querySelector('[data-question="party"]')?.textContent).toMatch(/number/));
    await answer('party', '15');
    await frameSays(message, 'your group of 15');
  });
  it('go on to the next with Enter, and options by their letters', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    const gate = await screen.findByRole('radiogroup', { name: /^Gate/ });
    within(gate).getAllByRole('radio')[0]?.focus();
    await person.keys('r');
    await frameSays(message, 'the river gate beside the boathouse');
    await person.keys('{Enter}');
    await eventually(() =>
      expect(document.activeElement?.closest<HTMLElement>('[data-question]')?.dataset.question).not.toBe('gate'),
    );
  });
  it('show and hide passages of the message', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    await person.tick(/^Guided walk/);
    await frameSays(message, 'where your guide will meet you');
    await person.tick(/^Guided walk/);
    await eventually(() => expect(inFrame(message)).not.toContain('where your guide will meet you.'));
  });
  it('are counted while they are blank, and named', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    await eventually(() => expect(foot()).toMatch(/1 blank/));
    await person.keys('{F2}');
    await eventually(() =>
      expect(document.activeElement?.closest<HTMLElement>('[data-question]')?.dataset.question).toBe('gate'),
    );
  });
});

describe('handing over', () => {
  it('is stopped once by a blank, which is named', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    await eventually(() => expect(foot()).toMatch(/1 blank/));
    await person.keys('{Control>}{Enter}{/Control}');
    await eventually(() => expect(foot()).toMatch(/Gate: still blank/));
    await eventually(async () => {
      const kept = await page.call<FillSummary[]>('GET', '/fills');
      expect(kept.some(({ state, recipient }) => state === 'unfinished' && recipient?.includes('Siobhán'))).toBe(true);
    });
  });
  it('waits for whom the typed words mean, however quickly it is pressed', async () => {
    await fill('visit-thanks');
    await forWhom('siob{Enter}{Control>}{Enter}{/Control}');
    // It is about the clipboard, which there is none of here, and not about a blank.
    await eventually(() => expect(foot()).not.toMatch(/^$/));
    await frameSays(message, 'Dear Siobhán');
    expect(foot()).not.toMatch(/still blank/);
  });
  it('takes the words of the very field in which it is pressed', async () => {
    await fill('visit-thanks');
    await forWhom('siob{Control>}{Enter}{/Control}');
    await frameSays(message, 'Dear Siobhán');
    expect(foot()).not.toMatch(/still blank/);
  });
  it('sends by the mail service after a pause, in which it can be taken back', async () => {
    await fill('visit-thanks', 'kofi');
    await forWhom('Una Byrne <una@taken-back.example>');
    await frameSays(message, 'Dear Una');
    await person.choose('Other ways', 'Send now');
    await says('It is sent in 30 seconds.');
    await person.press(/Take it back|Undo/);
    await eventually(async () => {
      const waiting = await page.call<{ address: string; state: string }[]>('GET', '/outgoing');
      expect(waiting.filter(({ address }) => address === 'una@taken-back.example')).toEqual([]);
    });
  });
  it('keeps a message for later, at a time that fits working hours', async () => {
    await fill('visit-thanks', 'kofi');
    await forWhom('Una Byrne <una@later.example>');
    await frameSays(message, 'Dear Una');
    await person.choose('Other ways', 'Send later…');
    const dialog = await screen.findByRole('dialog', { name: 'Send later' });
    const times = within(dialog)
      .getAllByRole('button')
      .filter((each) => each.classList.contains('row'));
    await page.user.click(times.at(-1) as HTMLElement);
    await says(/^It goes /);
    const waiting = await page.call<{ address: string; state: string; due: string }[]>('GET', '/outgoing');
    const mine = waiting.find(({ address }) => address === 'una@later.example');
    expect(mine?.state).toBe('waiting');
    expect(new Date(mine?.due ?? 0).getTime()).toBeGreaterThan(Date.now());
  });
});

describe('unfinished messages', () => {
  it('are found again with their answers', async () => {
    await fill('group-visit-confirmed');
    await forWhom('Ann Lee <ann@unfinished.example>');
    await answer('party', '17');
    await kept();
    page.close();
    await open('/fill');
    const [link] = await screen.findAllByRole('link', { name: /Group visit confirmed ?Ann Lee/ });
    await page.user.click(link as HTMLElement);
    await eventually(() => expect(control('party')?.value).toBe('17'));
  });
  it('are binned, and come back by undoing', async () => {
    await fill('visit-thanks', 'hana');
    await forWhom('Bo Li <bo@binned.example>');
    await kept();
    page.close();
    await open('/fill', 'hana');
    await person.press(/^Move “Thank you for the visit” to the bin/);
    await eventually(() => expect(screen.queryByText(/Bo Li/)).toBeNull());
    await person.press('Undo');
    await says(/Bo Li/);
  });
  it('say when a newer version is there, and what would change', async () => {
    const maeve = demo.as('maeve');
    const front = '---\nvocabula: 1\nkind: message\ntitle: Newer\nsubject: Hello\nto: "{{recipient.email}}"\n---\n';
    await takeIn(maeve, { newer: `${front}Dear {{recipient.first_name}},\n\nThe gate opens at nine.\n` });
    await publish(maeve, 'newer');
    await fill('newer');
    await forWhom('Ann Lee <ann@newer.example>');
    await kept();
    const { id } = page.router.currentRoute.value.params;
    await rewrite(maeve, 'newer', 'at nine', 'at eight');
    await publish(maeve, 'newer');
    page.close();
    await open(`/fill/${String(id)}`);
    await person.press('What would change?');
    const alert = screen.getAllByRole('alert')[0] as HTMLElement;
    await eventually(() => expect(alert.textContent).toContain('eight'));
    await person.press('Start again');
    await frameSays(message, 'at eight');
  });
});

describe('taken over from earlier messages', () => {
  it('is to be confirmed, and stops handing over until it is', async () => {
    await fill('guided-tour', 'tomasz');
    await forWhom('Ann Lee <ann@earlier.example>');
    for (const [key, value] of [
      ['tour_day', '3/5/27'],
      ['tour_time', '14:30'],
      ['party', '17'],
      ['guide_name', 'Elspeth Quillan'],
    ] as const)
      await answer(key, value);
    await person.choose('Other ways', 'Open as draft (.eml)');
    await eventually(async () =>
      expect((await page.call<FillSummary[]>('GET', '/fills')).some(({ state }) => state === 'sent')).toBe(true),
    );
    page.close();
    await fill('guided-tour', 'tomasz');
    await forWhom('Ann Lee <ann@earlier.example>');
    await eventually(() => expect(control('party').value).toBe('17'));
    expect(document.querySelector('[data-question="guide_name"]')?.textContent).toMatch(/remembered from/);
    await eventually(() => expect(foot()).toMatch(/to confirm/));
    page.close();
    // Somebody else has another past.
    await fill('guided-tour', 'tomasz');
    await forWhom('Bo Li <bo@earlier.example>');
    await frameSays(message, 'Bo');
    expect(control('party').value).toBe('');
  });
});

describe('answering a mail', () => {
  it('begins with who wrote it and with what it says', async () => {
    await open('/fill', 'kofi');
    await person.press('Answer a mail…');
    const box = within(await part('Answering')).getByLabelText(/^The mail you answer/);
    await page.user.type(
      box,
      'From: Ada Fletcher <ada@ashlow.example>\nSubject: A tour?\n\nDear garden,\n\ncould 14 of us have a guided tour on 14 May 2027?\n\nAda',
    );
    await person.press('Answer this');
    expect((await part('Answers')).textContent).toContain('ada@ashlow.example');
    await person.press('Not this');
    await eventually(() => expect(screen.queryByRole('region', { name: 'Answers' })).toBeNull());
  });
});

describe('stitching', () => {
  it('finds no series: that is several messages', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    await person.press('Stitch…');
    const panel = await part('Stitch');
    await page.user.type(within(panel).getByRole('combobox'), 'visit');
    await within(panel).findAllByRole('option', { name: /visit/i });
    expect(within(panel).queryByRole('option', { name: /Around a visit/ })).toBeNull();
  });
  it('puts another text behind, and asks nothing twice', async () => {
    await fill('group-visit-confirmed');
    await forWhom('siob');
    await person.press('Stitch…');
    const panel = await part('Stitch');
    await page.user.click(within(panel).getByLabelText('after'));
    await page.user.type(within(panel).getByRole('combobox'), 'getting here');
    await within(panel).findByRole('option', { name: /Getting here without steps/ });
    await person.keys('{Enter}');
    await frameSays(message, 'The paths between the gate');
    await says(/greets a second time: “Dear/);
    await person.press('Remove it');
    await eventually(() => expect(inFrame(message).split('Dear ')).toHaveLength(2));
    expect(document.querySelectorAll('[data-question="first_name"]')).toHaveLength(1);
  });
});

describe('the texts at hand', () => {
  it('are begun by their digit in the empty line', async () => {
    await open('/fill');
    const line = await screen.findByRole('combobox', { name: 'Find a template' });
    await screen.findAllByRole('option', { name: /at hand 2/ });
    line.focus();
    await person.keys('2');
    await eventually(() => expect(page.router.currentRoute.value.name).toBe('filling'));
    await says('Arriving late');
  });
  it('are arranged by key, and kept', async () => {
    await open('/fill', 'hana');
    const before = await page.call<string[]>('GET', '/me/at-hand');
    const first = await screen.findByRole('button', { name: /^1 / });
    first.focus();
    await person.keys('{Shift>}{ArrowRight}{/Shift}');
    await eventually(async () => {
      const after = await page.call<string[]>('GET', '/me/at-hand');
      expect(JSON.stringify(after)).not.toBe(JSON.stringify(before));
    });
  });
});

describe('an address', () => {
  it('begins a message with a recipient and answers, and says what nothing asks for', async () => {
    await open('/go/visit?recipient=Ann%20Lee%20%3Cann%40go.example%3E&party=12&colour=green');
    await eventually(() => expect(page.router.currentRoute.value.name).toBe('filling'));
    await eventually(() => expect(control('party').value).toBe('12'));
    await says(/colour/);
  });
});
