/** How much work one message may be. Steps are counted rather than time, so that a message is the same everywhere. */

/** Steps of one message: far beyond any that somebody reads, and a fraction of a second. */
export const MOST_STEPS = 400_000;

/** The steps that one rendering may take, so that no text can hold up a page or a server. */
export class Budget {
  private left: number;

  constructor(steps = MOST_STEPS) {
    this.left = steps;
  }

  /** Takes steps. @returns false where they are more than are left: then the work is not to be done */
  spend(steps: number): boolean {
    this.left -= steps;
    return this.left >= 0;
  }

  /** Whether something was not done because it was too much. */
  get isExceeded(): boolean {
    return this.left < 0;
  }
}
