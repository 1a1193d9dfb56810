/** Which field of recipient or sender a hand-made marker means. */
import { fold } from '../words/fold.js';

/** What fields are called in old letters, in the usual languages, by their key. */
const CALLED: Readonly<Record<string, readonly string[]>> = {
  first_name: ['first name', 'firstname', 'given name', 'forename', 'vorname', 'prenom', 'nombre', 'nome'],
  last_name: ['last name', 'lastname', 'surname', 'family name', 'nachname', 'nom', 'apellido', 'cognome'],
  name: ['name', 'full name', 'recipient', 'customer name', 'client name'],
  email: ['email', 'e mail', 'email address', 'e mail address', 'mail address'],
  phone: ['phone', 'phone number', 'telephone', 'telephone number', 'telefon'],
  organisation: ['organisation', 'organization', 'company', 'company name', 'firma', 'school', 'societe', 'empresa'],
  city: ['city', 'town', 'ort', 'stadt', 'ville', 'ciudad'],
};
/** Words by which a marker says that it means whoever writes. */
const MINE = /^(?:my|sender|senders|own|mein|meine|mon|ma|mi)\s+/;

/**
 * The field that a marker's words mean, out of those there are (`recipient.x`, `sender.x`): its key itself, or what it
 * is usually called. Undefined where none is meant.
 */
export function fieldMeant(words: string, fields: readonly string[]): string | undefined {
  const said = fold(words)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
  const of = MINE.test(said) ? 'sender' : 'recipient';
  const bare = said.replace(MINE, '');
  if (bare === '') return undefined;
  const own = fields.filter((field) => field.startsWith(`${of}.`));
  const keyOf = (field: string): string => field.slice(of.length + 1);
  const named = own.find((field) => fold(keyOf(field)).replace(/_/g, ' ') === bare);
  return named ?? own.find((field) => CALLED[keyOf(field)]?.includes(bare));
}
