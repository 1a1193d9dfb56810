// @vitest-environment happy-dom
/** Trials: what they say in words, how they are begun and ended, and what a message makes of them. */
import type { Fill, Trial } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { publish, rewrite, takeIn, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, part, says, stepsOf } from '../ui/testing/steps';
import { pairs, rangeWords, verdictWords } from './trialWords';

const demo = useDemo();
let page: DemoPage | undefined;
let person: ReturnType<typeof stepsOf>;
afterEach(() => {
  page?.close();
  page = undefined;
});
async function open(name: string, who = 'petra'): Promise<DemoPage> {
  page = await demo.open(`/trial/${name}`, who);
  person = stepsOf(page.user);
  await screen.findByRole('heading', { name: /^Trial of “.+”/ });
  return page;
}
const trialsOf = (name: string): Promise<Trial[]> => demo.as('ruairi').call('GET', `/versions/${name}/trials`);

/** A template in several versions, in which a word differs. */
async function twoVersions(name: string, more: readonly string[] = ['second']): Promise<void> {
  const ruairi = demo.as('ruairi');
  await takeIn(ruairi, {
    [name]: `---\nvocabula: 1\nkind: message\ntitle: ${name}\nsubject: "Hello"\nto: "{{recipient.email}}"\n---\nThe first words.\n`,
  });
  await publish(ruairi, name, 'First');
  let last = 'first';
  for (const word of more) {
    await rewrite(ruairi, name, `The ${last} words`, `The ${word} words`);
    await publish(ruairi, name, `With ${word}`);
    last = word;
  }
}

const trial = (more: Partial<Trial>): Trial => ({
  ...{ id: 't', text: 'x', outcome: 'answered', matters: 0.05, startedAt: '', by: 'Petra', arms: [], mayEnd: true },
  ...{ verdict: 'not yet', differences: [] },
  ...more,
});
const of = (first: number, second: number, low: number, high: number): Trial['differences'] => [
  { of: second, to: first, low, high },
  { of: first, to: second, low: -high, high: -low },
];

describe('a trial in words', () => {
  it.each([
    [trial({ differences: of(1, 2, -0.04, 0.15) }), 'Not yet: the difference may still be chance.'],
    [
      trial({ verdict: 'better', best: 2, differences: of(1, 2, 0.04, 0.15) }),
      'Version 2 is better: 4 to 15 more answers in 100.',
    ],
    [
      trial({ verdict: 'better', best: 2, outcome: 'opened', differences: of(1, 2, 0.041, 0.149) }),
      'Version 2 is better: 4 to 15 more openings in 100.',
    ],
    [
      // Better than two others: what holds against both is said.
      trial({
        ...{ verdict: 'better', best: 3, outcome: 'followed' },
        differences: [...of(1, 3, 0.1, 0.3), ...of(2, 3, 0.02, 0.2), ...of(1, 2, -0.1, 0.1)],
      }),
      'Version 3 is better: 2 to 20 more followed links in 100.',
    ],
    [
      trial({ verdict: 'no difference that matters', differences: of(1, 2, -0.031, 0.02) }),
      'No difference that matters: at most 3 answers in 100 either way.',
    ],
  ])('says what is known: %#', (given, words) => expect(verdictWords(given)).toBe(words));

  it('says how far a difference is known, of the later version against the earlier one', () => {
    const given = trial({ differences: of(1, 2, -0.03, 0.17) });
    expect(pairs(given).map((each) => rangeWords(each, 'answered'))).toEqual([
      'Version 2 gets between 3 fewer and 17 more answers in 100 than version 1.',
    ]);
  });
});

describe('the trial of the demo', () => {
  it('shows the verdict, each version with its share and range, and what differs in the words', async () => {
    await open('membership-welcome');
    const running = await part('The trial');
    expect(within(running).getByRole('status').textContent).toMatch(
      /^Version 2 is better: \d+ to \d+ more answers in 100\.$/,
    );
    const [{ arms } = trial({})] = await trialsOf('membership-welcome');
    const shown = within(running).getAllByRole('listitem');
    expect(shown.map((each) => each.textContent?.match(/\d+ of \d+/)?.[0])).toEqual(
      arms.map(({ successes, trials }) => `${successes} of ${trials}`),
    );
    expect(within(running).getByRole('img').getAttribute('aria-label')).toMatch(
      /^Version 1: \d+ % of \d+, range \d+ % to \d+ %; Version 2: /,
    );
    await says(/tell us which bed you would show a friend first/);
  });
  it('counts what a plain count counts', async () => {
    // One message for each newcomer, so recipients and messages are the same number.
    const [{ arms } = trial({})] = await trialsOf('membership-welcome');
    const { outcomes } = await demo
      .as('ruairi')
      .call<{ outcomes: { by: string; groups: { label: string; messages: number }[] }[] }>(
        'GET',
        '/insight/texts/membership-welcome?zone=UTC',
      );
    const byVersion = outcomes.find(({ by }) => by === 'version')?.groups ?? [];
    expect(byVersion.find(({ label }) => label === 'version 1')?.messages).toBe(arms[0]?.trials);
    expect(arms.reduce((sum, { trials }) => sum + trials, 0)).toBe(280);
  });
  it('is no matter of colleagues: they get the version that the recipient has, and see its number', async () => {
    const kofi = demo.as('hana');
    const versions = new Set<number | undefined>();
    for (let at = 0; at < 12; at += 1) {
      const email = `new${at}@people.example`;
      const fill = await kofi.call<Fill>('POST', '/fills', { text: 'membership-welcome', recipient: { email } });
      versions.add(fill.version);
      expect(fill.standing).toBe('current');
      expect(fill.texts[0]?.document.content.some((part) => JSON.stringify(part).includes('show a friend first'))).toBe(
        fill.version === 2,
      );
    }
    expect([...versions].sort()).toEqual([1, 2]);
    const opened = await demo.open('/trial/membership-welcome', 'hana');
    expect(opened.router.currentRoute.value.name).not.toBe('trial');
    opened.close();
  });
});

describe('a trial', () => {
  it('is begun with two versions, what counts and what matters, looked at, and ended for everybody', async () => {
    await twoVersions('begun');
    const { user } = await open('begun');
    await says(/2 % of|Each recipient gets one version/);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /^Version 2/ }).checked).toBe(true);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /^Version 2/ }).disabled).toBe(true);
    await person.write('Times version 1 is given', '3');
    await user.tab();
    await person.pick('A message did well when', 'It is opened');
    await person.write(/^Smallest difference that matters/, '10');
    await user.tab();
    await person.press('Begin the trial');
    await says('Not yet: the difference may still be chance.');
    const [begun] = await trialsOf('begun');
    expect(begun).toMatchObject({ outcome: 'opened', matters: 0.1, by: 'Petra Lindqvist' });
    expect(begun?.arms.map(({ version, weight }) => [version, weight])).toEqual([
      [1, 3],
      [2, 1],
    ]);
    await person.press('Everybody gets version 1');
    await says(/The words of version 1 are published for everybody/);
    await part('Past trials');
    expect((await trialsOf('begun'))[0]?.ended?.why).toBe('version 1 chosen by Petra Lindqvist');
    const { published } = await demo
      .as('ruairi')
      .call<{ published: { number: number; note: string } }>('GET', '/versions/begun');
    expect(published).toMatchObject({ number: 3, note: 'Version 1 again, chosen by a trial' });
  });
  it('takes three versions at most, and needs two', async () => {
    await twoVersions('three', ['second', 'third', 'fourth']);
    const { user } = await open('three');
    const box = (version: number) =>
      screen.findByRole<HTMLInputElement>('checkbox', { name: new RegExp(`^Version ${version}`) });
    const begin = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Begin the trial' });
    await user.click(await box(3));
    expect(begin().disabled).toBe(true);
    await user.click(await box(1));
    await user.click(await box(2));
    await eventually(async () => expect((await box(3)).disabled).toBe(true));
    expect(begin().disabled).toBe(false);
    await user.click(begin());
    await eventually(async () => expect((await trialsOf('three'))[0]?.arms).toHaveLength(3));
    expect(within(await part('The trial')).getAllByText(/^Version \d gets between/)).toHaveLength(3);
  });
  it('needs a second version, and a smallest difference from 1 to 50 in 100', async () => {
    await twoVersions('single', []);
    await open('single');
    await says(/There is one version only/);
    page?.close();
    await twoVersions('bounds');
    const { user } = await open('bounds');
    for (const [typed, isFine] of [
      ['0', false],
      ['51', false],
      ['2.5', false],
      ['50', true],
    ] as const) {
      await person.write(/^Smallest difference that matters/, typed);
      await user.tab();
      await eventually(() =>
        expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Begin the trial' }).disabled).toBe(!isFine),
      );
    }
  });
  it('says what stands against it, of a block and of a text that there is not', async () => {
    page = await demo.open('/trial/opening-hours', 'petra');
    await says(/Only templates of messages are tried/);
    page.close();
    page = await demo.open('/trial/nothing-here', 'petra');
    await says(/There is no such text/);
  });
  it('is come to from the versions of a text, where there are two', async () => {
    page = await demo.open('/versions/membership-welcome', 'petra');
    person = stepsOf(page.user);
    await person.press('Trial…');
    await part('The trial');
    page.close();
    // Neither where there is one version, nor of a block.
    await rewrite(demo.as('ruairi'), 'opening-hours', 'The garden is open', 'The garden stands open');
    await publish(demo.as('ruairi'), 'opening-hours');
    for (const name of ['lost-and-found', 'opening-hours']) {
      page = await demo.open(`/versions/${name}`, 'petra');
      await eventually(() =>
        expect(screen.queryByRole('region', { name: 'Words' }) ?? screen.queryByText(/Nothing differs/)).not.toBeNull(),
      );
      expect(screen.queryByRole('button', { name: 'Trial…' })).toBeNull();
      page.close();
    }
  });
});

describe('a message in a trial', () => {
  it('is in the version of its recipient as soon as that is known, and keeps its answers', async () => {
    await twoVersions('filled');
    const ruairi = demo.as('ruairi');
    const arms = [1, 2].map((version) => ({ version, weight: 1 }));
    await ruairi.call('POST', '/versions/filled/trials', { arms, outcome: 'answered', matters: 0.05 });
    // Somebody who gets the first version, while the second is in use.
    let email = '';
    for (let at = 0; email === ''; at += 1) {
      const asked = `who${at}@people.example`;
      const { version } = await ruairi.call<Fill>('POST', '/fills', { text: 'filled', recipient: { email: asked } });
      if (version === 1) email = asked;
    }
    page = await demo.open('/fill/new?template=filled', 'hana');
    person = stepsOf(page.user);
    await says(/version 2/);
    await person.write('Recipient', `Wilma <${email}>`);
    await person.keys('{Enter}');
    await says(/version 1/);
    await eventually(() => {
      const frame = document.querySelector<HTMLIFrameElement>('iframe');
      expect(frame?.contentDocument?.body.textContent ?? document.body.textContent).toContain('The first words.');
    });
    expect(screen.queryByText(/There is a newer version/)).toBeNull();
  });
});
