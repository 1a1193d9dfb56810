/** What a whole organisation shares: how its messages look, its facts and its holidays. */
import type { TypeName } from '../template/variable.js';
import type { Value } from '../values/index.js';

export interface HouseStyle {
  /** The font stack of messages, ending in a generic family. */
  readonly font: string;
  /** Pixels. */
  readonly size: number;
  readonly lineHeight: number;
  readonly heading: readonly [h1: number, h2: number, h3: number];
  readonly ink: string;
  readonly quiet: string;
  readonly link: string;
  readonly rule: string;
  /** Six named colours, which authors pick by name. */
  readonly colours: Readonly<Record<string, { readonly light: string; readonly dark: string }>>;
}

/** A value of the whole organisation, kept once. */
export interface Fact {
  readonly type: TypeName;
  readonly label: string;
  readonly value: Value;
  readonly currency?: string;
}

export interface House {
  readonly style: HouseStyle;
  readonly facts: Readonly<Record<string, Fact>>;
  /** ISO days that do not count as working days. */
  readonly holidays: readonly string[];
  readonly locale: string;
}

export const DEFAULT_LOCALE = 'en-GB';

/** The plain look of messages when a house has not said otherwise. */
export const PLAIN_HOUSE: House = {
  style: {
    font: 'Arial, Helvetica, sans-serif',
    size: 15,
    lineHeight: 24,
    heading: [22, 18, 16],
    ink: '#20262E',
    quiet: '#5D6470',
    link: '#1E5FA8',
    rule: '#CFC9BD',
    colours: {
      ink: { light: '#20262E', dark: '#E8E6E1' },
      quiet: { light: '#5D6470', dark: '#A9AFB9' },
      moss: { light: '#3B6B2E', dark: '#9CCB8D' },
      slate: { light: '#2F4F7A', dark: '#9DB8E0' },
      brick: { light: '#A33A2A', dark: '#EFA08F' },
      ochre: { light: '#7A5A00', dark: '#E3C46A' },
    },
  },
  facts: {},
  holidays: [],
  locale: DEFAULT_LOCALE,
};
