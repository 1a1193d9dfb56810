// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { defineComponent, h, ref } from 'vue';
import { useScreenHeight } from '../testing/screenHeight';
import GridTable from './GridTable.vue';
import type { GridPlace } from './useGrid';
import type { GridColumn } from './useGridColumns';

const COLUMNS: readonly GridColumn[] = [
  { id: 'name', label: 'Name', width: 120 },
  {
    id: 'gate',
    label: 'Gate',
    width: 80,
    options: [
      { value: 'n', words: 'North' },
      { value: 's', words: 'South' },
    ],
  },
  { id: 'sum', label: 'Sum', width: 60 },
];
useScreenHeight(400);
afterEach(() => document.body.replaceChildren());

/** A grid of some rows, whose last column is calculated. */
async function grid(rowCount = 100) {
  const place = ref<GridPlace>({ row: 0, column: 0 });
  const cells = ref(Array.from({ length: rowCount }, (_, row) => [`Ann ${row}`, 'n', `${row}`]));
  const events: unknown[][] = [];
  const wrapper = mount(
    defineComponent({
      setup: () => () =>
        h(
          GridTable,
          {
            label: 'People',
            rowCount: cells.value.length,
            columns: COLUMNS,
            rowHeader: true,
            place: place.value,
            textOf: ({ row, column }: GridPlace) => (column === 2 ? undefined : cells.value[row]?.[column]),
            'onUpdate:place': (to: GridPlace) => (place.value = to),
            onWrite: ({ row, column }: GridPlace, text: string) => {
              events.push(['write', row, column, text]);
              cells.value[row]![column] = text;
            },
            onOpen: ({ row, column }: GridPlace) => events.push(['open', row, column]),
            onPress: ({ row, column }: GridPlace) => events.push(['press', row, column]),
            onPaste: (text: string) => events.push(['paste', text]),
          },
          { cell: ({ row, index }: { row: number; index: number }) => cells.value[row]?.[index] },
        ),
    }),
    { attachTo: document.body },
  );
  await flushPromises();
  const room = wrapper.get<HTMLElement>('[role=grid]');
  room.element.focus();
  const press = async (key: string, more: KeyboardEventInit = {}): Promise<void> => {
    const target = document.activeElement ?? room.element;
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }));
    await flushPromises();
  };
  const active = (): string | null | undefined =>
    document.getElementById(room.attributes('aria-activedescendant') ?? '')?.textContent;
  return { wrapper, room, press, place, cells, events, active };
}

describe('a grid', () => {
  it('draws the rows in view only, and says how many there are', async () => {
    const { wrapper, room } = await grid(10_000);
    expect(room.attributes('aria-rowcount')).toBe('10001');
    expect(wrapper.findAll('[role=rowheader]').length).toBeLessThan(40);
    expect(wrapper.findAll('[role=columnheader]').map((head) => head.text())).toEqual(['Name', 'Gate', 'Sum']);
    expect(wrapper.get('[role=row][aria-rowindex="2"]').attributes('aria-selected')).toBe('true');
  });
  it('moves by arrows, pages, to the ends of rows and of all, and stays inside', async () => {
    const { press, place, active } = await grid();
    expect(active()).toBe('Ann 0');
    for (const [key, more, to] of [
      ['ArrowDown', {}, [1, 0]],
      ['ArrowRight', {}, [1, 1]],
      ['PageDown', {}, [13, 1]],
      ['End', {}, [13, 2]],
      ['ArrowRight', {}, [13, 2]],
      ['Home', {}, [13, 0]],
      ['PageUp', {}, [1, 0]],
      ['End', { ctrlKey: true }, [99, 2]],
      ['ArrowDown', {}, [99, 2]],
      ['ArrowUp', { ctrlKey: true }, [0, 2]],
      ['ArrowLeft', { ctrlKey: true }, [0, 0]],
      ['ArrowUp', {}, [0, 0]],
    ] as const) {
      await press(key, more);
      expect([place.value.row, place.value.column], key).toEqual(to);
    }
  });
  it('is edited by typing, Enter and Tab, and Escape gives up', async () => {
    const { wrapper, room, press, place, events } = await grid();
    await press('Enter');
    const field = wrapper.get<HTMLInputElement>('input');
    expect(field.attributes('aria-label')).toBe('Name, row 1');
    expect(document.activeElement).toBe(field.element);
    await field.setValue('Zoë');
    await press('Enter');
    expect(events).toEqual([['write', 0, 0, 'Zoë']]);
    expect([place.value.row, document.activeElement]).toEqual([1, room.element]);
    await press('B');
    expect(wrapper.get<HTMLInputElement>('input').element.value).toBe('B');
    await wrapper.get('input').setValue('Bo');
    await press('Tab');
    expect(events.at(-1)).toEqual(['write', 1, 0, 'Bo']);
    expect(place.value).toEqual({ row: 1, column: 1 });
    await press('ArrowLeft');
    await press('F2');
    await wrapper.get('input').setValue('never');
    await press('Escape');
    expect(wrapper.find('input').exists()).toBe(false);
    expect(events).toHaveLength(2);
    // Nothing changed is nothing written.
    await press('Enter');
    await press('Enter');
    expect(events).toHaveLength(2);
    await press('ArrowUp');
    await press('Delete');
    expect(events.at(-1)).toEqual(['write', 1, 0, '']);
  });
  it('keeps what is typed when another cell is pressed', async () => {
    const { wrapper, press, events } = await grid();
    await press('F2');
    await wrapper.get('input').setValue('Cléo');
    await wrapper.findAll('[role=gridcell]')[3]!.trigger('click');
    expect(events).toEqual([
      ['write', 0, 0, 'Cléo'],
      ['press', 1, 2],
    ]);
  });
  it('offers the options of a column, and writes the value of the one picked', async () => {
    const { wrapper, press, events } = await grid();
    await press('ArrowRight');
    await press('Enter');
    const select = wrapper.get('[role=combobox]');
    expect(select.attributes('aria-label')).toBe('Gate, row 1');
    expect(select.text()).toBe('North');
    await select.trigger('click');
    await flushPromises();
    const south = [...document.querySelectorAll<HTMLElement>('[role=option]')].find(
      (each) => each.textContent === 'South',
    );
    south?.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
    south?.click();
    await flushPromises();
    expect(events).toEqual([['write', 0, 1, 's']]);
    expect(wrapper.find('[role=combobox]').exists()).toBe(false);
  });
  it('opens what cannot be edited, and takes no letters for it', async () => {
    const { wrapper, press, events } = await grid();
    await press('End');
    await press('x');
    await press('Delete');
    expect(events).toEqual([]);
    await press('Enter');
    await press(' ');
    await wrapper.findAll('[role=gridcell]')[1]!.trigger('dblclick');
    expect(events).toEqual([
      ['open', 0, 2],
      ['open', 0, 2],
      ['open', 0, 2],
    ]);
  });
  it('gives the text of a cell to the clipboard, and passes on what is pasted', async () => {
    const { room, events } = await grid();
    const copied: string[] = [];
    const clip = (kind: string, text: string): Event =>
      Object.assign(new Event(kind, { bubbles: true, cancelable: true }), {
        clipboardData: { getData: () => text, setData: (_: string, words: string) => copied.push(words) },
      });
    room.element.dispatchEvent(clip('copy', ''));
    room.element.dispatchEvent(clip('paste', 'a\tb'));
    room.element.dispatchEvent(clip('paste', ''));
    expect(copied).toEqual(['Ann 0']);
    expect(events).toEqual([['paste', 'a\tb']]);
  });
  it('changes the width of a column by key, not below a least width', async () => {
    const { wrapper, press } = await grid();
    const widths = (): string => wrapper.get<HTMLElement>('[role=row]').element.style.gridTemplateColumns;
    await press('ArrowRight', { shiftKey: true });
    expect(widths()).toBe('136px 80px 60px');
    for (let times = 0; times < 12; times += 1) await press('ArrowLeft', { shiftKey: true });
    expect(widths()).toBe('24px 80px 60px');
  });
});
