// @vitest-environment happy-dom
import type { Person } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { MAEVE, openPage, Refusal, screen, settled, type Answers, type Page } from '../ui/testing/page';

let page: Page;
afterEach(() => page.close());

const person = (id: string, name: string, more: Partial<Person> = {}): Person => ({
  ...{ id, name, address: `${id}@larkmoor.example`, role: 'colleague', state: 'active', addresses: [] },
  ...more,
});
const PEOPLE: Person[] = [
  person('maeve', 'Maeve Quill', { role: 'administrator', lastSeen: '2026-11-20T09:00:00.000Z' }),
  person('hana', 'Hana Sato', { state: 'invited' }),
  person('bertil', 'Bertil Åkesson', { addresses: [{ address: 'desk@larkmoor.example', confirmed: false }] }),
];
const LINK = { path: '/enter/abc', endsAt: '2026-12-01T09:00:00.000Z' };
async function openPeople(answers: Answers = {}): Promise<void> {
  page = await openPage('/settings/people', {
    'GET /me': { ...MAEVE, id: 'maeve', role: 'administrator' },
    'GET /people': PEOPLE,
    ...answers,
  });
  await screen.findByText('Hana Sato');
}
const rowOf = (name: string): HTMLElement => screen.getByRole('row', { name: new RegExp(`^${name}`) });
const button = (name: string): HTMLElement => screen.getByRole('button', { name });

describe('people', () => {
  it('are listed with their roles, and with what can be done with each', async () => {
    await openPeople();
    expect(screen.getByRole('heading', { name: 'People' })).toBeTruthy();
    expect(rowOf('Hana Sato').textContent).toContain('invited');
    expect(rowOf('Hana Sato').textContent).toContain('New invitation');
    expect(rowOf('Maeve Quill').textContent).not.toContain('End access');
    expect(screen.getByRole('combobox', { name: 'Role of Hana Sato' }).textContent).toContain('colleague');
  });
  it('get another role, and it is said', async () => {
    await openPeople({ 'PATCH /people/{id}': PEOPLE[1]! });
    await page.user.click(screen.getByRole('combobox', { name: 'Role of Hana Sato' }));
    await settled();
    await page.user.click(screen.getByRole('option', { name: 'author' }));
    await settled();
    expect(page.sent('PATCH /people/{id}')).toEqual([{ role: 'author' }]);
    expect(screen.getByText('Hana Sato is an author.')).toBeTruthy();
  });
  it('have further addresses confirmed or refused by an administrator', async () => {
    await openPeople({ 'PUT /people/{id}/addresses/{address}': undefined });
    expect(button('Remove desk@larkmoor.example from Bertil Åkesson').textContent).toContain('Refuse');
    await page.user.click(button('Confirm desk@larkmoor.example for Bertil Åkesson'));
    await settled();
    const [asked] = page.seen.filter(({ name }) => name === 'PUT /people/{id}/addresses/{address}');
    expect(asked?.params).toEqual({ id: 'bertil', address: encodeURIComponent('desk@larkmoor.example') });
    expect(screen.getByText('Bertil Åkesson reads and sends as desk@larkmoor.example too.')).toBeTruthy();
  });
  it('are invited: the link is shown once, and the form is empty again', async () => {
    await openPeople({ 'POST /people': { ...person('nia', 'Nia Walsh', { state: 'invited' }), link: LINK } as never });
    await page.user.type(screen.getByLabelText('Name'), 'Nia Walsh');
    await page.user.type(screen.getByLabelText('Address'), 'nia@larkmoor.example{Enter}');
    await settled();
    expect(page.sent('POST /people')).toEqual([
      { name: 'Nia Walsh', address: 'nia@larkmoor.example', role: 'colleague' },
    ]);
    expect(screen.getByRole('region', { name: 'The link' }).textContent).toContain('/enter/abc');
    expect((screen.getByLabelText('Name') as HTMLInputElement).value).toBe('');
    await page.user.click(button('Done'));
    expect(screen.queryByRole('region', { name: 'The link' })).toBeNull();
  });
  it('are not invited without a name, or where the server refuses: the problem stands beside the field, and nothing is lost', async () => {
    await openPeople({
      'POST /people': () => {
        throw new Refusal(409, 'taken', 'Somebody has this address already.');
      },
    });
    await page.user.type(screen.getByLabelText('Address'), 'hana@larkmoor.example{Enter}');
    await settled();
    expect(page.sent('POST /people')).toEqual([]);
    expect(screen.getByText(/say who it is/)).toBeTruthy();
    await page.user.type(screen.getByLabelText('Name'), 'Hana{Enter}');
    await settled();
    expect(screen.getByRole('alert').textContent).toContain('Somebody has this address already.');
    expect((screen.getByLabelText('Address') as HTMLInputElement).value).toBe('hana@larkmoor.example');
  });
});
