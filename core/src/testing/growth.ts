/** How work grows with its input: what looks at each place once takes twice as long for twice the input. */

/** What inputs are made of that readers stumble over: unclosed, nested, repeated, blank. */
export const STUMBLING = [
  '[', '[[]', '{{', '{{#a}}', '{{/a}}', '{{{', '(', '"', '“', 'a', 'a ', 'a@', 'a@b.', '@', ' ', '\t', '\n', '\n\n',
  '[a](', '[a](b) ', '![', '`', '`a', '**a*', '_a*', '~~a', ':::', '\n:::', '<', '<a', '<b>', '<!--', '<title',
  '<img ', '<img src="', '&', '&lt', '- ', '\n- ', '> ', '\n> ', '|', '\n|a|', '1. ', '1,', '…', '. ', 'https://',
  '___', '[NAME] ', 'NAME ', '<<a>>', 'the the ', '\u00a0', '\\', '\\{{', '=}}', '{{=', 'From ', 'see attached ',
] as const; // prettier-ignore

/** Input of about so many units. */
export const stumbling = (unit: string, units: number): string => unit.repeat(Math.ceil(units / unit.length));

/** Processor time of this process for some work, in milliseconds; other processes do not count. */
function cost(work: () => unknown): number {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}

/** The longer of the two inputs, in UTF-16 units. */
const LONG = 32_000;
/** What looks at each place from each takes far longer than this for the longer input; what does not is not measured. */
const MEASURABLE = 200;
/** Twice the input takes 2 times as long if each place is looked at once, 4 times if each is looked at from each. */
export const GROWTH_LIMIT = 3;
const ATTEMPTS = 4;

/**
 * How many times longer the work takes for twice the input, the least of some attempts; undefined where the longer input
 * takes no time worth measuring. Attempts end with the first below the limit: what is quadratic never is.
 */
export function growthOf(work: (input: string) => unknown, unit: string): number | undefined {
  const [once, twice] = [stumbling(unit, LONG / 2), stumbling(unit, LONG)];
  if (cost(() => work(twice)) < MEASURABLE) return undefined;
  let least = Infinity;
  for (let attempt = 0; attempt < ATTEMPTS && least > GROWTH_LIMIT; attempt += 1)
    least = Math.min(
      least,
      cost(() => work(twice)) /
        Math.max(
          1,
          cost(() => work(once)),
        ),
    );
  return least;
}
