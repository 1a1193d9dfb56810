/**
 * Writing that could not be sent, kept in this browser until it can: with the text it was made from, so that what
 * somebody else wrote in the meantime can be told from it.
 */
import type { TextDocument } from '@vocabula/core';

export interface Unsent {
  readonly document: TextDocument;
  /** What the server had when the writing began, and its revision. */
  readonly base: TextDocument;
  readonly revision: number;
}

const keyFor = (name: string): string => `vocabula.unsent.${name}`;

/** Keeps it. @returns false where the browser has no room or allows none */
export function keepUnsent(name: string, unsent: Unsent): boolean {
  try {
    localStorage.setItem(keyFor(name), JSON.stringify(unsent));
    return true;
  } catch {
    return false;
  }
}

/** What is kept for a text; nothing where it cannot be read. */
export function unsentOf(name: string): Unsent | undefined {
  try {
    const found = JSON.parse(localStorage.getItem(keyFor(name)) ?? 'null') as Unsent | null;
    return found?.document.type === 'template' && found.base.type === 'template' ? found : undefined;
  } catch {
    return undefined;
  }
}

export function dropUnsent(name: string): void {
  try {
    localStorage.removeItem(keyFor(name));
  } catch {
    // A browser that allows no storage kept nothing either.
  }
}
