/** Versions of a text in other languages: put beside the original, compared, and given its structure. */
export { carryOver, newVersion, type Carrying } from './carry.js';
export {
  languageLines,
  lineFrom,
  saysWords,
  withLine,
  writtenLine,
  type LanguageLine,
  type LinePlace,
} from './lines.js';
export { type Agreed } from './pairs.js';
export { agreedBy, besideOriginal, statesOf, type Beside, type LanguageRow, type LineState } from './rows.js';
