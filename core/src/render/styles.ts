/** The house style as inline styles, and its dark partners as rules. */
import { DARK_PAGE, darkTint, tint } from '../house/colour.js';
import type { HouseStyle } from '../house/house.js';

/** Inline styles of one house, made once. */
export interface HtmlStyles {
  readonly body: string;
  readonly p: string;
  readonly h1: string;
  readonly h2: string;
  readonly h3: string;
  readonly pre: string;
  readonly hr: string;
  readonly quote: string;
  readonly list: string;
  readonly item: string;
  readonly table: string;
  readonly th: string;
  readonly td: string;
  readonly button: string;
  /** Whole opening tags of what a message has most of. */
  readonly open: Readonly<Record<'p' | 'h1' | 'h2' | 'h3' | 'li', string>>;
}

const made = new WeakMap<HouseStyle, HtmlStyles>();

/** The inline styles of a house style. */
export function htmlStyles(style: HouseStyle): HtmlStyles {
  let styles = made.get(style);
  if (!styles) {
    styles = makeStyles(style);
    made.set(style, styles);
  }
  return styles;
}

function makeStyles(style: HouseStyle): HtmlStyles {
  const { rule, button, table, headingFont } = style;
  const heading = (size: number): string =>
    `margin:0 0 12px;${headingFont ? `font-family:${headingFont};` : ''}font-size:${size}px;line-height:${Math.round(size * 1.35)}px;font-weight:bold`;
  const lines = {
    rows: `border-bottom:1px solid ${rule.light}`,
    all: `border:1px solid ${rule.light}`,
    none: 'border:0',
  }[table.lines];
  const cell = `padding:4px ${table.lines === 'all' ? '8px' : '16px 4px 0'};vertical-align:top;${lines}`;
  const head = table.head === undefined ? undefined : style.colours[table.head];
  const named = {
    body: `margin:0;font-family:${style.font};font-size:${style.size}px;line-height:${style.lineHeight}px;color:${style.ink.light}`,
    p: 'margin:0 0 14px',
    h1: heading(style.heading[0]),
    h2: heading(style.heading[1]),
    h3: heading(style.heading[2]),
    pre: 'margin:0 0 14px;font-family:Consolas,Menlo,monospace;font-size:0.93em;white-space:pre-wrap',
    hr: `margin:0 0 14px;border:0;border-top:1px solid ${rule.light}`,
    quote: `margin:0 0 14px;padding:0 0 0 14px;border-left:3px solid ${rule.light}`,
    list: 'margin:0 0 14px;padding:0 0 0 24px',
    item: 'margin:0 0 4px',
    table: 'margin:0 0 14px;border-collapse:collapse',
    th: `${cell};font-weight:bold${head ? `;background-color:${tint(head.light)}` : ''}`,
    td: cell,
    button: `display:inline-block;padding:9px 18px;border-radius:${button.corners}px;background-color:${style.colours[button.colour]?.light ?? style.ink.light};color:${button.words};font-weight:bold;text-decoration:none`,
  };
  return {
    ...named,
    open: {
      p: `<p style="${named.p}">`,
      h1: `<h1 style="${named.h1}">`,
      h2: `<h2 style="${named.h2}">`,
      h3: `<h3 style="${named.h3}">`,
      li: `<li style="${named.item}">`,
    },
  };
}

/** The opening tag of a line whose layout adds to its style. */
export const openTag = (styles: HtmlStyles, tag: 'p' | 'h1' | 'h2' | 'h3', more: string): string =>
  more === '' ? styles.open[tag] : `<${tag} style="${styles[tag]}${more}">`;

/** The tags around a panel: a table of one cell, which every mail program gives its tint and its room. */
export function panelTags(style: HouseStyle, colour: string): readonly [open: string, close: string] {
  const named = Object.hasOwn(style.colours, colour) ? style.colours[colour] : undefined;
  const look = named ? `background-color:${tint(named.light)}` : `border:1px solid ${style.rule.light}`;
  const cell = `<td class="p-${named ? colour : ''}" style="padding:14px 18px 0;${look}">`;
  return [
    `<table role="presentation" style="width:100%;margin:0 0 14px;border-collapse:collapse"><tbody><tr>${cell}`,
    '</td></tr></tbody></table>',
  ];
}

/**
 * Rules that turn a message to its dark partners. `scope` stands before each selector, and ends in a space if it is
 * not empty; `colours` are the classes of named colours that the message uses.
 */
export function darkRules(style: HouseStyle, colours: Iterable<string>, scope = ''): string {
  const body = scope === '' ? 'body' : scope.trim();
  const rules = [
    `${body}{background:${DARK_PAGE}!important;color:${style.ink.dark}!important}`,
    `${scope}a{color:${style.link.dark}!important}`,
    `${scope}a.b{color:${style.button.words}!important}`,
    `${scope}hr,${scope}td,${scope}th,${scope}blockquote{border-color:${style.rule.dark}!important}`,
  ];
  for (const name of colours) {
    const colour = style.colours[name.slice(2)];
    if (!colour) continue;
    rules.push(
      name.startsWith('c-')
        ? `${scope}.${name}{color:${colour.dark}!important}`
        : `${scope}.${name}{background-color:${darkTint(colour.dark)}!important}`,
    );
  }
  return rules.join('');
}
