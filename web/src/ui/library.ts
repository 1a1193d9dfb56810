/** Texts that the browser has, for its own previews. What is handed over is always rendered by the server. */
import type { TextDocument } from '@vocabula/core';
import { ref } from 'vue';
import { api } from '../api/client';

const texts = new Map<string, TextDocument>();
const asked = new Map<string, Promise<void>>();
/** Counts changes, for those who follow what is known here. */
export const libraryVersion = ref(0);

/** Fetches a text with all that it includes; says nothing about texts that do not exist. */
export function ensureText(name: string, again = false): Promise<void> {
  if (again || !asked.has(name)) {
    asked.set(
      name,
      api.closure(name).then(
        ({ texts: all }) => {
          for (const text of all) texts.set(text.name, text.document);
          libraryVersion.value += 1;
        },
        () => void asked.delete(name),
      ),
    );
  }
  return asked.get(name) ?? Promise.resolve();
}

export const knownText = (name: string): TextDocument | undefined => texts.get(name);

/** All texts that have been fetched, by name. */
export const knownTexts = (): [name: string, document: TextDocument][] => [...texts];

/**
 * Says that a text has changed here, so that previews that include it follow.
 * @param alone true where nothing shown can include it, as while it is being written: then nobody need follow
 */
export function putText(name: string, document: TextDocument, alone = false): void {
  texts.set(name, document);
  if (!alone) libraryVersion.value += 1;
}
