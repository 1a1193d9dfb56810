// @vitest-environment happy-dom
/** The parts of Settings, on the demo: what is kept, what is refused, and who sees what. */
import type { House } from '@vocabula/core';
import type { AuditEntry, Key, Me, Profile, StoredHouse } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, settled, within } from '../ui/testing/page';
import { eventually, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(part: string, who = 'maeve'): Promise<void> {
  page = await demo.open(`/settings/${part}`, who);
  person = stepsOf(page.user);
  await screen.findByRole('navigation', { name: 'Settings' });
}
const house = async (): Promise<House> => (await page.call<StoredHouse>('GET', '/house')).house;
const link = (name: string): HTMLElement | null =>
  within(screen.getByRole('navigation', { name: 'Settings' })).queryByRole('link', { name });

describe('settings', () => {
  it.each([
    ['ines', ['You', 'Signing in', 'For other programs', 'Handing over'], ['Facts', 'People', 'Audit trail']],
    ['maeve', ['You', 'Facts', 'House style', 'Holidays'], ['People', 'Groups', 'Mail service']],
    ['ruairi', ['You', 'Facts', 'People', 'Groups', 'Mail service', 'Audit trail'], []],
  ])('show %s the parts of their role', async (who, seen, hidden) => {
    await open('', who);
    expect(seen.filter((each) => link(each) === null)).toEqual([]);
    expect(hidden.filter((each) => link(each) !== null)).toEqual([]);
  });
  it('open the first part in place of one that somebody may not see', async () => {
    await open('people', 'ines');
    expect(await screen.findByRole('heading', { name: 'You' })).toBeTruthy();
  });
});

describe('one’s own details', () => {
  const mine = async (): Promise<Profile> => (await page.call<Me>('GET', '/me')).profile;
  it('are kept by Enter, and the change can be undone', async () => {
    await open('you');
    const before = (await mine()).title;
    await person.write(/^Title/, 'Head of words{Enter}');
    await says('Saved.');
    expect((await mine()).title).toBe('Head of words');
    await person.press('Undo');
    await eventually(async () => expect((await mine()).title).toBe(before));
  });
  it('keep what was typed where they are too long, and say so beside the field', async () => {
    await open('you');
    const field = (await screen.findByLabelText(/^Telephone/)) as HTMLInputElement;
    await page.user.clear(field);
    await page.user.click(field);
    await page.user.paste('0'.repeat(501));
    await person.press('Save');
    await eventually(() => expect(field.getAttribute('aria-describedby')).toBeTruthy());
    const says = document.getElementById(field.getAttribute('aria-describedby') ?? '');
    expect(says?.textContent).toMatch(/500 characters/);
    expect(field.value).toHaveLength(501);
    expect((await mine()).telephone).not.toContain('0000000000');
  });
  it('have fields of one’s own, named after their label', async () => {
    await open('you');
    await person.write('A new field', 'Desk hours{Enter}');
    await person.write('sender.desk_hours', 'ten to four');
    await person.press('Save');
    await says('Saved.');
    expect((await mine()).own).toEqual({ desk_hours: 'ten to four' });
    await person.press('Remove desk_hours');
    await person.press('Save');
    await eventually(async () => expect((await mine()).own).toEqual({}));
  });
  it('name further addresses, which wait for an administrator', async () => {
    await open('you');
    await person.write('Another address', 'desk@larkmoor.example{Enter}');
    await says('An administrator confirms “desk@larkmoor.example” under Settings › People.');
    await says('waiting for an administrator');
    await person.press('Remove desk@larkmoor.example');
    await says('Removed.');
  });
});

describe('signing in', () => {
  it('asks for the old password before it takes a new one', async () => {
    await open('sign-in', 'bertil');
    await person.write('Current password', 'not this one');
    await person.write('New password', 'a sentence that works well{Enter}');
    await says(/password.*not|not.*password/i);
    expect(await person.inField('New password')).toBe('a sentence that works well');
  });
  it('refuses a short password beside its field', async () => {
    await open('sign-in', 'bertil');
    await person.write('Current password', 'heather-on-the-moor');
    await person.write('New password', 'short{Enter}');
    await says(/a password has 10 characters at least/);
  });
  it('ends where one signs out', async () => {
    await open('sign-in', 'tomasz');
    await page.call('GET', '/me');
    await person.press('Sign out');
    await eventually(() => expect(page.call('GET', '/me')).rejects.toThrow());
  });
});

describe('keys for other programs', () => {
  it('are shown once, listed by their beginning, and taken back', async () => {
    await open('programs');
    await person.write('What it is for', 'Booking form');
    await person.tick('ask questions and render messages');
    await person.press('Make it');
    await says('This is the key. Copy it now: it is shown only once.');
    const shown = (await screen.findByLabelText('The new key')).querySelector('code')?.textContent ?? '';
    const [made] = await page.call<Key[]>('GET', '/me/keys');
    expect(shown.startsWith(made?.start ?? '-')).toBe(true);
    expect(made?.scopes).toEqual(['read', 'render']);
    await person.press('Done');
    expect(document.body.textContent).not.toContain(shown);
    await person.press('Take back');
    await says('“Booking form” is revoked.');
    expect(await page.call('GET', '/me/keys')).toEqual([]);
  });
  it('say what they are for and may do something', async () => {
    await open('programs');
    await person.tick('find and read what you may see');
    await person.press('Make it');
    await eventually(() => expect(document.querySelectorAll('.error').length).toBe(2));
    expect(await page.call('GET', '/me/keys')).toEqual([]);
  });
  it('do not publish for those who may not', async () => {
    await open('programs', 'ines');
    await screen.findByLabelText('ask questions and render messages');
    expect(screen.queryByLabelText('publish')).toBeNull();
  });
});

describe('handing over', () => {
  it('is kept as it is chosen, days and hours as well', async () => {
    await open('handing-over', 'ines');
    await person.tick('As plain text');
    await person.tick('My mail program adds one by itself');
    await person.write('from', '8.30');
    await person.tick('Sat');
    await person.press('Keep');
    await says('Saved. Fill hands over in this way from now on.');
    const { ways } = await page.call<Me>('GET', '/me');
    expect(ways).toMatchObject({ look: 'plain', signs: true, from: '08:30', tried: true });
    expect(ways.days).toContain(6);
  });
});

describe('the organisation’s facts', () => {
  it('are found by any word, and say what changes when', async () => {
    await open('facts');
    await says(/changes on/);
    await person.write('Find a fact', 'desk');
    expect(screen.queryByText('Entry fee')).toBeNull();
    expect(screen.getByText('Visits desk')).toBeTruthy();
    await person.write('Find a fact', 'nothing like it');
    await says('No fact matches.');
  });
  it('are added with a key after their label, with a value and a change on a day', async () => {
    await open('facts');
    await person.press('New fact');
    await person.write('Label', 'Parking fee');
    await page.user.tab();
    await person.write('Value', '3 euros');
    await page.user.tab();
    await person.press('It changes on a day');
    await person.press('Save');
    await says('Saved. Messages are made with it once it is published.');
    const { parking_fee: fact } = (await house()).facts;
    expect(fact).toMatchObject({ variable: { key: 'parking_fee', label: 'Parking fee' }, value: '3 euros' });
    expect(fact?.changes).toHaveLength(1);
    await person.press(/Parking fee/);
    await settled();
    if (!screen.queryByRole('button', { name: 'Delete fact' })) await person.press(/Parking fee/);
    await person.press('Delete fact');
    await person.press('Save');
    await eventually(async () => expect((await house()).facts).not.toHaveProperty('parking_fee'));
  });
  it('say what is wrong with a value of their type', async () => {
    await open('facts');
    await person.press(/Entry fee/);
    const [value] = await screen.findAllByLabelText(/^(Value|Until then)/);
    await page.user.clear(value as HTMLElement);
    await page.user.type(value as HTMLElement, 'a lot');
    await page.user.tab();
    await eventually(() => expect(document.querySelector('.values .error')?.textContent).toBeTruthy());
  });
});

describe('the house style', () => {
  it('takes sizes as they are typed, in bounds, and says what it does not take', async () => {
    await open('style');
    await person.write('Size (px)', 'large');
    await page.user.tab();
    await says('⚠ Type a number from 8 to 80.');
    expect(await person.inField('Size (px)')).toBe('large');
    await person.write('Size (px)', '120');
    await page.user.tab();
    await says('⚠ Type a number from 8 to 80.');
    await person.write('Size (px)', '17.5');
    await page.user.tab();
    await eventually(() => expect(screen.queryByText(/Type a number/)).toBeNull());
    await person.press('Save');
    await says(/^Saved\./);
    expect((await house()).style.size).toBe(17.5);
    await person.press('Undo');
    await eventually(async () => expect((await house()).style.size).not.toBe(17.5));
  });
  it('has colours that are added by name, and keeps those that buttons or tables use', async () => {
    await open('style');
    await person.write('Name of a new colour', 'lichen{Enter}');
    expect(await screen.findByLabelText('lichen, light')).toBeTruthy();
    await person.press('Remove lichen');
    await eventually(() => expect(screen.queryByLabelText('lichen, light')).toBeNull());
    const { button } = (await house()).style;
    await person.press(`Remove ${button.colour}`);
    await says(/give them another colour first/);
    expect(screen.getByLabelText(`${button.colour}, light`)).toBeTruthy();
  });
});

describe('holidays', () => {
  it('are typed as people write days, several at once, and taken off', async () => {
    await open('holidays');
    const field = await screen.findByLabelText(/^A day, or several/);
    await page.user.click(field);
    await page.user.paste('24 December 2029\n2029-12-27; some day');
    await person.press('Add');
    await says('“some day” is not understood as a day.');
    expect((field as HTMLTextAreaElement).value).toContain('24 December 2029');
    await page.user.clear(field);
    await page.user.paste('24 December 2029\n2029-12-27');
    await person.press('Add');
    await says('2029');
    await person.press('Remove 2029-12-27');
    await person.press('Save');
    await says(/^Saved\./);
    expect((await house()).holidays.filter((day) => day.startsWith('2029'))).toEqual(['2029-12-24']);
  });
});

describe('groups', () => {
  it('are made with their people, changed and deleted', async () => {
    await open('groups', 'ruairi');
    await person.press('New group');
    await person.press('Keep');
    await says(/⚠.*name/);
    await person.write('Name of the group', 'Night watch');
    await person.tick(/^Inês Duarte/);
    await person.press('Keep');
    const row = async (): Promise<HTMLElement> => (await says('Night watch')).closest('li') as HTMLElement;
    expect((await row()).textContent).toContain('Inês Duarte');
    await page.user.click(within(await row()).getByRole('button', { name: 'Change' }));
    await person.tick(/^Kofi Mensah/);
    await person.press('Keep');
    await eventually(async () => expect((await row()).textContent).toContain('Kofi Mensah'));
    await page.user.click(within(await row()).getByRole('button', { name: 'Delete' }));
    await eventually(() => expect(screen.queryByText('Night watch')).toBeNull());
  });
});

describe('the mail service', () => {
  it('counts openings only where an administrator turned that on', async () => {
    await open('mail', 'ruairi');
    await person.tick(/^Count openings/);
    await eventually(async () => expect((await page.call<Me>('GET', '/me')).workspace.counting).toBe(true));
    await person.tick(/^Count openings/);
    await eventually(async () => expect((await page.call<Me>('GET', '/me')).workspace.counting).toBe(false));
  });
});

describe('the audit trail', () => {
  it('is narrowed by words, by who and by what', async () => {
    await open('audit', 'ruairi');
    const table = await screen.findByRole('table', { name: 'Audit trail' });
    const rows = (): string[] => [...table.querySelectorAll('tbody tr')].map(({ textContent }) => textContent ?? '');
    await eventually(() => expect(rows().length).toBeGreaterThan(10));
    await person.write('Words', 'Night watch');
    await eventually(() => expect(rows().length).toBeLessThan(10));
    expect(rows().every((row) => row.includes('Night watch'))).toBe(true);
    await person.write('Words', 'no such thing at all');
    await says('No activity matches these filters.');
    const all = await page.call<{ entries: AuditEntry[] } | AuditEntry[]>('GET', '/audit');
    expect(JSON.stringify(all)).toContain('Night watch');
  });
});
