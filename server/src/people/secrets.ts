/** Passwords and tokens. Neither is kept: a password as a scrypt hash (RFC 7914), a token as its SHA-256. */
import { createHash, randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

/** 32 MiB a hash, about 80 ms. */
const COST = { N: 2 ** 15, r: 8, p: 1 };
const LENGTH = 32;

const derived = (password: string, salt: Buffer, cost: ScryptOptions): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    // Two thirds of the memory are headroom: Node refuses at the very limit.
    scrypt(password.normalize('NFKC'), salt, LENGTH, { ...cost, maxmem: 96 * 1024 * 1024 }, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  );

/** What is kept of a password: `scrypt$N$r$p$salt$hash`, so that the cost can be raised later. */
export async function hashed(password: string): Promise<string> {
  const salt = randomBytes(16);
  const hash = await derived(password, salt, COST);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64url'), hash.toString('base64url')].join('$');
}

/** Whether it is that password. Takes as long where there is none, so that the time tells nothing. */
export async function isPassword(password: string, kept: string | null | undefined): Promise<boolean> {
  const [, n = String(COST.N), r = String(COST.r), p = String(COST.p), salt = '', hash = ''] = (kept ?? '').split('$');
  const found = await derived(password, Buffer.from(salt, 'base64url'), { N: Number(n), r: Number(r), p: Number(p) });
  const expected = Buffer.from(hash, 'base64url');
  return expected.length === found.length && timingSafeEqual(expected, found);
}

/** 256 bits that cannot be guessed. */
export const newToken = (): string => randomBytes(32).toString('base64url');
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');
