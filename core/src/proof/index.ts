/** Proof computations (engine notes, section 9), except the covering set, which has an entry of its own. */
export { commonOf, commonOfAll, stretchesOf, type Stretch as CommonStretch } from './compare/common.js';
export { compareMessages, type ComparedParagraph } from './compare/messages.js';
export type { Filling } from './cover/inputs.js';
export { Impact, type MessageChange } from './impact/impact.js';
export { hardCases, type HardCase, type HardOptions } from './hard/hard.js';
export { disguised, cellFor, madeUpSet, tellsWho } from './samples/made-up.js';
export { fillingOfRow, needs, type Need, type SampleRow } from './samples/needs.js';
export { withComputed, type Computed, type SampleColumn } from './samples/computed.js';
export { digestOf } from './table/digest.js';
export { KeptPassages, passagesOf, type PassageColumn } from './table/passages.js';
export {
  digestOfMessage,
  linesOf,
  LineBook,
  ProofTable,
  type Sheet,
  type TableOptions,
  type ValueColumn,
} from './table/table.js';
export { touches, type Touches } from './table/touched.js';
export { unlikeness } from './table/unlike.js';
export { explain, type Explanation, type Given } from './trace/explain.js';
export { tracedLines, withStretches, wordsOf, type Piece, type TracedLine } from './trace/lines.js';
