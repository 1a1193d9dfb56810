/**
 * A digest of words by which a message is known again: 64 bits, of two lanes of FNV-1a that begin and multiply
 * otherwise, each mixed at the end (finaliser of MurmurHash3, A. Appleby). Among a hundred thousand messages two are
 * alike by chance once in some billion times. Not for secrets: nobody gains by making two alike.
 */
export function digestOf(parts: readonly string[]): string {
  let a = 0x811c9dc5;
  let b = 0x9e3779b9;
  for (const part of parts) {
    for (let at = 0; at < part.length; at += 1) {
      const code = part.charCodeAt(at);
      a = Math.imul(a ^ code, 0x01000193);
      b = Math.imul(b ^ code, 0x010001a5) ^ (a >>> 15);
    }
    a = Math.imul(a ^ 0x10000, 0x01000193);
    b = Math.imul(b ^ 0x10000, 0x010001a5) ^ (a >>> 15);
  }
  return [a, b].map((lane) => mixed(lane).toString(16).padStart(8, '0')).join('');
}

function mixed(lane: number): number {
  let hash = lane >>> 0;
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
