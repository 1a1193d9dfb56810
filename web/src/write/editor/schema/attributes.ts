/** Attributes that are data only, and attributes as JSON in a data attribute, for copying within the editor. */
export const attribute = <T>(value: T, rendered = false) => ({ default: value, rendered });

/** Reads attributes that were written into `data-NAME`; false where they are none. */
export const readData = (name: string) => (element: HTMLElement) => {
  try {
    return JSON.parse(element.dataset[name] ?? '') as Record<string, unknown>;
  } catch {
    return false;
  }
};

/** What lines hold, wherever they stand. */
export const LINE = '(text | placeholder | inlineComment)*';
