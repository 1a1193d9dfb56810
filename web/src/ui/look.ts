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
