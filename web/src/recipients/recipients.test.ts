// @vitest-environment happy-dom
/** Who got what, who must not get anything, and whom nothing may remember. */
import { afterEach, describe, expect, it } from 'vitest';
import { useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, part, says, saysNoMore, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(path = '/recipients', who = 'maeve'): Promise<void> {
  page = await demo.open(path, who);
  person = stepsOf(page.user);
  await screen.findByRole('heading', { name: 'Recipients' });
}
/** Somebody who got messages in the demo. */
async function someone(): Promise<{ address: string; messages: number }> {
  const gone = await demo.as('kofi').call<{ address: string }[]>('GET', '/outgoing');
  const address = gone.find((each) => each.address)?.address ?? '';
  const record = await demo
    .as('kofi')
    .call<{ messages: unknown[] }>('GET', `/recipients/record?address=${encodeURIComponent(address)}`);
  return { address, messages: record.messages.length };
}

describe('recipients', () => {
  it('are found by a few letters, and opened', async () => {
    await open();
    await person.write('Find a person', 'siob');
    await person.press(/^Siobhán Ní Bhriain/);
    const sheet = await part('Person');
    expect(sheet.textContent).toContain('Group leaders');
    expect(page.router.currentRoute.value.path).toMatch(/^\/recipients\/.+@/);
  });
  it('show what they got, in which version, how and by whom', async () => {
    const { address, messages } = await someone();
    await open(`/recipients/${address}`, 'kofi');
    const table = await screen.findByRole('table', { name: 'Messages to this person' });
    expect(within(table).getAllByRole('row')).toHaveLength(messages + 1);
    expect(
      within(table)
        .getAllByRole('columnheader')
        .map(({ textContent }) => textContent?.trim()),
    ).toEqual([...['When', 'Template', 'Subject', 'Version', 'How', 'By']]);
  });
  it('are people that no list and no message knows, too', async () => {
    await open('/recipients/nobody@at.all.example');
    const sheet = await part('Person');
    expect(sheet.textContent).toContain('No messages yet.');
  });
});

describe('those who must not be written to', () => {
  it('are put on the list with a reason, and allowed again by an author', async () => {
    await open('/recipients/tired@of-mail.example');
    await person.press('Do not write to them…');
    await person.write('Why', 'asked us not to');
    await person.press('Put on the do-not-write list');
    await says(/Do not write to them: asked us not to/);
    expect(screen.queryByRole('button', { name: 'Do not write to them…' })).toBeNull();
    await person.press('Allow again');
    await eventually(() => expect(screen.queryByText(/asked us not to/)).toBeNull());
  });
  it('get no message: handing over is refused', async () => {
    const kofi = demo.as('kofi');
    await open('/recipients/never@quiet.example', 'kofi');
    await person.press('Do not write to them…');
    await person.press('Put on the do-not-write list');
    await says(/^‸ Do not write to them/);
    // A colleague cannot allow it again.
    expect(screen.queryByRole('button', { name: 'Allow again' })).toBeNull();
    const { id } = await kofi.call<{ id: string }>('POST', '/fills', { text: 'visit-thanks' });
    await kofi.call('PUT', `/fills/${id}`, {
      recipient: { first_name: 'Nell', email: 'never@quiet.example' },
      answers: {},
    });
    await expect(kofi.call('POST', `/fills/${id}/hand-over`, { way: 'service' })).rejects.toThrow();
  });
});

describe('those who are forgotten', () => {
  it('leave the number of messages, and nothing else', async () => {
    const { address } = await someone();
    await open(`/recipients/${address}`);
    await person.press('Forget this person…');
    await says(/This cannot be undone/);
    await person.press(/^Forget .+@|^Forget [^t]/);
    await saysNoMore(/This cannot be undone/);
    const after = await demo
      .as('kofi')
      .call<{ messages: unknown[] }>('GET', `/recipients/record?address=${encodeURIComponent(address)}`);
    expect(after.messages).toEqual([]);
  });
  it('are forgotten by authors alone', async () => {
    await open('/recipients/somebody@else.example', 'ines');
    await part('Person');
    expect(screen.queryByRole('button', { name: 'Forget this person…' })).toBeNull();
  });
});

describe('recipient lists', () => {
  it('are kept until a day, and say who changes them', async () => {
    await open();
    await person.write('Kept until, Members to renew', '1 March 2031');
    await page.user.tab();
    await eventually(async () => {
      const lists = await page.call<{ title: string }[]>('GET', '/tables?use=recipients');
      expect(JSON.stringify(lists.find(({ title }) => title === 'Members to renew'))).toContain('2031-03-01');
    });
  });
});
