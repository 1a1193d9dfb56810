/** The preset is complete: a token that a component's styles ask for and nobody defines falls back to the browser's. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { libraryStyles, usedParts } from '../../../library-styles';
import { preset } from './index';

const SOURCES = join(import.meta.dirname, '../..');
/** Components whose styles stand with those of others. */
const WITHOUT_STYLES = new Set([
  ...['config', 'column', 'menuitem', 'ripple', 'splitterpanel'],
  ...['tab', 'tablist', 'tabpanel', 'tabpanels'],
]);

/** The library's components that pages import. */
function usedComponents(): string[] {
  const files = readdirSync(SOURCES, { recursive: true, encoding: 'utf8' }).filter((file) => /\.(vue|ts)$/.test(file));
  const names = files.flatMap((file) =>
    [...readFileSync(join(SOURCES, file), 'utf8').matchAll(/'primevue\/(\w+)'/g)].map(([, name]) => name as string),
  );
  return [...new Set(names)].filter((name) => !WITHOUT_STYLES.has(name)).sort();
}

/** Levels of a preset that are no part of a token's name (PrimeVue, Theming: design tokens). */
const UNNAMED = new Set(['primitive', 'semantic', 'components', 'directives', 'root', 'colorscheme', 'light', 'dark']);
const inWords = (name: string): string =>
  name
    .replace(/([a-z0-9])([A-Z])/g, '$1.$2')
    .replace(/-/g, '.')
    .toLowerCase();

/** All tokens of a preset by their names. */
function tokensOf(values: object, before: readonly string[] = []): Map<string, string> {
  const found = new Map<string, string>();
  for (const [key, value] of Object.entries(values) as [string, unknown][]) {
    const path = UNNAMED.has(key.toLowerCase()) ? before : [...before, inWords(key)];
    if (typeof value === 'object' && value !== null)
      for (const [name, each] of tokensOf(value, path)) found.set(name, each);
    else found.set(path.join('.'), String(value));
  }
  return found;
}
const tokens = tokensOf(preset);

/** Whether a token is defined, and everything that it refers to. */
function isDefined(token: string, seen: ReadonlySet<string> = new Set()): boolean {
  const value = tokens.get(token);
  if (value === undefined || seen.has(token)) return false;
  return [...value.matchAll(/\{([^}]+)\}/g)].every(([, name = '']) =>
    isDefined(inWords(name), new Set([...seen, token])),
  );
}

async function askedFor(component: string): Promise<string[]> {
  const { style } = (await import(`@primeuix/styles/${component}`)) as { style: string };
  return [...new Set([...style.matchAll(/dt\(\s*['"]([^'"]+)['"]/g)].map(([, name]) => name as string))];
}

/** Parts that only hold others together: their style asks for nothing. */
const WITHOUT_STYLE = ['checkboxgroup'];

describe('the preset', () => {
  const styled = usedComponents().filter((component) => !WITHOUT_STYLE.includes(component));
  it.each(styled)('defines every token that %s asks for', async (component) => {
    const asked = await askedFor(component);
    expect(asked.length).toBeGreaterThan(component === 'virtualscroller' ? 0 : 1);
    expect(asked.filter((token) => !isDefined(token))).toEqual([]);
  });
  it.each(WITHOUT_STYLE)('has nothing to define for %s', async (component) => {
    expect(await askedFor(component)).toEqual([]);
  });
  it('is of components that pages use, and of no others', () => {
    // Selects bring the virtual scroller along.
    expect(Object.keys(preset.components).sort()).toEqual([...styled, 'virtualscroller'].sort());
  });
});

describe('the style sheet that is written at build', () => {
  it('has the rules of every part that pages use, and defines every value that they name', async () => {
    const sheet = await libraryStyles();
    const parts = usedComponents().filter((component) => ![...WITHOUT_STYLE, 'virtualscroller'].includes(component));
    expect(parts.filter((name) => !sheet.includes(`.p-${name}`))).toEqual([]);
    const defined = new Set([...sheet.matchAll(/(--p-[\w-]+)\s*:/g)].map(([, name]) => name));
    const named = new Set([...sheet.matchAll(/var\((--p-[\w-]+)/g)].map(([, name]) => name));
    // Widths that the library measures in the browser.
    expect(
      [...named].filter((name) => !defined.has(name) && !/scrollbar|columns|anchor-gutter/.test(name ?? '')),
    ).toEqual([]);
  });
  it('says the order of the layers first, so that the look wins over the library', async () => {
    expect(await libraryStyles()).toMatch(/^@layer base, components, look;/);
  });
  it('knows the parts that others consist of', () => {
    expect(usedParts()).toEqual(expect.arrayContaining(['select', 'virtualscroller', 'iconfield']));
  });
});
