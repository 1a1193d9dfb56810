/**
 * Written by `npm run support` from the data set of caniemail (MIT) of 2025-09-09; not to be changed by hand.
 * Of each family: how many programs of it were tested, and what at least half of them leave out.
 */
export interface Limit {
  /** The only elements on which the property is kept; on no element where nothing at all is said. */
  readonly only?: readonly string[];
  /** Elements on which it is not kept. */
  readonly not?: readonly string[];
  /** Values of it that are not kept. */
  readonly values?: readonly string[];
}
export interface Support {
  readonly programs: number;
  /** By property of a style. */
  readonly properties: Readonly<Record<string, Limit>>;
  readonly features: readonly string[];
}

/** How many programs were tested. */
export const TESTED = 41;

export const SUPPORT: Readonly<Record<'page' | 'inline' | 'word' | 'dark', Support>> = {
  page: {
    programs: 29,
    properties: {},
    features: ['min()'],
  },
  inline: {
    programs: 9,
    properties: {},
    features: ['style', 'body style', 'dark partners'],
  },
  word: {
    programs: 2,
    properties: {
      'border-radius': {},
      height: {
        not: ['body', 'span', 'div', 'p'],
      },
      margin: {
        not: ['span', 'body'],
        values: ['auto'],
      },
      'margin-left': {
        not: ['span', 'body'],
        values: ['auto'],
      },
      'margin-right': {
        not: ['span', 'body'],
        values: ['auto'],
      },
      'max-width': {
        only: ['table'],
      },
      padding: {
        only: ['td', 'th'],
      },
      'white-space': {},
      width: {
        not: ['body', 'span', 'div', 'p', 'img'],
      },
    },
    features: ['dark partners', 'min()', 'images in the HTML'],
  },
  dark: {
    programs: 24,
    properties: {},
    features: ['body style', 'dark partners'],
  },
};
