/** Writes a house as `house.yaml` in canonical form. What is as in the plain house is left out. */
import { PLAIN_HOUSE, type Fact, type House, type HouseStyle, type NamedColour } from '../../house/house.js';
import { block, flow, quoted, scalar, variableEntries, type Entry } from '../markdown/yaml.js';

/** Writes a house. */
export function writeHouse({ style, facts, holidays, locale }: House): string {
  const entries: Entry[] = [['vocabula', '1']];
  if (locale !== PLAIN_HOUSE.locale) entries.push(['locale', scalar(locale)]);
  const styleEntries = entriesOfStyle(style);
  if (styleEntries.length > 0) entries.push(['style', styleEntries]);
  const factEntries = Object.entries(facts).map(([key, fact]): Entry => [key, entriesOfFact(fact)]);
  if (factEntries.length > 0) entries.push(['facts', factEntries]);
  if (holidays.length > 0) entries.push(['holidays', `[${holidays.join(', ')}]`]);
  return `${entries.flatMap((entry) => block(entry, '', (key) => key === 'style' || key === 'facts' || key === 'colours')).join('\n')}\n`;
}

const colourEntry = ({ light, dark }: NamedColour): string =>
  flow([
    ['light', quoted(light)],
    ['dark', quoted(dark)],
  ]);

function entriesOfStyle(style: HouseStyle): Entry[] {
  const plain = PLAIN_HOUSE.style;
  const entries: Entry[] = [];
  const differs = (a: unknown, b: unknown): boolean => JSON.stringify(a) !== JSON.stringify(b);
  if (style.font !== plain.font) entries.push(['font', quoted(style.font)]);
  if (style.headingFont !== undefined) entries.push(['heading_font', quoted(style.headingFont)]);
  if (style.size !== plain.size) entries.push(['size', String(style.size)]);
  if (style.lineHeight !== plain.lineHeight) entries.push(['line_height', String(style.lineHeight)]);
  if (style.width !== undefined) entries.push(['width', String(style.width)]);
  if (differs(style.heading, plain.heading)) entries.push(['headings', `[${style.heading.join(', ')}]`]);
  for (const name of ['ink', 'link', 'rule'] as const)
    if (differs(style[name], plain[name])) entries.push([name, colourEntry(style[name])]);
  if (differs(style.colours, plain.colours))
    entries.push([
      'colours',
      Object.entries(style.colours).map(([name, colour]): Entry => [name, colourEntry(colour)]),
    ]);
  if (differs(style.button, plain.button)) {
    const { colour, words, corners } = style.button;
    entries.push([
      'button',
      flow([
        ['colour', colour],
        ['words', quoted(words)],
        ['corners', String(corners)],
      ]),
    ]);
  }
  if (differs(style.table, plain.table)) {
    const { head, lines } = style.table;
    entries.push(['table', flow([...(head === undefined ? [] : [['head', head] as const]), ['lines', lines]])]);
  }
  for (const name of ['header', 'footer'] as const) {
    const text = style[name];
    if (text !== undefined) entries.push([name, scalar(text)]);
  }
  return entries;
}

function entriesOfFact({ variable, value, changes }: Fact): Entry[] {
  const entries = variableEntries(variable);
  if (value !== '') entries.push(['value', scalar(value)]);
  if (changes.length > 0)
    entries.push([
      'from',
      `[${changes
        .map((change) =>
          flow([
            ['date', change.date],
            ['value', scalar(change.value)],
          ]),
        )
        .join(', ')}]`,
    ]);
  return entries;
}
