// @vitest-environment happy-dom
/** Working on the library of the demo: several texts at once, folders and their rights, near-duplicates. */
import type { Folder, TextSummary } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { publish, takeIn, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { useScreenHeight } from '../ui/testing/screenHeight';
import { chooseLine, eventually, says, saysNoMore, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
const maeve = demo.as('maeve');
useScreenHeight();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(path = '/catalogue', who = 'maeve'): Promise<void> {
  page = await demo.open(path, who);
  person = stepsOf(page.user);
  await screen.findByRole('heading', { name: 'Catalogue' });
}
const message = (title: string, body: string): string =>
  `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: "About ${title}"\nto: "{{recipient.email}}"\n---\n${body}\n`;
const list = (): HTMLElement => screen.getByRole('listbox', { name: 'Texts' });
const listed = (): string[] =>
  within(list())
    .queryAllByRole('option')
    .map(({ textContent }) => textContent ?? '');
async function filter(words: string, count: number): Promise<void> {
  await person.write('Filter the list', words);
  await eventually(() => expect(listed()).toHaveLength(count));
}
/** Chooses everything that the list shows. */
async function chooseAll(): Promise<void> {
  list().focus();
  await person.keys('{Control>}a{/Control}');
  await says(/chosen/);
}
const text = async (name: string): Promise<TextSummary | undefined> =>
  (await maeve.call<TextSummary[]>('GET', '/texts')).find((each) => each.name === name);

describe('several texts at once', () => {
  it('are tagged and moved by key, and moved back', async () => {
    await takeIn(maeve, { 'rota-one': message('Rota one', 'Cedar.'), 'rota-two': message('Rota two', 'Pond.') });
    await open();
    await filter('rota unpublished', 2);
    await chooseAll();
    await person.keys('t');
    await person.write(/^Tags/, 'autumn{Enter}');
    await eventually(async () => expect((await text('rota-two'))?.tags).toEqual(['autumn']));
    list().focus();
    await person.keys('m');
    await person.pick(/^Move 2 texts into/, 'Visits');
    await person.press('Move');
    await says('2 texts are in Visits.');
    await filter('in visits tagged autumn', 2);
    await person.press('Undo');
    await says('No text matches this filter.');
  });
  it('lose their tags again', async () => {
    await takeIn(maeve, { tagged: message('Lavender letter', 'Words.') });
    await maeve
      .call('POST', '/texts/many', { names: ['tagged'], what: 'tag', tags: ['spring'] })
      .catch(() => undefined);
    await open();
    await filter('Lavender letter', 1);
    await chooseAll();
    await person.keys('t');
    await person.write(/^Tags/, 'winter{Enter}');
    await eventually(async () => expect((await text('tagged'))?.tags).toContain('winter'));
    list().focus();
    await person.keys('t');
    await person.write(/^Tags/, 'winter');
    await person.press('Take off');
    await eventually(async () => expect((await text('tagged'))?.tags).not.toContain('winter'));
  });
  it('are binned, found in the bin, and deleted for good only after a question', async () => {
    await takeIn(maeve, { 'gone-one': message('Gone one', 'Words.'), 'gone-two': message('Gone two', 'Words.') });
    await open();
    await filter('gone unpublished', 2);
    await chooseAll();
    await person.keys('{Delete}');
    await says('2 texts are in the bin.');
    await person.press(/^Bin \d/);
    await filter('gone', 2);
    await chooseAll();
    await person.press('Purge…');
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('this cannot be undone');
    expect(await text('gone-one')).toBeTruthy();
    await person.press('Purge for good');
    await says('2 texts are deleted for good.');
    expect(await text('gone-one')).toBeUndefined();
  });
  it('are restored from the bin', async () => {
    await takeIn(maeve, { back: message('Back again', 'Words.') });
    await maeve.call('DELETE', '/texts/back');
    await open('/catalogue?view=bin');
    await filter('back again', 1);
    await chooseAll();
    await person.press('Restore');
    await eventually(async () => expect((await text('back'))?.binned).toBe(false));
  });
});

describe('folders', () => {
  const tree = (): HTMLElement => screen.getByRole('navigation', { name: 'Folders' });
  const folders = (): Promise<Folder[]> => demo.as('ruairi').call<Folder[]>('GET', '/folders');
  async function act(folder: string, item: string): Promise<void> {
    await page.user.click(await within(tree()).findByRole('button', { name: `Actions for ${folder}` }));
    await chooseLine(page.user, item);
  }
  it('are made, named, given rights, and taken away', async () => {
    await open('/catalogue', 'ruairi');
    await act('Visits', 'New folder in it…');
    await person.write('Name of the new folder', 'Schools{Enter}');
    await says('“Schools” is in Visits.');
    await act('Schools', 'Rename…');
    await person.write('Name of the folder', 'School groups{Enter}');
    await eventually(async () => expect((await folders()).map(({ title }) => title)).toContain('School groups'));
    await act('School groups', 'Rights…');
    await person.tick('Rights of the folder above also apply here');
    await person.pick('Give a right to', 'Inês Duarte');
    await person.press('Keep');
    await says('Rights saved for School groups.');
    const seenBy = async (who: string): Promise<string[]> =>
      (await demo.as(who).call<Folder[]>('GET', '/folders')).map(({ title }) => title);
    expect(await seenBy('kofi')).not.toContain('School groups');
    expect(await seenBy('ines')).toContain('School groups');
    await act('School groups', 'Delete');
    await says('“School groups” is deleted.');
  });
  it('say beside the field what is wrong with a name', async () => {
    await open('/catalogue', 'ruairi');
    await act('Visits', 'New folder in it…');
    await person.write('Name of the new folder', 'a/b{Enter}');
    await says(/without slashes/);
    expect((await folders()).map(({ title }) => title)).not.toContain('a/b');
  });
  it('are not managed by those who may only write in them', async () => {
    await open();
    expect(within(tree()).queryByRole('button', { name: 'Actions for Blocks' })).toBeNull();
  });
});

describe('texts that say nearly the same', () => {
  it('are found, compared word by word, and made one', async () => {
    const long =
      'Thank you for telling us about the bench by the pond. It was given by a member many years ago, and our gardeners will mend it before the';
    await takeIn(maeve, {
      'bench-one': message('Bench one', `${long} spring.`),
      'bench-two': message('Bench two', `${long} summer.`),
    });
    for (const name of ['bench-one', 'bench-two']) await publish(maeve, name);
    await open();
    await person.press('Nearly the same');
    const group = (await screen.findAllByRole('article')).find(({ textContent }) => textContent?.includes('Bench one'));
    const inGroup = within(group as HTMLElement);
    expect(group?.textContent).toContain('Two say nearly the same');
    await page.user.click(inGroup.getByRole('button', { name: 'Compare' }));
    await eventually(() => expect(group?.querySelector('mark')?.textContent).toMatch(/spring|summer/));
    const one = inGroup.getAllByRole('listitem').find(({ textContent }) => textContent?.includes('Bench one'));
    await page.user.click(within(one as HTMLElement).getByRole('button', { name: 'Keep this one' }));
    await says('“Bench one” stays; 1 retired, 0 in the bin.');
    await saysNoMore('Two say nearly the same');
    page.close();
    await open('/catalogue/bench-two');
    await says('Retired; “Bench one” takes its place.');
  });
});

describe('a text', () => {
  it('is retired with what takes its place, and offered again', async () => {
    await takeIn(maeve, { tired: message('Tired letter', 'Words.') });
    await publish(maeve, 'tired');
    await open('/catalogue/tired');
    await person.choose('More', 'Retire…');
    await person.pick(/^Replacement for/, 'Group visit confirmed');
    await person.press('Retire it');
    await says('Retired; “Group visit confirmed” takes its place.');
    expect((await text('tired'))?.offered).toBe(false);
    await person.choose('More', 'Offer it again');
    await eventually(async () => expect((await text('tired'))?.offered).toBe(true));
  });
  it('begins a copy of itself', async () => {
    await open('/catalogue/visit-thanks');
    await person.choose('More', 'Start a copy');
    await eventually(() => expect(page.router.currentRoute.value.name).toBe('write'));
    expect(page.router.currentRoute.value.params.name).not.toBe('visit-thanks');
  });
  it('is filled by colleagues, who see nothing to write', async () => {
    await open('/catalogue/visit-thanks', 'ines');
    await person.press('Fill');
    await eventually(() => expect(page.router.currentRoute.value.name).toBe('filling'));
    page.close();
    await open('/catalogue/visit-thanks', 'ines');
    await screen.findByRole('button', { name: 'Fill' });
    expect(screen.queryByRole('button', { name: 'Write' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'More' })).toBeNull();
  });
});
