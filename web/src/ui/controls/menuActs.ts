/** What stands in a menu, and how its lines are shown. */
import type { MenuPassThroughMethodOptions, MenuPassThroughOptions } from 'primevue/menu';
import type { MenuItem } from 'primevue/menuitem';

/** An act of a menu. `items` makes it the heading of a group. */
export interface MenuAct extends MenuItem {
  /** The keys that do the same, shown at the end of the line. */
  readonly keys?: string;
  /** A colour shown before the words; `none` for a dashed square. */
  readonly swatch?: string;
  /** Whether it is the one that holds now; left out for acts that hold nothing. */
  readonly checked?: boolean;
  readonly items?: MenuAct[];
}

/** Lines of which one holds are radio items, and say so. */
export const menuParts: MenuPassThroughOptions = {
  item: ({ context }: MenuPassThroughMethodOptions) => {
    const { item } = context as unknown as { item: MenuAct };
    return item.checked === undefined ? {} : { role: 'menuitemradio', 'aria-checked': item.checked };
  },
};
