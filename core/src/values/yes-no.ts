/** Yes or no. A value is a boolean. */
import { languageOf } from './intl.js';
import type { ValueType } from './type.js';

/** Yes and no by language, since the runtime has no data for them. English stands in elsewhere. */
const WORDS: Record<string, readonly [yes: string, no: string]> = {
  en: ['yes', 'no'],
  de: ['ja', 'nein'],
  fr: ['oui', 'non'],
  es: ['sí', 'no'],
  it: ['sì', 'no'],
  pt: ['sim', 'não'],
  nl: ['ja', 'nee'],
  da: ['ja', 'nej'],
  sv: ['ja', 'nej'],
  nb: ['ja', 'nei'],
  fi: ['kyllä', 'ei'],
  pl: ['tak', 'nie'],
  cs: ['ano', 'ne'],
  ga: ['tá', 'níl'],
  el: ['ναι', 'όχι'],
  uk: ['так', 'ні'],
  tr: ['evet', 'hayır'],
  ja: ['はい', 'いいえ'],
  zh: ['是', '否'],
  ar: ['نعم', 'لا'],
  he: ['כן', 'לא'],
};

const SPELT: ReadonlyMap<string, boolean> = new Map([
  ['true', true],
  ['yes', true],
  ['false', false],
  ['no', false],
]);

/** The levels of what is so or not. */
export const YES_NO_LEVELS = [
  { key: 'yes', label: 'yes' },
  { key: 'no', label: 'no' },
];

/** Yes or no. */
export const yesNo: ValueType = {
  name: 'yes-no',
  attributes: ['words'],
  parse(input) {
    const value =
      typeof input === 'boolean'
        ? input
        : typeof input === 'string'
          ? SPELT.get(input.trim().toLowerCase())
          : undefined;
    return value === undefined ? { problem: 'This must be yes or no.' } : { value };
  },
  asGiven: () => (input) => (typeof input === 'boolean' ? '' : undefined),
  views: () => ['words'],
  formatter(variable, view, locale) {
    if (view !== '' && view !== 'words') return undefined;
    const [yes, no] = WORDS[languageOf(locale)] ?? ['yes', 'no'];
    return (value) => (value === true ? (variable.words?.yes ?? yes) : (variable.words?.no ?? no));
  },
  declared: () => [],
  specimen: () => true,
  expressionType: 'bool',
  family: 'yes-no',
  control: 'tick',
  governs: 'yes-no',
  column: 'yes-no',
  fromCell: (cell) => (/^(?:true|yes|1)$/i.test(cell) ? true : /^(?:false|no|0)$/i.test(cell) ? false : cell),
  outcomes: () => [{ levels: YES_NO_LEVELS, levelOf: (value) => (value === true ? 0 : 1) }],
  tried: () => [true, false],
  madeUp: ({ at }) => (at % 2 === 0 ? 'true' : 'false'),
};
