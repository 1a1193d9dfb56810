/** Changes of a text as a whole: its variables renamed, given another type, merged, taken out. */
export { keyProblem, renameVariable } from './rename.js';
export { mergeVariables, type Merged } from './merge.js';
export { readersOf, removeVariable, type Left } from './remove.js';
export { retypeVariable, type Retyped } from './retype.js';
export {
  findMatches,
  patternFor,
  replaceMatches,
  type FindOptions,
  type LineRef,
  type Match,
  type Replacement,
} from './find.js';
export { signOffLines, withoutSignOff } from './sign-off.js';
export { mapDocument, type Changes } from './map.js';
export { countUses, usesOf, type Use, type UseKind } from './uses.js';
export { neededBy, type Needed } from './needs.js';
export { repaired } from './repair.js';
