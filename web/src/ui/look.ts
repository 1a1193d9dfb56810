/** How a program's messages look in a frame. */
import { darkRules, direction, htmlStyles, type Program } from '@vocabula/core';

export interface Look {
  readonly bodyStyle: string;
  readonly lang: string;
  readonly dir: 'ltr' | 'rtl';
  /** Rules for the message's dark partners, for a body of the class `dark`. */
  readonly darkRules: string;
}

export const lookOf = ({ house, locale, colours }: Program): Look => ({
  bodyStyle: htmlStyles(house.style).body,
  lang: locale,
  dir: direction(locale),
  darkRules: darkRules(house.style, colours, 'body.dark '),
});

/** A message that was rendered whole has its look in itself. */
export const WHOLE_LOOK: Look = {
  bodyStyle: 'margin:0;font:14px/22px Arial,sans-serif;color:#20262E',
  lang: 'en',
  dir: 'ltr',
  darkRules: '',
};
