/** Reads `house.yaml`: how messages look, the facts of the organisation, its holidays (format notes). */
import { isMap, isSeq, type Node as YamlNode, type YAMLMap } from 'yaml';
import { error, type Finding, type FindingData, type ErrorCode } from '../../findings/finding.js';
import { isHex } from '../../house/colour.js';
import {
  FACT_TYPES,
  MESSAGE_WIDTH,
  PLAIN_HOUSE,
  type Fact,
  type House,
  type HouseStyle,
  type NamedColour,
} from '../../house/house.js';
import { isKey, isName } from '../../template/keys.js';
import { isDay } from '../../values/date.js';
import { valueType } from '../../values/index.js';
import { Reading } from '../markdown/inline.js';
import { FrontReader } from '../markdown/read-front.js';
import { readVariable } from '../markdown/read-variable.js';

/** A house as it was read from a file, with what was wrong in it. */
export interface ReadHouse {
  readonly house: House;
  readonly findings: readonly Finding[];
}

/** The most that a font stack may hold: family names, commas, quotes. Nothing that could end the style it stands in. */
const FONT = /^[\p{L}\p{N}' ,-]{1,200}$/u;

/** Reads a house. Always gives one: what cannot be read is as in the plain house, and among the findings. */
export function readHouse(source: string): ReadHouse {
  return new HouseReader(source.replace(/\r\n?/g, '\n')).read();
}

class HouseReader {
  private readonly reading = new Reading(new Set());
  private readonly front: FrontReader;

  constructor(source: string) {
    this.front = new FrontReader(source, this.reading, 0);
  }

  read(): ReadHouse {
    const house: { -readonly [key in keyof House]: House[key] } = { ...PLAIN_HOUSE };
    let version: string | undefined;
    for (const [name, node, line] of this.front.root ? this.front.entries(this.front.root) : []) {
      switch (name) {
        case 'vocabula':
          version = this.front.text(node, line, name);
          break;
        case 'locale':
          house.locale = this.front.text(node, line, name) ?? house.locale;
          break;
        case 'style':
          house.style = this.style(this.map(node, line, name), line);
          break;
        case 'facts':
          house.facts = this.facts(this.map(node, line, name));
          break;
        case 'holidays':
          house.holidays = this.holidays(node, line);
          break;
        default:
          this.unknown(name, line);
      }
    }
    if (version !== '1') this.report({ code: 'bad-file', why: 'no-version', where: 'file' }, 1);
    return { house, findings: this.reading.findings };
  }

  private report(data: FindingData<ErrorCode>, line: number): void {
    this.reading.findings.push(error(data, { line }));
  }

  private unknown(name: string, line: number): void {
    this.report({ code: 'unknown-attribute', why: 'here', name }, line);
  }

  private map(node: YamlNode | null, line: number, name: string): YAMLMap | undefined {
    if (isMap(node)) return node as YAMLMap;
    this.report({ code: 'bad-file', why: 'no-entries', name }, line);
    return undefined;
  }

  private style(map: YAMLMap | undefined, at: number): HouseStyle {
    const style: { -readonly [key in keyof HouseStyle]: HouseStyle[key] } = { ...PLAIN_HOUSE.style };
    for (const [name, node, line] of map ? this.front.entries(map) : []) {
      switch (name) {
        case 'font':
        case 'heading_font': {
          const font = this.front.text(node, line, name) ?? '';
          if (!FONT.test(font)) this.report({ code: 'bad-value', why: 'font' }, line);
          else if (name === 'font') style.font = font;
          else style.headingFont = font;
          break;
        }
        case 'size':
          style.size = this.number(node, line, name, 8, 40) ?? style.size;
          break;
        case 'line_height':
          style.lineHeight = this.number(node, line, name, 8, 80) ?? style.lineHeight;
          break;
        case 'width':
          style.width = this.number(node, line, name, 320, 1200) ?? MESSAGE_WIDTH;
          break;
        case 'headings':
          style.heading = this.headings(node, line) ?? style.heading;
          break;
        case 'ink':
        case 'link':
        case 'rule':
          style[name] = this.colour(node, line, name) ?? style[name];
          break;
        case 'colours':
          style.colours = this.colours(this.map(node, line, name));
          break;
        case 'button':
          style.button = this.button(this.map(node, line, name));
          break;
        case 'table':
          style.table = this.table(this.map(node, line, name));
          break;
        case 'header':
        case 'footer': {
          const text = this.front.text(node, line, name) ?? '';
          if (isName(text)) style[name] = text;
          else if (text !== '') this.report({ code: 'bad-value', why: 'block-name', name: text }, line);
          break;
        }
        default:
          this.unknown(name, line);
      }
    }
    for (const named of [style.button.colour, style.table.head])
      if (named !== undefined && !Object.hasOwn(style.colours, named))
        this.report({ code: 'bad-value', why: 'unknown-colour', name: named }, at);
    return style;
  }

  private number(node: YamlNode | null, line: number, name: string, min: number, max: number): number | undefined {
    const value = Number(this.front.text(node, line, name) ?? NaN);
    if (Number.isFinite(value) && value >= min && value <= max) return value;
    this.report({ code: 'bad-value', why: 'pixels', name, least: min, most: max }, line);
    return undefined;
  }

  private headings(node: YamlNode | null, line: number): HouseStyle['heading'] | undefined {
    const sizes = isSeq(node)
      ? node.items.map((item) => Number(this.front.text(item as YamlNode, line, 'headings')))
      : [];
    const [h1 = NaN, h2 = NaN, h3 = NaN] = sizes;
    if (sizes.length === 3 && [h1, h2, h3].every((size) => size >= 8 && size <= 80)) return [h1, h2, h3];
    this.report({ code: 'bad-value', why: 'headings' }, line);
    return undefined;
  }

  /** A hex value, or one for light pages and one for dark ones. */
  private colour(node: YamlNode | null, line: number, name: string): NamedColour | undefined {
    const parts = isMap(node) ? this.front.texts(node as YAMLMap) : { light: this.front.text(node, line, name) };
    const { light = '', dark = light } = parts as { light?: string; dark?: string };
    if (isHex(light) && isHex(dark)) return { light: light.toUpperCase(), dark: dark.toUpperCase() };
    this.report({ code: 'bad-value', why: 'colour', name }, line);
    return undefined;
  }

  private colours(map: YAMLMap | undefined): HouseStyle['colours'] {
    const colours: Record<string, NamedColour> = {};
    for (const [name, node, line] of map ? this.front.entries(map, 'colour') : []) {
      const colour = this.colour(node, line, name);
      if (!isKey(name)) this.report({ code: 'bad-key', why: 'colour', key: name }, line);
      else if (colour) colours[name] = colour;
    }
    return colours;
  }

  private button(map: YAMLMap | undefined): HouseStyle['button'] {
    const button = { ...PLAIN_HOUSE.style.button };
    for (const [name, node, line] of map ? this.front.entries(map) : []) {
      if (name === 'colour') button.colour = this.front.text(node, line, name) ?? button.colour;
      else if (name === 'words') button.words = this.colour(node, line, name)?.light ?? button.words;
      else if (name === 'corners') button.corners = this.number(node, line, name, 0, 40) ?? button.corners;
      else this.unknown(name, line);
    }
    return button;
  }

  private table(map: YAMLMap | undefined): HouseStyle['table'] {
    const table: { head?: string; lines: HouseStyle['table']['lines'] } = { ...PLAIN_HOUSE.style.table };
    for (const [name, node, line] of map ? this.front.entries(map) : []) {
      const text = this.front.text(node, line, name);
      if (name === 'head') {
        if (text) table.head = text;
      } else if (name === 'lines') {
        if (text === 'rows' || text === 'all' || text === 'none') table.lines = text;
        else
          this.report({ code: 'bad-value', why: 'not-one-of', name: 'lines', allowed: ['rows', 'all', 'none'] }, line);
      } else this.unknown(name, line);
    }
    return table;
  }

  private facts(map: YAMLMap | undefined): House['facts'] {
    const facts: Record<string, Fact> = {};
    for (const [key, node, line] of map ? this.front.entries(map, 'fact') : []) {
      const fact = this.fact(key, node, line);
      if (fact) facts[key] = fact;
    }
    return facts;
  }

  private fact(key: string, node: YamlNode | null, line: number): Fact | undefined {
    const read = readVariable(this.front, this.reading, key, node, line, { what: 'fact', except: ['value', 'from'] });
    if (!read || !isMap(node)) return undefined;
    const { variable } = read;
    if (!(FACT_TYPES as readonly string[]).includes(variable.type)) {
      this.report({ code: 'bad-value', why: 'fact-type', type: variable.type }, line);
      return undefined;
    }
    let value = '';
    const changes: { date: string; value: string }[] = [];
    for (const [name, inner, at] of this.front.entries(node as YAMLMap)) {
      if (name === 'value') value = this.front.text(inner, at, name) ?? '';
      if (name === 'from') changes.push(...this.changes(inner, at));
    }
    for (const problem of valueType(variable.type).declared(variable, CONTEXT))
      this.report({ code: 'bad-value', why: 'declaration', key, says: problem.message }, line);
    for (const each of [value, ...changes.map((change) => change.value)]) {
      const parsed = each === '' ? undefined : valueType(variable.type).parse(each, variable, CONTEXT);
      if (parsed && 'problem' in parsed)
        this.report({ code: 'bad-value', why: 'fact-value', key, value: each, says: parsed.problem }, line);
    }
    return { variable, value, changes: changes.sort((a, b) => (a.date < b.date ? -1 : 1)) };
  }

  private changes(node: YamlNode | null, line: number): { date: string; value: string }[] {
    const items = isSeq(node) ? (node.items as YamlNode[]) : [];
    if (!isSeq(node))
      this.report(
        { code: 'bad-file', why: 'not-list', name: 'from', example: '[{ date: 2027-01-01, value: "5.00" }]' },
        line,
      );
    return items.flatMap((item) => {
      const { date = '', value = '' } = isMap(item) ? this.front.texts(item as YAMLMap) : {};
      if (isDay(date)) return [{ date, value }];
      this.report({ code: 'bad-value', why: 'day', text: date }, line);
      return [];
    });
  }

  private holidays(node: YamlNode | null, line: number): string[] {
    const days = isSeq(node) ? node.items.map((item) => this.front.text(item as YamlNode, line, 'holidays') ?? '') : [];
    const bad = days.find((day) => !isDay(day));
    if (!isSeq(node) || bad !== undefined) this.report({ code: 'bad-value', why: 'holidays', text: bad }, line);
    return [...new Set(days.filter(isDay))].sort();
  }
}

/** Facts are read as the house writes them; relative limits are not for them. */
const CONTEXT = { today: '2000-01-01', locale: PLAIN_HOUSE.locale };
