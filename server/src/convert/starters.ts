/** Texts to start from, one for each of the occasions that every organisation writes about. */
import { join } from 'node:path';
import { readdirSync, readFileSync } from 'node:fs';
import type { Starter } from '@vocabula/contract';
import { readText } from '@vocabula/core/markdown';
import { PLACES } from '../places.js';

const FOLDER = PLACES.starters;
let read: readonly Starter[] | undefined;

/** All starters, by title; read once. */
export function starters(): readonly Starter[] {
  read ??= readdirSync(FOLDER)
    .filter((file) => file.endsWith('.md'))
    .map((file): Starter => {
      const { document } = readText(readFileSync(join(FOLDER, file), 'utf8'));
      const { title, description = '' } = document.attrs.front;
      return { name: file.replace(/\.md$/, ''), title, description, document };
    })
    .sort((a, b) => a.title.localeCompare(b.title, 'en'));
  return read;
}
