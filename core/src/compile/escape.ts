/** Escaping of text for the places it lands in. */

const SPECIAL = /[&<>"']/;
const SPECIALS = /[&<>"']/g;
const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** For HTML text and quoted attributes alike. */
export function escapeHtml(text: string): string {
  return SPECIAL.test(text) ? text.replace(SPECIALS, (character) => ENTITIES[character] as string) : text;
}

/** Fixed text of a paragraph: runs of spaces and those at its ends stay visible. */
export function escapeFixed(text: string): string {
  return escapeHtml(text)
    .replace(/ {2,}/g, (run) => `${'&nbsp;'.repeat(run.length - 1)} `)
    .replace(/\u00A0/g, '&nbsp;');
}

const BIDI = /[\u202A-\u202E\u2066-\u2069]/;

/** Ends the directional overrides that a value leaves open, so that they change nothing after it. */
export function closeDirections(text: string): string {
  if (!BIDI.test(text)) return text;
  const open: string[] = [];
  for (const character of text) {
    if (character >= '\u202A' && character <= '\u202E' && character !== '\u202C') open.push('\u202C');
    else if (character >= '\u2066' && character <= '\u2068') open.push('\u2069');
    else if (character === '\u202C' || character === '\u2069') {
      const at = open.lastIndexOf(character);
      if (at >= 0) open.splice(at, 1);
    }
  }
  return text + open.reverse().join('');
}
