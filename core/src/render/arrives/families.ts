/** Families of mail programs, named by what they do with a message. */
import { SUPPORT, TESTED } from './support.js';

/** Families of mail programs, named by what they do. */
export const FAMILIES = ['page', 'inline', 'word', 'narrow', 'dark', 'no-images', 'plain', 'aloud'] as const;
/** One of the families. */
export type Family = (typeof FAMILIES)[number];

/** What a family is called, and what it does. */
export interface FamilyWords {
  readonly name: string;
  /** What it does with a message, in a few words. */
  readonly about: string;
}
/** The words for each family. */
export const FAMILY_WORDS: Readonly<Record<Family, FamilyWords>> = {
  page: { name: 'Keeps page styles', about: 'shows everything, dark colours included' },
  inline: { name: 'Keeps inline styles only', about: 'drops page styles and dark colours' },
  word: { name: 'Word-processor engine', about: 'drops padding outside cells, round corners' },
  narrow: { name: 'Small screen', about: '360 pixels wide' },
  dark: { name: 'Forced dark', about: 'turns light colours dark by itself' },
  'no-images': { name: 'Images blocked', about: 'shows alternative texts instead' },
  plain: { name: 'Plain text', about: 'words only, no look' },
  aloud: { name: 'Read aloud', about: 'words in order, spoken' },
};

/** Of the tested programs, how many are of a family; undefined for families that are a setting rather than a program. */
export function shareOf(family: Family): { readonly programs: number; readonly tested: number } | undefined {
  return family in SUPPORT ? { programs: SUPPORT[family as keyof typeof SUPPORT].programs, tested: TESTED } : undefined;
}
