/** What a person does on a page, in tests: by the names of things, as they are read. */
import { screen, within } from '@testing-library/dom';
import type { UserEvent } from '@testing-library/user-event';
import { expect, vi } from 'vitest';

/** How long something may take to show, in milliseconds: other work may share the machine. */
const PATIENCE = 40_000;

type Name = string | RegExp;

/** Waits until something holds. */
export const eventually = (holds: () => void | Promise<void>): Promise<void> =>
  vi.waitFor(holds, { timeout: PATIENCE, interval: 30 });

/** Waits until words stand on the page. */
export const says = (words: Name): Promise<HTMLElement> =>
  screen.findAllByText(words).then(([first]) => first as HTMLElement);

/** Waits until words no longer stand on the page. */
export const saysNoMore = (words: Name): Promise<void> =>
  eventually(() => expect(screen.queryAllByText(words)).toHaveLength(0));

/** A part of the page, by the name that assistive technology reads. */
export const part = (name: Name): Promise<HTMLElement> => screen.findByRole('region', { name });

/** Chooses a line of the menu that is open. */
export async function chooseLine(user: UserEvent, name: Name): Promise<void> {
  const line = await screen.findByRole('menuitem', { name });
  // The library acts on a press of what is in the line.
  await user.click(line.firstElementChild ?? line);
}

/** The words in a frame, by its title; white space is one space. */
export const inFrame = (title: string): string =>
  (document.querySelector<HTMLIFrameElement>(`iframe[title="${title}"]`)?.contentDocument?.body.textContent ?? '')
    .replace(/\s+/g, ' ')
    .trim();
/** Waits until a frame says something. */
export const frameSays = (title: string, words: string): Promise<void> =>
  eventually(() => expect(inFrame(title)).toContain(words));

/** Steps of the person whose page it is. @param inside the part of the page they are in; all of it if left out */
export function stepsOf(user: UserEvent, inside: () => HTMLElement = () => document.body) {
  const find = () => within(inside());
  async function press(name: Name): Promise<void> {
    const button = await find().findByRole('button', { name });
    await eventually(() => expect((button as HTMLButtonElement).disabled).toBeFalsy());
    await user.click(button);
  }
  return {
    press,
    /** Follows a link. */
    follow: async (name: Name): Promise<void> => user.click(await find().findByRole('link', { name })),
    /** Opens a tab. */
    open: async (name: Name): Promise<void> => user.click(await find().findByRole('tab', { name })),
    /** Presses a button that opens a menu, and chooses in it. */
    async choose(opener: Name, item: Name): Promise<void> {
      await press(opener);
      await chooseLine(user, item);
    },
    /** Writes into a field, in place of what is there. */
    async write(label: Name, words: string): Promise<void> {
      const field = await find().findByLabelText(label, { selector: 'input, textarea' });
      await user.clear(field);
      if (words !== '') await user.type(field, words);
    },
    /** Picks an option of a list. */
    async pick(label: Name, option: Name): Promise<void> {
      await user.click(await find().findByRole('combobox', { name: label }));
      const [wanted] = await screen.findAllByRole('option', { name: option });
      await user.click(wanted as HTMLElement);
    },
    /** Ticks, or takes a tick away. */
    tick: async (label: Name): Promise<void> => user.click(await find().findByLabelText(label)),
    /** What stands in a field. */
    inField: async (label: Name): Promise<string> => ((await find().findByLabelText(label)) as HTMLInputElement).value,
    keys: (keys: string): Promise<void> => user.keyboard(keys),
  };
}
