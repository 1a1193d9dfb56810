/** So many mails must have something, out of those that could, for it to become part of the template. */
export const leastSupport = (mails: number): number => (mails <= 3 ? 1 : Math.max(2, Math.ceil(mails * 0.04)));
