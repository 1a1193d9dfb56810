/** Made-up people for samples: several scripts and shapes of names; addresses that lead nowhere. */

export interface Person {
  readonly first: string;
  readonly last: string;
}

/** Made-up people, of several scripts and shapes of names. */
export const PEOPLE: readonly Person[] = [
  { first: 'Ada', last: 'Thornbury' },
  { first: 'Siobhán', last: 'Ní Bhriain' },
  { first: 'Tomás', last: 'Ó Súilleabháin' },
  { first: 'Björk', last: 'Hallgrímsdóttir' },
  { first: 'Zdeněk', last: 'Dvořáček' },
  { first: 'Ngozi', last: 'Okonkwo-Bell' },
  { first: 'Jean-Luc', last: 'd’Aubigny' },
  { first: 'Ελένη', last: 'Παπαδάκη' },
  { first: 'Мария', last: 'Соколова' },
  { first: 'Yuki', last: '山本' },
  { first: 'ليلى', last: 'منصور' },
  { first: 'Bo', last: 'Li' },
  { first: 'Maximiliane', last: 'von Rautenberg-Hohenfels' },
  { first: 'Priya', last: 'Raghunathan' },
  { first: 'Ewan', last: 'McAllister' },
  { first: 'Inês', last: 'Gonçalves' },
  { first: 'Çağla', last: 'Yıldırım' },
  { first: 'Owen', last: 'Pugh' },
  { first: 'Noor', last: 'van der Meulen' },
  { first: 'Lúcia', last: 'Fernandes' },
];

/** Made-up places. */
export const PLACES = [
  'Quillmere',
  'Harrowbeck',
  'Ashlow',
  'Fennick',
  'Brackenholt',
  'Tarnside',
  'Oldmere',
  'Wexcombe',
];
const KINDS = ['School', 'Ramblers', 'Library', 'Gardeners', 'Choir', 'Museum'];

/** What kind of thing a column of text holds, told from its key and name. */
export type Role = 'first' | 'last' | 'full' | 'organisation' | 'place' | 'street' | 'postcode' | 'words';

/** What a column seems to hold, by its key. */
export function roleOf(key: string): Role {
  if (/organi[sz]ation|company|school|firm|group|club/.test(key)) return 'organisation';
  if (/first|given|fore_?name|vorname|prenom/.test(key)) return 'first';
  if (/last|family|sur_?name|nachname/.test(key)) return 'last';
  if (/(?:^|_)(?:full_)?name(?:$|_\d)|contact|guest|member|leader/.test(key)) return 'full';
  if (/street|address|road/.test(key)) return 'street';
  if (/post_?code|zip|eircode/.test(key)) return 'postcode';
  if (/town|city|place|county/.test(key)) return 'place';
  return 'words';
}

/** The words of a role for the person of that number. */
export function wordsFor(role: Role, at: number): string {
  const person = PEOPLE[at % PEOPLE.length] as Person;
  const place = PLACES[(at * 3) % PLACES.length] ?? '';
  switch (role) {
    case 'first':
      return person.first;
    case 'last':
      return person.last;
    case 'full':
      return `${person.first} ${person.last}`;
    case 'organisation':
      return `${place} ${KINDS[at % KINDS.length]}`;
    case 'place':
      return place;
    case 'street':
      return `${(at % 90) + 1} ${PLACES[(at * 5 + 1) % PLACES.length]} Lane`;
    case 'postcode':
      return `X${String((at * 7) % 90).padStart(2, '0')} ${String((at * 131) % 9000).padStart(4, '0')}`;
    default:
      return `words ${at + 1}`;
  }
}

/** An address that belongs to nobody (RFC 2606). */
export const addressFor = (at: number): string =>
  `guest${String(at + 1).padStart(2, '0')}@${(PLACES[at % PLACES.length] ?? '').toLowerCase()}.example`;

/** A telephone number from a range that is kept free for fiction. */
export const phoneFor = (at: number): string => `+353 20 910 ${String((at * 37) % 10_000).padStart(4, '0')}`;
