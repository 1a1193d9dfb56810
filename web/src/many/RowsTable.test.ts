// @vitest-environment happy-dom
import type { MailedRow } from '@vocabula/contract';
import type { Question, Variable } from '@vocabula/core';
import { NO_CHANGES } from '@vocabula/core/filling';
import { screen, within } from '@testing-library/dom';
import { userEvent } from '@testing-library/user-event';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { useScreenHeight } from '../ui/testing/screenHeight';
import RowsTable from './RowsTable.vue';

let wrapper: VueWrapper;
const user = userEvent.setup();
useScreenHeight();
afterEach(() => {
  wrapper.unmount();
});

const row = (id: string, name: string, more: Partial<MailedRow> = {}): MailedRow => ({
  ...{ id, name, address: `${id}@people.example`, position: 0, state: 'ready', why: '' },
  ...{ fields: {}, answers: {}, changes: NO_CHANGES },
  ...more,
});
const question = (variable: Variable, more: Partial<Question> = {}): Question =>
  ({
    ...{ key: variable.key, type: variable.type, label: variable.label ?? variable.key, variable, locale: 'en-IE' },
    ...{ source: 'default', value: '' },
    ...more,
  }) as Question;
const LETTER = question({
  ...{ key: 'letter', type: 'choice', label: 'Letter' },
  options: [
    { key: 'first', label: 'First letter' },
    { key: 'last', label: 'Last letter' },
  ],
});
const DAY = question({ key: 'day', type: 'date', label: 'Day' });
const MEMBER = question({ key: 'member', type: 'yes-no', label: 'Member' });
const ROWS = [
  row('ann', 'Ann Lee', { answers: { day: '2027-03-04' } }),
  row('bo', '', { answers: { letter: 'last', member: true } }),
  row('cy', 'Cy Fox', { state: 'apart', why: 'Still blank: Day.' }),
];

async function table(columns: readonly Question[], more: object = {}): Promise<void> {
  wrapper = mount(RowsTable, {
    attachTo: document.body,
    props: { rows: ROWS, columns, shared: { letter: 'first' }, open: true, chosen: 'ann', ...more },
  });
  await flushPromises();
}
const rowAt = (at: number): HTMLElement => screen.getAllByRole('row')[at + 1]!;
const cells = (at: number): (string | null)[] =>
  within(rowAt(at))
    .getAllByRole('gridcell')
    .map(({ textContent }) => textContent);

describe('the recipients of a mailing', () => {
  it('show their own answers, else those of all, in words', async () => {
    await table([LETTER, DAY, MEMBER]);
    expect(cells(0).slice(0, 3)).toEqual(['First letter', 'Thu 4 March 2027', '']);
    expect(cells(1).slice(0, 3)).toEqual(['Last letter', '', 'Yes']);
    expect(within(rowAt(1)).getByRole('rowheader').textContent).toContain('bo@people.example');
    expect(cells(2)[3]).toContain('set apart');
  });
  it('are answered for by typing as people type', async () => {
    await table([DAY]);
    await user.click(within(rowAt(0)).getAllByRole('gridcell')[0]!);
    await user.clear(screen.getByRole('textbox', { name: 'Day, Ann Lee' }));
    await user.type(screen.getByRole('textbox', { name: 'Day, Ann Lee' }), '5 May 2027{Enter}');
    expect(wrapper.emitted('answer')).toEqual([['ann', { day: '2027-05-05' }]]);
  });
  it('are picked for from the options of a question', async () => {
    await table([LETTER]);
    await user.click(within(rowAt(1)).getAllByRole('gridcell')[0]!);
    await flushPromises();
    await user.click(screen.getByRole('combobox', { name: 'Letter, bo@people.example' }));
    await flushPromises();
    await user.click(screen.getByRole('option', { name: 'First letter' }));
    expect(wrapper.emitted('answer')).toEqual([['bo', { letter: 'first', member: true }]]);
  });
  it('have the answer of all again when a yes or no of their own is emptied', async () => {
    await table([MEMBER], { chosen: 'bo' });
    const grid = screen.getByRole('grid', { name: 'Recipients' });
    grid.focus();
    await user.keyboard('{ArrowRight}{Delete}');
    expect(wrapper.emitted('answer')).toEqual([['bo', { letter: 'last' }]]);
  });
  it('are left out and taken in again, and a question is asked once for all again', async () => {
    await table([LETTER], { rows: [ROWS[0], row('dee', 'Dee', { state: 'taken back' })] });
    await user.click(screen.getByRole('button', { name: 'Leave Ann Lee out' }));
    await user.click(screen.getByRole('button', { name: 'Take Dee in again' }));
    expect(wrapper.emitted('out')).toEqual([
      ['ann', true],
      ['dee', false],
    ]);
    await user.click(screen.getByRole('button', { name: 'once' }));
    expect(wrapper.emitted('once')).toEqual([['letter']]);
  });
  it('are only read once the mailing is sent', async () => {
    await table([LETTER], { open: false });
    await user.click(within(rowAt(0)).getAllByRole('gridcell')[0]!);
    expect(screen.queryByRole('combobox')).toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
