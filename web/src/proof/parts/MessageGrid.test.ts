// @vitest-environment happy-dom
import { screen, within } from '@testing-library/dom';
import { userEvent } from '@testing-library/user-event';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { useScreenHeight } from '../../ui/testing/screenHeight';
import type { SentSheet } from '../table/protocol';
import MessageGrid from './MessageGrid.vue';

let wrapper: VueWrapper;
const user = userEvent.setup();
useScreenHeight();
afterEach(() => {
  wrapper.unmount();
});
const sheet = (values: string[], kept: string, more: Partial<SentSheet> = {}): SentSheet =>
  ({ values, kept, blanks: [], findings: [], lines: [], digest: '', words: 0, ...more }) as unknown as SentSheet;
const SHEETS = [
  sheet(['Ann', '4 March'], '10'),
  sheet(['Bo', ''], '01', { blanks: ['day'] }),
  sheet(['Cy', '5 March'], '00', { findings: [{}] as never }),
];
async function grid(more: object = {}): Promise<void> {
  wrapper = mount(MessageGrid, {
    attachTo: document.body,
    props: {
      numbers: [2, 0, 1],
      sheets: SHEETS,
      labelOf: (at: number) => ['Ann', 'Bo', 'Cy'][at] ?? '',
      values: [{ at: 1, key: 'day', label: 'Day' }],
      passages: [
        { at: 0, tag: '#rain', label: 'Rain plan' },
        { at: 1, tag: '^rain', label: 'No rain plan' },
      ],
      chosen: 0,
      ...more,
    },
  });
  await flushPromises();
}
const rowOf = (name: string): HTMLElement => screen.getByRole('row', { name: new RegExp(name) });

describe('the grid of recipients', () => {
  it('is in the order that is given, with values, blanks and passages', async () => {
    await grid();
    expect(screen.getAllByRole('rowheader').map(({ textContent }) => textContent)).toEqual(['‸Cy', 'Ann', '⚠Bo']);
    const words = (name: string) =>
      within(rowOf(name))
        .getAllByRole('gridcell')
        .map(({ textContent }) => textContent?.trim());
    expect(words('Ann')).toEqual(['4 March', 'kept', 'left out']);
    expect(words('Bo')).toEqual(['[blank]', 'left out', 'kept']);
  });
  it('opens a message at a value or a passage, by press and by key', async () => {
    await grid();
    await user.click(within(rowOf('Ann')).getAllByRole('gridcell')[0]!);
    expect(wrapper.emitted('open')?.at(-1)).toEqual([0, { value: 'day' }]);
    await wrapper.setProps({ chosen: 2 });
    screen.getByRole('grid').focus();
    await user.keyboard('{End}{Enter}');
    expect(wrapper.emitted('open')?.at(-1)).toEqual([1, { passage: '^rain' }]);
    await user.keyboard('{Home} ');
    expect(wrapper.emitted('open')?.at(-1)).toEqual([1, {}]);
  });
  it('chooses a recipient by its name, and by arrows', async () => {
    await grid();
    await user.click(within(rowOf('Bo')).getByRole('rowheader'));
    expect(wrapper.emitted('choose')).toEqual([[2]]);
    expect(wrapper.emitted('open')).toBeUndefined();
    screen.getByRole('grid').focus();
    await user.keyboard('{ArrowDown}');
    expect(wrapper.emitted('choose')?.at(-1)).toEqual([1]);
  });
  it('is as good as empty before anything is rendered', async () => {
    await grid({ sheets: [undefined, undefined, undefined] });
    expect(within(rowOf('Ann')).getAllByRole('gridcell')[0]!.textContent?.trim()).toBe('—');
  });
});
