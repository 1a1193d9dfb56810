/**
 * Whether two values that could be written as JSON are the same: keys of an object have no order, and one that is
 * undefined is not there.
 */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b))
    return (
      Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((each, at) => sameValue(each, b[at]))
    );
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = (of: Record<string, unknown>): string[] => Object.keys(of).filter((key) => of[key] !== undefined);
  const own = keys(left);
  return own.length === keys(right).length && own.every((key) => sameValue(left[key], right[key]));
}
