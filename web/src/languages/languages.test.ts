// @vitest-environment happy-dom
/** Language versions: begun, written line by line beside the original, and offered to whom they are for. */
import type { Fill, WorkingCopy } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { publish, rewrite, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, frameSays, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
const DANKE = 'danke-fuer-den-besuch';
async function open(path: string, who = 'maeve'): Promise<void> {
  page = await demo.open(path, who);
  person = stepsOf(page.user);
}
const copyOf = (name: string): Promise<WorkingCopy> => demo.as('maeve').call('GET', `/texts/${name}`);
const lines = async (): Promise<HTMLElement[]> =>
  within(await screen.findByRole('list', { name: 'Lines' })).findAllByRole('listitem');
const lineWith = async (words: string): Promise<HTMLElement> =>
  (await lines()).find((line) => line.textContent?.includes(words)) as HTMLElement;
const status = (): string => document.querySelector('.bar [role="status"]')?.textContent?.trim() ?? '';

describe('a language version', () => {
  it('stands beside its original: what changed there since is marked, and said to fit', async () => {
    await open(`/languages/${DANKE}`);
    await eventually(() => expect(status()).toBe('1 changed, 1 to translate'));
    const changed = await lineWith('tell us if one should go');
    expect(changed.querySelector('mark')?.textContent).toContain('tell us');
    expect(changed.querySelector('details')?.textContent).toContain('The photographs are at our page of visits.');
    await page.user.click(within(changed).getByRole('button', { name: /^Fits as it is/ }));
    await eventually(() => expect(status()).toBe('1 to translate'));
    // It is kept at the server: somebody else sees it so.
    page.close();
    await open(`/languages/${DANKE}`, 'petra');
    await eventually(() => expect(status()).toBe('1 to translate'));
  });
  it('has what was added to the original when it is built as that is, and takes it back', async () => {
    await rewrite(
      demo.as('maeve'),
      'visit-thanks',
      '{"type":"inclusion"',
      '{"type":"paragraph","content":[{"type":"text","text":"Do come again."}]},{"type":"inclusion"',
    );
    await open(`/languages/${DANKE}`);
    await eventually(() => expect(status()).toContain('1 only in the original'));
    await person.press('Build it as the original is');
    await eventually(() => expect(status()).not.toContain('only in the original'));
    await eventually(async () => expect(JSON.stringify(await copyOf(DANKE))).toContain('Do come again.'));
    expect(JSON.stringify(await copyOf(DANKE))).toContain('Die Gänse reden noch davon.');
    await person.press('Undo');
    await eventually(async () => expect(JSON.stringify(await copyOf(DANKE))).not.toContain('Do come again.'));
  });
  it('says what the original has and it lacks', async () => {
    await rewrite(
      demo.as('maeve'),
      DANKE,
      '{"type":"placeholder","attrs":{"name":"who","view":""}}',
      '{"type":"text","text":"ihr"}',
    );
    await open(`/languages/${DANKE}`);
    await screen.findByText(/lacks {{who}}, which stands there in the original/);
  });
  it('is begun of a text that has none, with its words left to be translated', async () => {
    await open('/languages/getting-here');
    await screen.findByText(/is in one language/);
    await person.press('New language version');
    const dialog = await screen.findByRole('dialog', { name: 'New language version' });
    const pick = async (words: string): Promise<void> => {
      await page.user.click(within(dialog).getByRole('combobox', { name: 'Language' }));
      await page.user.click(await screen.findByRole('option', { name: words }));
    };
    await page.user.click(within(dialog).getByRole('button', { name: 'Begin' }));
    await within(dialog).findByText(/Choose a language/);
    await pick('German (Germany)');
    await page.user.type(within(dialog).getByLabelText('Title'), 'Anfahrt');
    await page.user.click(within(dialog).getByRole('button', { name: 'Begin' }));
    await eventually(() => expect(status()).toMatch(/^\d+ to translate$/));
    const { document: made } = await copyOf('anfahrt');
    expect(made.attrs.front).toMatchObject({ locale: 'de-DE', translation_of: 'getting-here', title: 'Anfahrt' });
    expect(made.attrs.front.call).toBeUndefined();
  });
});

describe('a recipient who reads another language', () => {
  const begun = (language: string): Promise<Fill> =>
    demo.as('ines').call('POST', '/fills', {
      text: 'visit-thanks',
      recipient: { email: 'jutta@quillmere.example', first_name: 'Jutta', language },
      answers: { geese: true },
    });
  it('is offered the message in it, with everything that was answered; and it is taken back', async () => {
    await publish(demo.as('ruairi'), DANKE);
    const { id } = await begun('German');
    await open(`/fill/${id}`, 'ines');
    await frameSays('The message', 'Dear Jutta');
    await screen.findByText(/Jutta reads German/);
    await person.press('Use “Danke für den Besuch”');
    await frameSays('The message', 'Guten Tag Jutta');
    await frameSays('The message', 'Die Gänse reden noch davon');
    await says('It goes on in German.');
    expect(screen.queryByText(/reads German/)).toBeNull();
    await person.press('Undo');
    await frameSays('The message', 'Dear Jutta');
  });
  it('is offered nothing where it is written in that language, or where there is no such version', async () => {
    for (const language of ['English', 'Welsh']) {
      const { id } = await begun(language);
      await open(`/fill/${id}`, 'ines');
      await frameSays('The message', 'Dear Jutta');
      expect(screen.queryByText(/Jutta reads/)).toBeNull();
      page.close();
    }
    await open('/fill');
  });
});
