// @vitest-environment happy-dom
/** Mail that came, mail that waits and mail that went, with what is done with each. */
import type { Outgoing } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, part, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(path = '/mailroom', who = 'kofi'): Promise<void> {
  page = await demo.open(path, who);
  person = stepsOf(page.user);
  await screen.findByRole('heading', { name: 'Mailroom' });
}
const stacks = (): HTMLElement => screen.getByRole('navigation', { name: 'Stacks' });
const row = (name: RegExp): HTMLElement | null => within(stacks()).queryByRole('button', { name });
async function choose(name: RegExp): Promise<void> {
  const [first] = await within(stacks()).findAllByRole('button', { name });
  await page.user.click(first as HTMLElement);
}
/** Leaves a message that goes at a time, or a draft of it; its address is all that differs. */
async function leave(address: string, due?: string, who = 'kofi'): Promise<void> {
  const { call } = demo.as(who);
  const { id } = await call<{ id: string }>('POST', '/fills', { text: 'visit-thanks' });
  await call('PUT', `/fills/${id}`, { recipient: { first_name: 'Rós', email: address }, answers: {} });
  await call('POST', `/fills/${id}/hand-over`, { way: 'service', incomplete: true, ...(due ? { at: due } : {}) });
}
const outgoing = async (address: string, who = 'kofi'): Promise<Outgoing | undefined> =>
  (await demo.as(who).call<Outgoing[]>('GET', '/outgoing')).find((each) => each.address === address);
const inAnHour = (): string => new Date(Date.now() + 3_600_000).toISOString();

describe('letters', () => {
  it('are read with who wrote, and offer what stands in them to the answer', async () => {
    await open();
    await choose(/^Hans-Jürgen Groß/);
    await eventually(async () => expect((await part('Letter')).textContent).toContain('eine Führung auf Deutsch'));
    const answer = await screen.findByRole('complementary', { name: 'Answer with' });
    expect(answer.textContent).toMatch(/Found in it:.*14\.5\.2027/);
  });
  it('are answered with a template, whose message begins with what the letter says', async () => {
    await open();
    await choose(/^Hans-Jürgen Groß/);
    const answer = await screen.findByRole('complementary', { name: 'Answer with' });
    await page.user.type(within(answer).getByRole('combobox'), 'tour');
    const [tour] = await within(answer).findAllByRole('option', { name: /A guided tour/ });
    await page.user.click(tour as HTMLElement);
    await eventually(() => expect(page.router.currentRoute.value.name).toBe('filling'));
    const recipient = await screen.findByLabelText('Recipient', { selector: 'input' });
    await eventually(() =>
      expect((recipient as HTMLInputElement).value).toBe('Hans-Jürgen Groß <hj@marrowstone.example>'),
    );
    expect(await screen.findByRole('button', { name: /take .*14 May 2027/ })).toBeTruthy();
  });
  it('are answered by one message, never by a series', async () => {
    await open();
    await choose(/^Hans-Jürgen Groß/);
    const answer = await screen.findByRole('complementary', { name: 'Answer with' });
    await page.user.type(within(answer).getByRole('combobox'), 'visit');
    await within(answer).findAllByRole('option', { name: /visit/i });
    expect(within(answer).queryByRole('option', { name: /Around a visit/ })).toBeNull();
  });
  it('need no answer where somebody says so, and come back by undoing', async () => {
    await open();
    await choose(/^Moorview Films/);
    await person.press('No answer needed');
    await eventually(() => expect(row(/^Moorview Films/)).toBeNull());
    await person.press('Undo');
    await eventually(() => expect(row(/^Moorview Films/)).toBeTruthy());
  });
  it('are dropped in as files, each once', async () => {
    await open();
    const mail = (who: string): string =>
      `From x Thu Jan  1 00:00:00 2026\nFrom: ${who} <${who.toLowerCase()}@dropped.example>\nSubject: From ${who}\nMessage-ID: <${who}@dropped.example>\n\nHello\n\n`;
    const drop = new Event('drop', { bubbles: true, cancelable: true });
    const files = [new File([mail('Ann') + mail('Bo')], 'mails.mbox')];
    Object.assign(drop, { dataTransfer: { files, types: ['Files'], items: [] } });
    document.querySelector('.mailroom')?.dispatchEvent(drop);
    await says('2 mails taken in.');
    await eventually(() => expect(row(/From Ann/)).toBeTruthy());
    await choose(/From Bo/);
    await eventually(async () => expect((await part('Letter')).textContent).toContain('bo@dropped.example'));
  });
});

describe('messages that wait', () => {
  it('are taken back, and are unfinished messages again', async () => {
    await leave('taken@back.example', inAnHour());
    await open('/mailroom/waiting');
    await choose(/^Rós/);
    await person.press('Take it back');
    await says('Taken back: it is an unfinished message again.');
    expect(await outgoing('taken@back.example')).toBeUndefined();
    const fills = await page.call<unknown[]>('GET', '/fills');
    expect(JSON.stringify(fills)).toContain('Rós');
  });
  it('are sent at once where somebody wants that', async () => {
    await leave('at@once.example', inAnHour());
    await open('/mailroom/waiting');
    await choose(/^Rós/);
    await person.press('Send now');
    await eventually(async () => expect((await outgoing('at@once.example'))?.state).toBe('gone'));
  });
  it('get another time', async () => {
    await leave('later@still.example', inAnHour());
    const before = (await outgoing('later@still.example'))?.due;
    await open('/mailroom/waiting');
    await choose(/^Rós/);
    const acts = await screen.findByRole('complementary', { name: 'Sending' });
    const times = within(acts)
      .getAllByRole('button')
      .filter((each) => each.classList.contains('row'));
    await page.user.click(times.at(-1) as HTMLElement);
    await says('Time changed.');
    expect((await outgoing('later@still.example'))?.due).not.toBe(before);
  });
});

describe('messages that went', () => {
  it('say what happened to them, and lead to their person', async () => {
    await open('/mailroom/gone');
    await choose(/answered, opened/);
    const acts = await screen.findByRole('complementary', { name: 'Sending' });
    expect(acts.textContent).toMatch(/Sent .*answered.*opened/s);
    await page.user.click(within(acts).getByRole('link', { name: 'All messages to this person' }));
    await eventually(() => expect(page.router.currentRoute.value.name).toBe('recipients'));
  });
  it('are those of oneself alone', async () => {
    await leave('mine@alone.example', inAnHour());
    expect(await outgoing('mine@alone.example', 'hana')).toBeUndefined();
    await open('/mailroom/waiting', 'hana');
    await screen.findByRole('navigation', { name: 'Stacks' });
    expect(row(/^Rós/)).toBeNull();
  });
});

describe('the test mail service', () => {
  it('says that nothing leaves, to everybody; authors set its clock forward', async () => {
    await open('/mailroom', 'hana');
    const clock = async (): Promise<HTMLElement> => screen.findByRole('group', { name: 'The stand-in’s clock' });
    expect((await clock()).textContent).toContain('nothing leaves this machine');
    expect(within(await clock()).queryByRole('button')).toBeNull();
    page.close();
    await open('/mailroom', 'petra');
    await page.user.click(within(await clock()).getByRole('button', { name: 'a week' }));
    await says(/^(Meanwhile|Nothing happened)/);
  });
});

describe('messages that went', () => {
  it('are chosen one by one to make a template of', async () => {
    await open('/mailroom', 'maeve');
    await person.press('Make a template of some…');
    const compare = (): HTMLButtonElement => screen.getByRole('button', { name: 'Compare them' });
    const rows = within(stacks())
      .getAllByRole('button')
      .filter((each) => each.hasAttribute('aria-pressed'));
    const [first, second] = rows as [HTMLElement, HTMLElement];
    await eventually(() => expect(document.activeElement).toBe(first));
    const shown = page.router.currentRoute.value.fullPath;
    await page.user.click(first);
    expect([first.getAttribute('aria-pressed'), compare().disabled]).toEqual(['true', true]);
    second.focus();
    await person.keys(' ');
    await says('2 chosen');
    // Choosing opens none of them.
    expect(page.router.currentRoute.value.fullPath).toBe(shown);
    await page.user.click(compare());
    await screen.findByRole('heading', { name: 'From past mails' });
    await says('2 mails');
  });
  it('are what is shown where their stack is asked for', async () => {
    await open('/mailroom/gone', 'maeve');
    await eventually(() => expect(page.router.currentRoute.value.params.id).toBeTruthy());
    expect(page.router.currentRoute.value.params.stack).toBe('gone');
  });
  it('are not chosen by who writes no templates', async () => {
    await open();
    await eventually(() => expect(stacks().textContent).toContain('Sent'));
    expect(screen.queryByRole('button', { name: 'Make a template of some…' })).toBeNull();
  });
});
