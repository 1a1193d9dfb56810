/**
 * Recipient fields out of typed words: `Ann Lee <ann@x.example>`, an address alone, or a name.
 * Of a name the first word is `first_name`, the others together `last_name`; what is not said is left out.
 */
export function recipientFromWords(typed: string): Record<string, string> {
  const words = typed.trim();
  const named = /^([^<]*)<([^>]*)>?$/.exec(words);
  const email = (named?.[2] ?? (words.includes('@') ? words : '')).trim();
  const name = (named?.[1] ?? (words.includes('@') ? '' : words)).trim();
  const [first = '', ...rest] = name.split(/\s+/);
  return {
    ...(first ? { first_name: first } : {}),
    ...(rest.length > 0 ? { last_name: rest.join(' ') } : {}),
    ...(email ? { email } : {}),
  };
}
