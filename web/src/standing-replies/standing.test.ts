// @vitest-environment happy-dom
/** Standing replies: a rule written, tried on the past, mended until it is right, switched on; what it offers. */
import type { StandingReply } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, part, says, stepsOf } from '../ui/testing/steps';
import { firstSource, sourceKey, sourcesFor } from './sources';

const demo = useDemo();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(which?: string): Promise<void> {
  page = await demo.open('/standing', 'ines');
  person = stepsOf(page.user);
  await screen.findByRole('form', { name: 'The rule' });
  if (which) await choose(which);
}
async function choose(which: string): Promise<void> {
  const list = await screen.findByRole('navigation', { name: 'Standing replies' });
  await page.user.click(within(list).getByRole('link', { name: new RegExp(`^${which}`) }));
  await eventually(() => expect((screen.getByLabelText('Called') as HTMLInputElement).value).toBe(which));
}
const tried = (): HTMLElement => screen.getByRole('region', { name: 'Tried on the past' });
const rules = (): Promise<StandingReply[]> => demo.as('ines').call('GET', '/standing');
const form = (): HTMLElement => screen.getByRole('form', { name: 'The rule' });
async function pick(label: string, option: string | RegExp): Promise<void> {
  await page.user.click(await within(form()).findByRole('combobox', { name: label }));
  await page.user.click(await screen.findByRole('option', { name: option }));
}

describe('a standing reply', () => {
  it('shows the mail that it would have answered, and each reply', async () => {
    await open();
    await eventually(() => expect(tried().textContent).toMatch(/Of \d+ mails since .* it would have answered \d+\./));
    const [first] = within(tried()).getAllByRole('button', { name: /Lost:/ });
    await page.user.click(first as HTMLElement);
    const reply = await part('The reply');
    await eventually(() => expect(within(reply).getByRole('heading', { name: /^Re: Lost: / })).toBeTruthy());
    await page.user.click(within(reply).getByRole('button', { name: 'The mail' }));
    await eventually(() => expect(reply.textContent).toContain('From '));
  });

  it('is mended until what was marked as wrong is answered no more, then switched on', async () => {
    await open('Coming late');
    const switchOn = (): HTMLButtonElement => within(form()).getByRole('button', { name: 'Switch it on' });
    await eventually(() =>
      expect(within(tried()).getAllByRole('button', { name: /^Wrong: Late flowering/ })).toBeTruthy(),
    );
    for (let left = 3; left > 0; left -= 1) {
      const all = within(tried()).getAllByRole('button', { name: /^Wrong: Late flowering/ });
      const next = all.find((each) => each.getAttribute('aria-pressed') === 'false');
      await page.user.click(next as HTMLElement);
      await eventually(() => expect(tried().textContent).toContain(`${4 - left} of them marked as wrong`));
    }
    expect(switchOn().disabled).toBe(true);
    const words = within(form()).getByLabelText('Value 1');
    await page.user.clear(words);
    await page.user.type(words, 'be late');
    await eventually(() => expect(tried().textContent).toContain('What was marked as wrong is not answered any more.'));
    await eventually(() => expect(switchOn().disabled).toBe(false));
    await page.user.click(switchOn());
    await says('On: it answers what comes from now on.');
    expect((await rules()).find(({ rule }) => rule.title === 'Coming late')).toMatchObject({
      on: true,
      rule: { when: 'subject.contains("be late")' },
      trial: { stillWrong: 0, current: true },
    });
    // Changed again, it is off until it was tried and is switched on again.
    await page.user.type(words, 'r');
    await eventually(async () =>
      expect((await rules()).find(({ rule }) => rule.title === 'Coming late')?.on).toBe(false),
    );
    await eventually(() => expect(form().textContent).toContain('It was changed: try it on the past again.'));
  });

  it('is begun with nothing, and says what it lacks', async () => {
    await open();
    await person.press('New standing reply');
    await eventually(() => expect(tried().textContent).toContain('Say above which mail it answers.'));
    expect(within(form()).getByRole<HTMLButtonElement>('button', { name: 'Switch it on' }).disabled).toBe(true);
    await page.user.type(within(form()).getByLabelText('Value 1'), 'dog');
    await eventually(() => expect(tried().textContent).toContain('Choose a template.'));
    await pick('With the template', 'Thank you for the visit');
    await eventually(() => expect(tried().textContent).toMatch(/would have answered \d+/));
    const [made] = (await rules()).filter(({ rule }) => rule.title === 'New standing reply');
    expect(made).toMatchObject({ on: false, rule: { does: 'suggest', text: 'visit-thanks' } });
    await page.user.click(within(form()).getByLabelText(/^Send it/));
    const most = within(form()).getByLabelText('The most it sends a day');
    await page.user.clear(most);
    await page.user.type(most, '3');
    await page.user.tab();
    await eventually(async () =>
      expect((await rules()).find(({ id }) => id === made?.id)?.rule).toMatchObject({ does: 'send', mostADay: 3 }),
    );
    await person.press('Put away');
    await says(/is put away/);
    await person.press('Undo');
    await eventually(async () => expect((await rules()).some(({ id }) => id === made?.id)).toBe(true));
  });

  it('takes its values from where it is told', async () => {
    await open();
    await pick('Weeks comes from', 'the first number in the mail');
    await eventually(async () =>
      expect((await rules()).find(({ rule }) => rule.title === 'Something was lost')?.rule.values).toMatchObject({
        weeks: { from: 'found', nth: 1 },
        thing: { from: 'behind', words: 'What I lost:' },
      }),
    );
  });

  it('changes places with the one before it', async () => {
    await open();
    const titles = async (): Promise<string[]> => (await rules()).map(({ rule }) => rule.title);
    const [first, second] = await titles();
    await page.user.click(await screen.findByRole('button', { name: `Ask ${second} before the one above` }));
    await eventually(async () => expect((await titles()).slice(0, 2)).toEqual([second, first]));
  });
});

describe('where a value comes from', () => {
  it('is offered as its type allows, and chosen and read as one', () => {
    const values = (type: 'date' | 'choice' | 'text'): string[] =>
      sourcesFor({ key: 'k', type }).map(({ value }) => value);
    expect(values('date')).toEqual(['', 'found 1', 'found 2', 'found 3', 'behind', 'fixed']);
    expect(values('choice')).toEqual(['', 'behind', 'fixed']);
    expect(values('text')).toEqual(['', 'behind', 'name', 'address', 'subject', 'fixed']);
    for (const type of ['date', 'choice', 'text', 'email'] as const)
      for (const { value } of sourcesFor({ key: 'k', type })) expect(sourceKey(firstSource(value))).toBe(value);
  });
});
