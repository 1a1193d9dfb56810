/** Texts that came in beside others of their names: what they include and show is called anew. */
import type { Front, TextDocument } from '@vocabula/core';

/** Attributes that name another text. */
const NAMING: ReadonlySet<string> = new Set(['signature', 'translation_of']);

/**
 * A text with the new names of what it includes, of its steps' templates and of the files it shows.
 * @param apart whether it stands beside one of its own name: then it gives up the call word, which recalls one template
 */
export function renamed(
  document: TextDocument,
  names: ReadonlyMap<string, string>,
  files: ReadonlyMap<string, string>,
  apart: boolean,
): TextDocument {
  const INCLUSIONS = new Set(['inclusion', 'inlineInclusion']);
  const walk = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(walk);
    if (typeof value !== 'object' || value === null)
      return typeof value === 'string' ? (files.get(value) ?? value) : value;
    const { type, attrs } = value as { type?: string; attrs?: { name?: string } };
    const changed = Object.fromEntries(Object.entries(value).map(([key, each]) => [key, walk(each)]));
    const name = type !== undefined && INCLUSIONS.has(type) && attrs?.name ? names.get(attrs.name) : undefined;
    return name === undefined ? changed : { ...changed, attrs: { ...(changed.attrs as object), name } };
  };
  const made = walk(document) as TextDocument;
  const front = Object.fromEntries(
    Object.entries(made.attrs.front).flatMap(([key, value]) =>
      key === 'call' && apart ? [] : [[key, NAMING.has(key) ? (names.get(String(value)) ?? value) : value]],
    ),
  );
  const steps = made.attrs.steps?.map((step) => ({ ...step, text: names.get(step.text) ?? step.text }));
  return { ...made, attrs: { ...made.attrs, front: front as unknown as Front, ...(steps ? { steps } : {}) } };
}
