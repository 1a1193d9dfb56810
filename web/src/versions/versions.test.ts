// @vitest-environment happy-dom
/** From the working copy to what colleagues use, and back: publishing, comparing, withdrawing, asking. */
import type { Folder, TextSummary, WorkingCopy } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { publish, rewrite, takeIn, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, part, says, saysNoMore, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
const maeve = demo.as('maeve');
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(path: string, who = 'maeve'): Promise<void> {
  page = await demo.open(path, who);
  person = stepsOf(page.user);
}
/** A template and a block that it contains, both published as version 1. */
async function given(name: string, body = 'The gate opens at nine.'): Promise<void> {
  const front = (kind: string, title: string, more = '') =>
    `---\nvocabula: 1\nkind: ${kind}\ntitle: ${title}\n${more}---\n`;
  await takeIn(maeve, {
    [`${name}-block`]: `${front('block', `${name} block`)}${body}\n`,
    [name]: `${front('message', name, 'subject: Hello\nto: "{{recipient.email}}"\n')}Dear {{recipient.first_name}},\n\n{{> ${name}-block}}\n`,
  });
  await publish(maeve, `${name}-block`);
  await publish(maeve, name);
}
const standing = (name: string): Promise<{ published?: { number: number; withdrawn?: unknown } }> =>
  maeve.call('GET', `/versions/${name}`);

describe('publishing', () => {
  it('shows every template that changes, before and after, and takes a line on what is new', async () => {
    await given('gates');
    await rewrite(maeve, 'gates-block', 'opens at nine', 'opens at eight');
    await open('/publish/gates-block');
    const impact = await part('Impact');
    await says(/of 1 read differently/);
    await eventually(() => expect(impact.textContent).toMatch(/40 sample messages change/));
    expect(impact.querySelector('.before')?.textContent).toContain('opens at nine');
    expect(impact.querySelector('.after')?.textContent).toContain('opens at eight');
    await person.press(/^Publish as version 2/);
    await says('⚠ say what is new');
    await person.write('What is new, in a line', 'An hour earlier');
    await person.keys('{Control>}{Enter}{/Control}');
    await says(/Published: colleagues use version 2/);
    expect((await standing('gates-block')).published?.number).toBe(2);
    expect(JSON.stringify(await demo.as('ines').call('GET', '/texts/gates/closure?for=fill'))).toContain('at eight');
  });
  it('shows which words changed', async () => {
    await given('words');
    await rewrite(maeve, 'words-block', 'nine', 'half past nine');
    await open('/publish/words-block');
    await person.press('What changed');
    const marks = async (): Promise<string[]> =>
      [...(await part('Words')).querySelectorAll('mark')].map(({ textContent }) => textContent ?? '');
    await eventually(async () => expect((await marks()).join(' ')).toContain('half past'));
  });
  it('is stopped by errors, which are named, with the way to mend them', async () => {
    await takeIn(maeve, { unaddressed: '---\nvocabula: 1\nkind: message\ntitle: Unaddressed\n---\nHello\n' });
    await open('/publish/unaddressed');
    await says(/error stops it|errors stop it/);
    await says('The template has no subject.');
    const button = await screen.findByRole('button', { name: /^Publish as version 1/ });
    expect((button as HTMLButtonElement).disabled).toBe(true);
    await person.follow('Fix them in Write');
    await eventually(() => expect(page.router.currentRoute.value.fullPath).toContain('/write/unaddressed'));
  });
  it('can be timed, and be taken back', async () => {
    await given('timed');
    await rewrite(maeve, 'timed-block', 'nine', 'ten');
    await open('/publish/timed-block');
    await person.write('What is new, in a line', 'From next year');
    await person.tick('At a time');
    await person.write('Publish at', '1 January 2031');
    await person.write('Time of day', '8:00');
    await person.press(/^Publish then/);
    await says(/publishes .*January.*2031/i);
    expect((await standing('timed-block')).published?.number).toBe(1);
    page.close();
    await open('/versions/timed-block');
    await person.press('Take back');
    await says('Taken back: it is not published by itself.');
  });
  it('does not take a time that is none', async () => {
    await given('untimed');
    await rewrite(maeve, 'untimed-block', 'nine', 'ten');
    await open('/publish/untimed-block');
    await person.write('What is new, in a line', 'Some day');
    await person.tick('At a time');
    await person.write('Publish at', 'some day');
    await page.user.tab();
    await says(/Type a date such as/);
    await person.press(/^Publish/);
    await eventually(async () => expect((await standing('untimed-block')).published?.number).toBe(1));
  });
});

describe('versions', () => {
  it('are compared, any two of them, and restored as a new working copy', async () => {
    await given('compared');
    await rewrite(maeve, 'compared-block', 'nine', 'ten');
    await publish(maeve, 'compared-block', 'With ten');
    await open('/versions/compared-block');
    const compared = await part('Comparison');
    await eventually(() => expect(compared.textContent).toMatch(/version 1\s*compared with\s*version 2/));
    await eventually(() => expect(compared.querySelector('mark')?.textContent).toBeTruthy());
    const history = await screen.findByRole('list', { name: 'History' });
    expect(within(history).getAllByRole('button', { name: /^Version/ })).toHaveLength(2);
    await page.user.click(within(history).getByRole('button', { name: /^Version 1/ }));
    await person.press('compare with Version 2');
    await eventually(() => expect(compared.textContent).toMatch(/version 2\s*compared with\s*version 1/));
    await person.press('Restore version 1');
    await says(/The working copy is as version 1 was/);
    const { document } = await maeve.call<WorkingCopy>('GET', '/texts/compared-block');
    expect(JSON.stringify(document)).toContain('at nine');
  });
  it('are withdrawn with a reason, and nobody fills them any more', async () => {
    await given('withdrawn');
    await open('/versions/withdrawn');
    await person.press('Withdraw…');
    await person.press('Withdraw version 1');
    await says(/⚠/);
    expect((await standing('withdrawn')).published).toBeTruthy();
    await person.write('Why', 'The date is wrong');
    await person.press('Withdraw version 1');
    await says('Withdrawn: colleagues cannot use it');
    await expect(demo.as('ines').call('POST', '/fills', { text: 'withdrawn' })).rejects.toThrow();
  });
  it('say that a message begun on a withdrawn one is to be begun anew', async () => {
    await given('begun');
    const { id } = await demo.as('ines').call<{ id: string }>('POST', '/fills', { text: 'begun' });
    const recipient = { first_name: 'Ann', last_name: 'Lee', email: 'ann@lee.example' };
    await demo.as('ines').call('PUT', `/fills/${id}`, { recipient, answers: {} });
    await maeve.call('POST', '/versions/begun/versions/1/withdraw', { because: 'Wrong' });
    await open(`/fill/${id}`, 'ines');
    const [alert] = await screen.findAllByRole('alert');
    expect(alert?.textContent).toContain('withdrawn and must not be sent');
    await person.choose('Other ways', 'Open as draft (.eml)');
    await says(/Begin the message anew/);
    await publish(maeve, 'begun', 'Mended');
    await person.press('Start again');
    await says('Started again on the current version.');
    expect(screen.queryByText(/must not be sent/)).toBeNull();
    expect(await person.inField('Recipient')).toMatch(/Ann Lee/);
  });
});

describe('asking to publish', () => {
  it('is for those who may not, is returned with a remark, and is published by somebody else', async () => {
    const tomasz = demo.as('tomasz');
    const folders = await tomasz.call<Folder[]>('GET', '/folders');
    const folder = folders.find(({ title }) => title === 'Seeds and loans')?.id;
    const content =
      '---\nvocabula: 1\nkind: message\ntitle: Seed loan\nsubject: Your seeds\nto: "{{recipient.email}}"\n---\nThey are on their way.\n';
    await tomasz.call('POST', '/texts/import', { files: [{ file: 'seed-loan.md', content }], folder });
    await open('/publish/seed-loan', 'tomasz');
    await says(/somebody other than who changed it publishes/);
    await person.write('What is new, in a line', 'A letter for loans');
    await person.press(/^Ask to publish/);
    await says(/^Request sent\./);
    page.close();

    await open('/catalogue');
    await person.press(/^Requests/);
    const request = (await screen.findAllByRole('article')).find(({ textContent }) =>
      textContent?.includes('Seed loan'),
    );
    expect(request?.textContent).toContain('A letter for loans');
    const there = stepsOf(page.user, () => request as HTMLElement);
    await there.press('Return…');
    await person.write('What is missing', 'By when are they due back?');
    await person.press('Return it');
    await says('Returned to Tomasz Wrona.');
    page.close();

    await open('/catalogue?view=asked', 'tomasz');
    await says(/By when are they due back\?/);
    await rewrite(tomasz, 'seed-loan', 'on their way.', 'on their way, and due back in May.');
    page.close();
    await open('/publish/seed-loan', 'tomasz');
    await person.write('What is new, in a line', 'With the date');
    await person.press(/^Ask to publish/);
    await says(/^Request sent\./);
    page.close();

    await open('/catalogue?view=asked');
    await person.press('Publish it');
    await says('“Seed loan” is published.');
    await saysNoMore('A letter for loans');
    const [stored] = (await tomasz.call<TextSummary[]>('GET', '/texts')).filter(({ name }) => name === 'seed-loan');
    expect(stored?.version).toBe(1);
  });
});
