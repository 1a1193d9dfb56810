/** Conditions: what governs a passage (engine notes, section 1). */

/**
 * `of` names a yes-no, a choice, choices or a list; `is` the options that keep the passage (empty for a
 * yes-no or list); `not` turns it round. `run` tells neighbouring repeats over the same list apart and
 * is 0 everywhere else.
 */
export interface Condition {
  readonly of: string;
  readonly is: readonly string[];
  readonly not: boolean;
  readonly run: number;
}

/** Makes a condition with the parts that are usually left out. */
export function condition(of: string, is: readonly string[] = [], not = false, run = 0): Condition {
  return { of, is, not, run };
}

/** The name inside a condition's tags: `guide`, `gate.north|river`. */
export function conditionName(c: Condition): string {
  return c.is.length > 0 ? `${c.of}.${c.is.join('|')}` : c.of;
}

/** The opening tag's text, by which conditions on the same words are sorted. */
export function openingTag(c: Condition): string {
  return `{{${c.not ? '^' : '#'}${conditionName(c)}}}`;
}

/** The closing tag's text. */
export function closingTag(c: Condition): string {
  return `{{/${conditionName(c)}}}`;
}

/** Whether two conditions are the same, in the same run of passages. */
export function sameCondition(a: Condition, b: Condition): boolean {
  return (
    a.of === b.of &&
    a.not === b.not &&
    a.run === b.run &&
    a.is.length === b.is.length &&
    a.is.every((key, i) => key === b.is[i])
  );
}

/** Orders by tag text, then by run. */
export function compareConditions(a: Condition, b: Condition): number {
  const left = openingTag(a);
  const right = openingTag(b);
  return left < right ? -1 : left > right ? 1 : a.run - b.run;
}
