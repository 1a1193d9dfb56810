/** Special functions, and the checks of what is given to the statistics. */

/** g = 7, n = 9 of Lanczos’ approximation, as P. Godfrey (2001) gives them. */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
] as const;

/** The logarithm of the gamma function (C. Lanczos 1964), for x > 0; about 15 digits. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const at = x - 1;
  const sum = LANCZOS.reduce((total, each, index) => (index === 0 ? each : total + each / (at + index)), 0);
  const base = at + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (at + 0.5) * Math.log(base) - base + Math.log(sum);
}

/** The logarithm of the beta function, for a, b > 0. */
export const logBeta = (a: number, b: number): number => logGamma(a) + logGamma(b) - logGamma(a + b);

const ratio = (over: readonly number[], under: readonly number[], r: number): number =>
  over.reduceRight((sum, each) => sum * r + each, 0) / under.reduceRight((sum, each) => sum * r + each, 0);

// Coefficients of algorithm AS 241, from the constant up.
const CENTRE = [
  [
    3.3871328727963666, 133.14166789178438, 1971.5909503065514, 13731.693765509461, 45921.953931549871,
    67265.7709270087, 33430.575583588128, 2509.0809287301227,
  ],
  [
    1, 42.313330701600911, 687.1870074920579, 5394.1960214247511, 21213.794301586596, 39307.895800092711,
    28729.085735721943, 5226.4952788528546,
  ],
] as const;
const MIDDLE = [
  [
    1.4234371107496836, 4.6303378461565453, 5.7694972214606914, 3.6478483247632046, 1.2704582524523684,
    0.24178072517745061, 0.022723844989269185, 7.745450142783414e-4,
  ],
  [
    1, 2.0531916266377588, 1.6763848301838038, 0.6897673349851, 0.14810397642748007, 0.015198666563616457,
    5.475938084995345e-4, 1.0507500716444169e-9,
  ],
] as const;
const TAIL = [
  [
    6.6579046435011038, 5.4637849111641144, 1.7848265399172913, 0.29656057182850489, 0.026532189526576124,
    1.2426609473880784e-3, 2.7115555687434876e-5, 2.0103343992922881e-7,
  ],
  [
    1, 0.59983220655588794, 0.13692988092273581, 0.014875361290850615, 7.8686913114561329e-4, 1.8463183175100547e-5,
    1.4215117583164459e-7, 2.0442631033899397e-15,
  ],
] as const;

/** The quantile of the standard normal distribution (M. J. Wichura 1988, algorithm AS 241), for 0 < p < 1; about 16 digits. */
export function normalQuantile(p: number): number {
  const q = p - 0.5;
  if (Math.abs(q) <= 0.425) return q * ratio(...CENTRE, 0.180625 - q * q);
  const r = Math.sqrt(-Math.log(Math.min(p, 1 - p)));
  const size = r <= 5 ? ratio(...MIDDLE, r - 1.6) : ratio(...TAIL, r - 5);
  return q < 0 ? -size : size;
}

/** Throws a RangeError that names what is no count, or no share. */
export function demandShare(successes: number, trials: number, of = ''): void {
  const name = (argument: string): string => (of ? `${of}.${argument}` : argument);
  if (!Number.isSafeInteger(trials) || trials < 0)
    throw new RangeError(`${name('trials')} is a whole number from 0, not ${trials}`);
  if (!Number.isSafeInteger(successes) || successes < 0)
    throw new RangeError(`${name('successes')} is a whole number from 0, not ${successes}`);
  if (successes > trials) throw new RangeError(`${name('successes')} are ${successes}, more than trials: ${trials}`);
}
/** Throws a RangeError where it is not between 0 and 1. */
export function demandConfidence(confidence: number): void {
  if (!(confidence > 0 && confidence < 1)) throw new RangeError(`confidence is between 0 and 1, not ${confidence}`);
}
