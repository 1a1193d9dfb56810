/** The covering set of a template (engine notes, section 9). */
export { pairArray } from './array.js';
export { cover, covering, type Case, type Covering, type CoverOptions, type CoverProgress } from './cover.js';
export type { Filling } from './inputs.js';
export type { Factor } from './observe.js';
export { casesInWords, reasonsOf, type CaseInWords } from './news.js';
