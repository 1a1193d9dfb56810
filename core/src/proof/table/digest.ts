/**
 * A digest of words by which a message is known again: 128 bits of four lanes of FNV-1a with different beginnings, each
 * mixed at the end (finaliser of MurmurHash3, A. Appleby). Not for secrets: nobody gains by making two alike.
 */
export function digestOf(parts: readonly string[]): string {
  let [a, b, c, d] = [0x811c9dc5, 0x9e3779b9, 0x85ebca6b, 0xc2b2ae35];
  const take = (code: number): void => {
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ code, 0x01000197) ^ (a >>> 15);
    c = Math.imul(c ^ code, 0x010001a5) ^ (b >>> 13);
    d = Math.imul(d ^ code, 0x010001c9) ^ (c >>> 11);
  };
  for (const part of parts) {
    for (let at = 0; at < part.length; at += 1) take(part.charCodeAt(at));
    take(0x10000);
  }
  return [a, b, c, d].map((lane) => mixed(lane).toString(16).padStart(8, '0')).join('');
}

function mixed(lane: number): number {
  let hash = lane >>> 0;
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
