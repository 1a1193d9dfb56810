/** Packed files (ZIP), unpacked with a limit. */
import { unzip, type Unzipped } from 'fflate';

/** Why a packed file was not unpacked. */
export class PackedProblem extends Error {
  constructor(readonly why: 'damaged' | 'too large') {
    super(why);
  }
}

/** The most parts that are unpacked, where nothing else is said. */
const MAX_PARTS = 2000;
/**
 * How many times larger than the file its parts may be together, beyond a first megabyte. Documents come to twenty or
 * thirty times; what is made to harm comes to a thousand.
 */
const MAX_RATIO = 120;
const ALWAYS = 1_000_000;

/**
 * Unpacks the parts that are wanted.
 * @param most bytes that they may come to. What a part declares is also all that is unpacked of it: its buffer has that size
 * @param parts the most of them
 * @throws PackedProblem
 */
export function unpackWithin(bytes: Uint8Array, wanted: RegExp, most: number, parts = MAX_PARTS): Promise<Unzipped> {
  const allowed = Math.min(most, ALWAYS + MAX_RATIO * bytes.length);
  let total = 0;
  let count = 0;
  let tooLarge = false;
  return new Promise((resolve, reject) => {
    unzip(
      bytes,
      {
        filter: ({ name, originalSize }) => {
          if (!wanted.test(name)) return false;
          total += originalSize;
          count += 1;
          if (total > allowed || count > parts) tooLarge = true;
          return !tooLarge;
        },
      },
      (problem, unpacked) => {
        if (tooLarge) reject(new PackedProblem('too large'));
        else if (problem) reject(new PackedProblem('damaged'));
        else resolve(unpacked);
      },
    );
  });
}
