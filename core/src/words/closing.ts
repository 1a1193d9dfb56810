/** How letters begin and end, by language: greetings, and the words that sign them off. */
import { withoutAtEnd } from './ends.js';
import { bodyText } from './lines.js';
import type { Block } from '../template/document.js';

/** What a letter is signed off with; names and addresses follow. */
const CLOSINGS: readonly RegExp[] = [
  /^(?:with )?(?:kind(?:est)?|best|warm(?:est)?|many|good)?\s*(?:regards|wishes|thanks)(?: from .{1,30})?$/i,
  /^yours(?: (?:sincerely|faithfully|truly|ever))?$/i,
  /^(?:sincerely|cheers|all the best|take care|le meas|is mise(?: le meas)?)(?: yours)?$/i,
  /^(?:mit )?(?:freundliche|herzliche|beste|liebe|viele|schöne)?[nr]?\s*(?:grüßen|grüssen|grüße|grüsse|gruß|gruss)$/i,
  /^(?:bien )?cordialement|^(?:avec nos |mes )?(?:meilleures )?salutations(?: distinguées)?$/i,
  /^(?:un )?(?:cordial )?saludo|^atentamente|^saludos(?: cordiales)?$/i,
  /^(?:cordiali|distinti) saluti$/i,
  /^(?:met )?vriendelijke groet(?:en)?$/i,
];
const GREETINGS: readonly RegExp[] = [
  /^(?:dear|hello|hi|good (?:morning|day|afternoon|evening))\b/i,
  /^(?:sehr geehrte|liebe|lieber|guten tag|hallo)/i,
  /^(?:bonjour|cher|chère|madame|monsieur)\b/i,
  /^(?:estimad[oa]|hola|querid[oa])\b/i,
  /^(?:gentile|caro|cara|buongiorno)\b/i,
  /^(?:beste|geachte|hallo)\b/i,
  /^a chara\b/i,
];
/** The mark that mail programs put before a signature (RFC 3676). */
const DELIMITER = /^-- ?$/;
/** A signature is short; more than this is more than one. */
const LONGEST = 8;

const bare = (line: string): string => withoutAtEnd(line.trimEnd(), ' \t\u00A0,.!–—-').trim();

/** True for a line that signs a letter off. */
export const isClosing = (line: string): boolean => CLOSINGS.some((pattern) => pattern.test(bare(line)));

/** True for a line that greets: short, and ended by a comma, a colon or nothing. */
export const isGreeting = (line: string): boolean =>
  line.length <= 80 && !/[.?]\s/.test(line) && GREETINGS.some((pattern) => pattern.test(line.trim()));

/**
 * Where a signature that was written by hand begins: the index of the first block that belongs to it, and of the line
 * in that block, 0 for the whole block. Undefined where the text is not signed.
 */
export function findSignOff(blocks: readonly Block[]): { readonly block: number; readonly line: number } | undefined {
  for (let at = blocks.length - 1; at >= 0 && at >= blocks.length - LONGEST; at -= 1) {
    const lines = bodyText(blocks[at] as Block);
    // Something must follow: a name in the same block, or in those behind it.
    const found = lines.findLastIndex((line) => isClosing(line) || DELIMITER.test(line));
    if (found >= 0 && (found < lines.length - 1 || at < blocks.length - 1)) return { block: at, line: found };
  }
  return undefined;
}
