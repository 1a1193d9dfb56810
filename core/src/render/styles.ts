/** The house style as inline styles, and its dark partners as rules. */
import { DARK_PAGE, darkTint, tint } from '../house/colour.js';
import { MESSAGE_WIDTH, type HouseStyle } from '../house/house.js';

/**
 * Inline styles of one house, made once. Every block and cell has its own font, size, line height and colour: most mail
 * programs drop the style of `<body>`, and page styles with it.
 */
export interface HtmlStyles {
  readonly body: string;
  readonly p: string;
  readonly h1: string;
  readonly h2: string;
  readonly h3: string;
  readonly pre: string;
  readonly hr: string;
  readonly list: string;
  readonly item: string;
  readonly table: string;
  readonly th: string;
  readonly td: string;
  /** The words of a button. */
  readonly button: string;
  /** Whole opening tags of what a message has most of. */
  readonly open: Readonly<Record<'p' | 'h1' | 'h2' | 'h3' | 'li', string>>;
  /** The tags around a quotation. */
  readonly quoted: readonly [open: string, close: string];
  /** Attributes of a table head's cells, for programs that read no background from a style. */
  readonly headAttributes: string;
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
  const ink = `color:${style.ink.light}`;
  const words = `font-family:${style.font};font-size:${style.size}px;line-height:${style.lineHeight}px;${ink}`;
  const heading = (size: number): string =>
    `margin:0 0 12px;font-family:${headingFont ?? style.font};font-size:${size}px;line-height:${Math.round(size * 1.35)}px;${ink};font-weight:bold`;
  const lines = {
    rows: `border-bottom:1px solid ${rule.light}`,
    all: `border:1px solid ${rule.light}`,
    none: 'border:0',
  }[table.lines];
  const cell = `padding:4px ${table.lines === 'all' ? '8px' : '16px 4px 0'};vertical-align:top;${lines};${words}`;
  const head = table.head === undefined ? undefined : style.colours[table.head];
  const named = {
    body: `margin:0;${words}`,
    p: `margin:0 0 14px;${words}`,
    h1: heading(style.heading[0]),
    h2: heading(style.heading[1]),
    h3: heading(style.heading[2]),
    pre: `margin:0 0 14px;font-family:Consolas,Menlo,monospace;font-size:${Math.round(style.size * 0.93)}px;line-height:${style.lineHeight}px;${ink};white-space:pre-wrap`,
    hr: `margin:0 0 14px;border:0;border-top:1px solid ${rule.light}`,
    // Word-processor engines indent by margins, and give padding to cells only.
    list: 'margin:0 0 14px 24px;padding:0',
    item: `margin:0 0 4px;${words}`,
    table: 'margin:0 0 14px;border-collapse:collapse',
    th: `${cell};font-weight:bold${head ? `;background-color:${tint(head.light)}` : ''}`,
    td: cell,
    button: `font-family:${style.font};font-size:${style.size}px;line-height:${style.lineHeight}px;color:${button.words};font-weight:bold;text-decoration:none`,
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
    quoted: quoteTags(style),
    headAttributes: head ? ` bgcolor="${tint(head.light)}"` : '',
  };
}

/** Attributes of tables that lay out and hold no data: no room or lines of their own, and no word of them read aloud. */
const LAYOUT = 'role="presentation" cellpadding="0" cellspacing="0" border="0"';
/** What ends a layout table of one cell. */
export const LAYOUT_END = '</td></tr></tbody></table>';

/** The tags around a button's link: a padded, coloured cell, which word-processor engines keep as well. */
export function buttonTags(style: HouseStyle, align: string | null): readonly [open: string, close: string] {
  const { button } = style;
  const colour = style.colours[button.colour]?.light ?? style.ink.light;
  const cell = `<td class="b" bgcolor="${colour}" style="padding:9px 18px;border-radius:${button.corners}px;background-color:${colour}">`;
  const open = (more: string): string => `<table ${LAYOUT}${more}><tbody><tr>`;
  const separate = ' style="margin:0 0 14px;border-collapse:separate"';
  if (align !== 'center' && align !== 'right') return [open(separate) + cell, LAYOUT_END];
  // Where it stands is said by a cell around it: margins that find their own width are not known everywhere.
  const across = `${open(' width="100%" style="width:100%;border-collapse:collapse"')}<td align="${align}" style="padding:0">`;
  return [across + open(separate) + cell, LAYOUT_END + LAYOUT_END];
}

/** The tags around a quotation: the line at its side is that of a cell, which has room beside it everywhere. */
const quoteTags = (style: HouseStyle): readonly [open: string, close: string] => [
  `<blockquote style="margin:0 0 14px"><table ${LAYOUT} width="100%" style="width:100%;border-collapse:collapse"><tbody><tr><td style="padding:0 0 0 14px;border-left:3px solid ${style.rule.light}">`,
  `${LAYOUT_END}</blockquote>`,
];

/** How wide messages of a house are at most, in pixels. */
export const widthOf = ({ width = MESSAGE_WIDTH }: HouseStyle): number => width;

/** The tags around a whole message: a table of one cell, which keeps it to the house's width. */
export function frameTags(style: HouseStyle): readonly [open: string, close: string] {
  const width = widthOf(style);
  return [
    `<table ${LAYOUT} width="${width}" style="width:${width}px;max-width:100%;border-collapse:collapse"><tbody><tr><td align="left" style="padding:0">`,
    LAYOUT_END,
  ];
}

/** The opening tag of a line whose layout adds to its style. */
export const openTag = (styles: HtmlStyles, tag: 'p' | 'h1' | 'h2' | 'h3', more: string): string =>
  more === '' ? styles.open[tag] : `<${tag} style="${styles[tag]}${more}">`;

/** The tags around a panel: a table of one cell, which every mail program gives its tint and its room. */
export function panelTags(style: HouseStyle, colour: string): readonly [open: string, close: string] {
  const named = Object.hasOwn(style.colours, colour) ? style.colours[colour] : undefined;
  const look = named ? `background-color:${tint(named.light)}` : `border:1px solid ${style.rule.light}`;
  const ground = named ? ` bgcolor="${tint(named.light)}"` : '';
  const cell = `<td class="p-${named ? colour : ''}"${ground} style="padding:14px 18px 0;${look}">`;
  return [
    `<table ${LAYOUT} width="100%" style="width:100%;margin:0 0 14px;border-collapse:collapse"><tbody><tr>${cell}`,
    LAYOUT_END,
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
    `${['p', 'h1', 'h2', 'h3', 'li', 'td', 'th', 'pre'].map((tag) => scope + tag).join()}{color:${style.ink.dark}!important}`,
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
