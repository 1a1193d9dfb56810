/** What a text needs of others: blocks, facts, files. */
import { namesNeeded } from '../compile/inclusions.js';
import type { TextDocument } from '../template/document.js';

/** What a text needs from outside it. */
export interface Needed {
  /** Names of texts it includes, its signature among them, and of the templates of its steps. */
  readonly texts: readonly string[];
  /** Keys that stand behind `house.`; also some that only words spell so, for who asks to compare with the facts. */
  readonly facts: readonly string[];
  /** Paths below `assets/`. */
  readonly assets: readonly string[];
}

/** Told from the document alone, wherever in it they stand: body, envelope, link targets, wordings, expressions. */
export function neededBy(document: TextDocument): Needed {
  const written = JSON.stringify(document);
  const found = (pattern: RegExp): string[] => [
    ...new Set([...written.matchAll(pattern)].map(([, name = '']) => name)),
  ];
  return {
    texts: namesNeeded(document),
    facts: found(/\bhouse\.([a-z][a-z0-9_]*)/g),
    assets: found(/(?<![\w/])(assets\/[a-z0-9][a-z0-9._-]*)/g),
  };
}
