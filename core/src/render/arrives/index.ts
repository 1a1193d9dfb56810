/** As it arrives: a message in each family of mail programs. */
export { arriveIn, type Arrival } from './arrives.js';
export type { Spoken } from './aloud.js';
export { FAMILIES, FAMILY_WORDS, shareOf, type Family, type FamilyWords } from './families.js';
export { MARK, type Loss } from './loss.js';
export { SMALL_SCREEN } from './room.js';
