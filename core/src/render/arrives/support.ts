/**
 * Written by `npm run support` from the data set of caniemail (MIT) of 2025-09-09; not to be changed by hand.
 * Of each family: how many programs of it were tested, and what at least half of them leave out.
 */
import type { Support } from './support-filter.js';

/** How many programs were tested. */
export const TESTED = 41;

/** What mail programs of each family support, counted from the caniemail data (MIT) by `npm run support`. */
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
