/** Tells what encoding bytes are in: UTF-8, UTF-16 or Windows-1252. */

export type Encoding = 'UTF-8' | 'UTF-16LE' | 'UTF-16BE' | 'Windows-1252';

/** Decodes text. A byte order mark decides; then valid UTF-8; then zeros at every other place; else Windows-1252. */
export function decode(bytes: Uint8Array): { readonly text: string; readonly encoding: Encoding } {
  const as = (encoding: Encoding, skip = 0): { text: string; encoding: Encoding } => ({
    text: new TextDecoder(encoding.toLowerCase()).decode(bytes.subarray(skip)),
    encoding,
  });
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return as('UTF-8', 3);
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return as('UTF-16LE', 2);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return as('UTF-16BE', 2);
  const sample = bytes.subarray(0, 4000);
  const zeros = [0, 0];
  sample.forEach((byte, index) => {
    if (byte === 0) zeros[index % 2] = (zeros[index % 2] ?? 0) + 1;
  });
  const half = sample.length / 2;
  if (sample.length >= 4 && (zeros[1] ?? 0) > half * 0.6 && (zeros[0] ?? 0) < half * 0.2) return as('UTF-16LE');
  if (sample.length >= 4 && (zeros[0] ?? 0) > half * 0.6 && (zeros[1] ?? 0) < half * 0.2) return as('UTF-16BE');
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return as('Windows-1252');
  }
}
