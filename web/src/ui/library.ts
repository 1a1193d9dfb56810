/** Texts that the browser has, for its own previews. What is handed over is always rendered by the server. */
import type { Library, TextDocument } from '@vocabula/core';
import { shallowReactive } from 'vue';
import { api } from '../api/client';

const texts = shallowReactive(new Map<string, TextDocument>());
const asked = new Map<string, Promise<void>>();

/** Fetches a text with all that it includes; says nothing about texts that do not exist. */
export function ensureText(name: string, again = false): Promise<void> {
  if (again || !asked.has(name)) {
    asked.set(
      name,
      api.closure(name).then(
        ({ texts: all }) => all.forEach((text) => texts.set(text.name, text.document)),
        () => void asked.delete(name),
      ),
    );
  }
  return asked.get(name) ?? Promise.resolve();
}

export const knownText = (name: string): TextDocument | undefined => texts.get(name);

/** Reads what has been fetched; reactive, so that a preview follows when a block arrives. */
export const browserLibrary: Library = { get: (name) => texts.get(name) };

/** Says which texts have changed here, so that previews that include them follow. */
export function putText(name: string, document: TextDocument): void {
  texts.set(name, document);
}
