/** Escaping of text for the places it lands in. */

/** What stands for the characters below `?` that HTML would take for structure; empty for the others. */
const ENTITIES: readonly string[] = Array.from({ length: 0x3f }, (_, code) => {
  switch (String.fromCharCode(code)) {
    case '&':
      return '&amp;';
    case '<':
      return '&lt;';
    case '>':
      return '&gt;';
    case '"':
      return '&quot;';
    case "'":
      return '&#39;';
    default:
      return '';
  }
});

/**
 * For HTML text and quoted attributes alike. Goes through the characters itself: for the short texts that
 * values are, that was measured to be faster than a pattern with a replacing function.
 */
export function escapeHtml(text: string): string {
  let out = '';
  let from = 0;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    // Letters and what is above them need nothing.
    if (code >= 0x3f) continue;
    const entity = ENTITIES[code] as string;
    if (entity === '') continue;
    out += text.slice(from, at) + entity;
    from = at + 1;
  }
  return from === 0 ? text : out + text.slice(from);
}

/** A value as HTML text, its directions closed; its line breaks are breaks where `breaks` says so, else spaces. */
export function valueHtml(text: string, breaks: boolean): string {
  const html = escapeHtml(closeDirections(text));
  return html.includes('\n') ? (breaks ? html.replace(/\n/g, '<br>') : html.replace(/\n+/g, ' ')) : html;
}

/**
 * The HTML of usual text: in one line, without control characters or turns of direction. Undefined for other text.
 * One look at each character tells both that a value stands as it is and what its HTML is.
 */
export function usualHtml(text: string): string | undefined {
  let out = '';
  let from = 0;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code >= 0x3f) {
      if (code >= 0x7f && (code === 0x7f || code >= 0x202a) && isUnusual(code)) return undefined;
      continue;
    }
    if (code < 0x20) return undefined;
    const entity = ENTITIES[code] as string;
    if (entity === '') continue;
    out += text.slice(from, at) + entity;
    from = at + 1;
  }
  return from === 0 ? text : out + text.slice(from);
}

/** Delete, the turns of direction, and what is no character. */
const isUnusual = (code: number): boolean =>
  code === 0x7f || code <= 0x202e || (code >= 0x2066 && code <= 0x2069) || code >= 0xfffe;

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
