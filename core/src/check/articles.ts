/** Which of “a” and “an” goes before a word in English, as far as it can be told from the letters. */

/** Vowels in writing that are consonants in speech, and the other way round. */
const CONSONANT_SOUND =
  /^(?:uni(?!n|m)|use|usu|usa|uto|ubi|eu|ewe|one(?![a-z])|once|ouija|u[bcfhjkqrst][aeiou](?!n)|uk(?![a-z])|us(?![a-z])|url|usb)/i;
const VOWEL_SOUND = /^(?:hour|honest|honou?r|heir)/i;
/** Letters whose names begin with a vowel; what is all capitals is mostly spelt out. */
const SPELT = /^[AEFHILMNORSX]/;

/** The right article, or undefined where that cannot be told. */
export function articleFor(word: string): 'a' | 'an' | undefined {
  if (/^\d/.test(word)) return /^8/.test(word) || /^1[18](?!\d)/.test(word) ? 'an' : 'a';
  if (!/^[a-z]/i.test(word)) return /^[áàâäéèêëíìîïóòôö]/i.test(word) ? 'an' : undefined;
  if (word.length === 1 || /^[A-Z]{2,}\d*$/.test(word)) {
    // With a vowel in it, it may be read as a word or letter by letter.
    if (word.length > 1 && (/[AEIOU]/.test(word.slice(1)) || word.length > 4)) return undefined;
    return SPELT.test(word.toUpperCase()) ? 'an' : 'a';
  }
  if (VOWEL_SOUND.test(word)) return 'an';
  return CONSONANT_SOUND.test(word) || !/^[aeiou]/i.test(word) ? 'a' : 'an';
}
