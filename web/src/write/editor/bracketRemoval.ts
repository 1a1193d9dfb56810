/** Marks a transaction that may take brackets out, which deleting alone never does. */
export const TAKES_BRACKETS = 'takesBrackets';
