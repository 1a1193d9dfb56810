/** What a whole organisation shares: how its messages look, its facts and its holidays. */
import type { Variable } from '../template/variable.js';

/** A colour's hex value on light pages, and its partner on dark ones. */
export interface NamedColour {
  readonly light: string;
  readonly dark: string;
}

/** How messages look. */
export interface HouseStyle {
  /** The font stack of messages, and that of their headings where it differs, ending in a generic family. */
  readonly font: string;
  readonly headingFont?: string;
  /** Pixels. */
  readonly size: number;
  readonly lineHeight: number;
  /** How wide messages are at most, in pixels; `MESSAGE_WIDTH` where nothing is said. */
  readonly width?: number;
  readonly heading: readonly [h1: number, h2: number, h3: number];
  readonly ink: NamedColour;
  readonly link: NamedColour;
  /** Of rules, and of the lines of tables and quotes. */
  readonly rule: NamedColour;
  /** The colours that authors pick by name. */
  readonly colours: Readonly<Record<string, NamedColour>>;
  /** `colour` is a named colour, `words` a hex value, `corners` pixels. */
  readonly button: { readonly colour: string; readonly words: string; readonly corners: number };
  /** `head` is the named colour whose tint lies under a table's head, if any. */
  readonly table: { readonly head?: string; readonly lines: 'rows' | 'all' | 'none' };
  /** Names of the blocks that stand before and behind the body of every message. */
  readonly header?: string;
  readonly footer?: string;
}

/**
 * A value of the whole organisation, kept once. `variable` says its type, label and the like; values are source
 * text, read by the type. `changes` are in the order of their days: each holds from its day on.
 */
export interface Fact {
  readonly variable: Variable;
  readonly value: string;
  readonly changes: readonly { readonly date: string; readonly value: string }[];
}

/** What holds for all messages of an organisation: look, facts, holidays, language. */
export interface House {
  readonly style: HouseStyle;
  readonly facts: Readonly<Record<string, Fact>>;
  /** ISO days that do not count as working days. */
  readonly holidays: readonly string[];
  readonly locale: string;
}

/** The language of texts that name none. */
export const DEFAULT_LOCALE = 'en-GB';

/** How wide messages are where the house does not say: lines of about 75 characters, and room on every screen. */
export const MESSAGE_WIDTH = 640;

/** The plain look of messages when a house has not said otherwise. */
export const PLAIN_HOUSE: House = {
  style: {
    font: 'Arial, Helvetica, sans-serif',
    size: 15,
    lineHeight: 24,
    heading: [22, 18, 16],
    ink: { light: '#20262E', dark: '#E8E6E1' },
    link: { light: '#1E5FA8', dark: '#9DB8E0' },
    rule: { light: '#CFC9BD', dark: '#4A4F57' },
    colours: {
      ink: { light: '#20262E', dark: '#E8E6E1' },
      quiet: { light: '#5D6470', dark: '#A9AFB9' },
      moss: { light: '#3B6B2E', dark: '#9CCB8D' },
      slate: { light: '#2F4F7A', dark: '#9DB8E0' },
      brick: { light: '#A33A2A', dark: '#EFA08F' },
      ochre: { light: '#7A5A00', dark: '#E3C46A' },
    },
    button: { colour: 'slate', words: '#FFFFFF', corners: 3 },
    table: { lines: 'rows' },
  },
  facts: {},
  holidays: [],
  locale: DEFAULT_LOCALE,
};

/** Types that a fact may have: those with one value that no user gives. */
export const FACT_TYPES = [
  'text',
  'paragraphs',
  'number',
  'money',
  'date',
  'time',
  'datetime',
  'yes-no',
  'email',
  'phone',
  'link',
  'image',
] as const satisfies readonly Variable['type'][];
