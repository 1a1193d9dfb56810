// @vitest-environment happy-dom
/** One message each to many, on the demo: whom it goes to, what differs, and what keeps one back. */
import type { MailedRow, MailingSummary } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { useScreenHeight } from '../ui/testing/screenHeight';
import { eventually, frameSays, part, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
const petra = demo.as('petra');
useScreenHeight();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
let mailing: string;
afterEach(() => page.close());

/** Begins a mailing on the renewal of memberships, with these people pasted. */
async function begin(people = ''): Promise<void> {
  const { id } = await petra.call<{ id: string }>('POST', '/fills', { text: 'membership-renewal' });
  mailing = (await petra.call<{ id: string }>('POST', '/mailings', { fill: id })).id;
  if (people) await petra.call('POST', `/mailings/${mailing}/recipients`, { paste: people });
  page = await demo.open(`/many/${mailing}`, 'petra');
  person = stepsOf(page.user);
  await screen.findByRole('button', { name: 'Send…' });
}
const TWO = 'First name,Email,Ends,Amount\nNell,nell@two.example,2027-03-01,35\nOda,oda@two.example,2027-04-01,35';
const ready = (count: number): Promise<void> =>
  eventually(() => expect(document.querySelector('footer.bar')?.textContent).toContain(`${count} ready`));
const rows = (): Promise<MailedRow[]> => petra.call('GET', `/mailings/${mailing}/rows`);
const grid = (): Promise<HTMLElement> => screen.findByRole('grid', { name: 'Recipients' });

describe('the people of a mailing', () => {
  it('come from a recipient list, all of them or those that hold some words', async () => {
    await begin();
    await person.pick('From a recipient list', /^Members to renew/);
    await page.user.click((await screen.findAllByRole('button', { name: 'Add' }))[0] as HTMLElement);
    await ready(36);
    expect(await rows()).toHaveLength(36);
  });
  it('are pasted: what is no address is set apart, with why', async () => {
    await begin();
    const field = await screen.findByLabelText(/^Paste people/);
    await page.user.click(field);
    await page.user.paste(`${TWO}\nnobody at all,,2027-03-01,35`);
    await page.user.click((await screen.findAllByRole('button', { name: 'Add' })).at(-1) as HTMLElement);
    await ready(2);
    await eventually(async () => expect(await person.inField(/^Paste people/)).toBe(''));
    expect((await part('Set apart')).textContent).toMatch(/1 ×/);
  });
  it('are left out one by one, and taken in again', async () => {
    await begin(TWO);
    await ready(2);
    const row = within(await grid()).getByRole('row', { name: /Nell/ });
    await page.user.click(within(row).getByRole('button', { name: /out$/ }));
    await ready(1);
    await page.user.click(
      within(within(await grid()).getByRole('row', { name: /Nell/ })).getByRole('button', { name: /in$/ }),
    );
    await ready(2);
  });
});

describe('the message of a mailing', () => {
  it('is each person’s own', async () => {
    await begin(TWO);
    await ready(2);
    await page.user.click(within(await grid()).getByRole('rowheader', { name: /Oda/ }));
    await frameSays('The message', 'Oda');
    await page.user.click(within(await grid()).getByRole('rowheader', { name: /Nell/ }));
    await frameSays('The message', 'Nell');
  });
  it('has answers that are the same for all, and others that differ for each', async () => {
    await begin(TWO);
    await ready(2);
    const once = await screen.findByRole('form', { name: 'Asked once' });
    await page.user.click(within(once).getAllByRole('button', { name: 'differs for each' })[0] as HTMLElement);
    expect(await within(await grid()).findByRole('columnheader', { name: /^Letter/ })).toBeTruthy();
  });
});

describe('sending', () => {
  it('wants the number typed, sends one first, then the rest, and nobody twice', async () => {
    await begin(TWO);
    await ready(2);
    await person.press('Send…');
    const dialog = await screen.findByRole('dialog');
    const inside = stepsOf(page.user, () => dialog);
    expect(dialog.textContent).toContain('to 2 people');
    await inside.write('Type 2 to go on', '3');
    const first = within(dialog).getByRole('button', { name: /^Send the first/ });
    expect((first as HTMLButtonElement).disabled).toBe(true);
    await inside.write('Type 2 to go on', '2');
    await page.user.click(first);
    const progress = (): Promise<MailingSummary> => petra.call('GET', `/mailings/${mailing}/progress`);
    await eventually(async () => expect((await progress()).counts.gone).toBe(1));
    await person.press(/^(Go on|Send the rest)/);
    await eventually(async () => expect((await progress()).counts.gone).toBe(2));
    await says('2 of 2 sent');
    await says('done');
    const went = (await rows()).filter(({ state }) => state === 'gone').map(({ address }) => address);
    expect(went.toSorted()).toEqual(['nell@two.example', 'oda@two.example']);
  });
  it('is not begun where nobody is ready', async () => {
    await begin();
    expect((screen.getByRole('button', { name: 'Send…' }) as HTMLButtonElement).disabled).toBe(true);
  });
});
