/**
 * The styles of the component library, written when the application is built. By itself the library makes the style of
 * each component in the browser when it is first mounted: 60–90 ms of every first opening, and all tokens as code.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { Theme } from '@primeuix/styled';
import type { Plugin } from 'vite';
import { preset } from './src/ui/theme/index.js';

/** What pages import; the plugin gives its content. */
export const LIBRARY_STYLES = 'virtual:library-styles.css';
const LIBRARY = dirname(dirname(createRequire(import.meta.url).resolve('primevue/config')));
const SOURCES = join(import.meta.dirname, 'src');
const PARTS_USED = /['"]primevue\/(\w+)['"]/g;

const partsIn = (source: string): string[] => [...source.matchAll(PARTS_USED)].map(([, name]) => name as string);

/** The library's components that pages use, with those that they consist of. */
export function usedParts(): string[] {
  const seen = new Set<string>();
  const add = (name: string): void => {
    const file = join(LIBRARY, name, 'index.mjs');
    if (seen.has(name) || !existsSync(file)) return;
    seen.add(name);
    partsIn(readFileSync(file, 'utf8')).forEach(add);
  };
  const sources = readdirSync(SOURCES, { recursive: true, encoding: 'utf8' }).filter((file) =>
    /(?<!\.test)\.(vue|ts)$/.test(file),
  );
  for (const file of sources) partsIn(readFileSync(join(SOURCES, file), 'utf8')).forEach(add);
  return [...seen].sort();
}

/** What a component's module of styles can do (PrimeVue, BaseStyle). */
interface PartStyle {
  readonly name: string;
  getCommonThemeStyleSheet(): string;
  getThemeStyleSheet(): string;
  getLayerOrderThemeCSS(): string;
}
/** The rules in some `<style>` elements. */
const rulesIn = (elements: string): string =>
  [...elements.matchAll(/<style[^>]*>([\s\S]*?)<\/style>/g)].map(([, rules]) => rules).join('\n');

/** The style sheet of all parts that pages use, in the layers `base`, `components` and `look`. */
export async function libraryStyles(): Promise<string> {
  Theme.setTheme({
    preset,
    options: { darkModeSelector: 'none', cssLayer: { name: 'components', order: 'base, components, look' } },
  });
  const load = async (path: string): Promise<PartStyle> => ((await import(path)) as { default: PartStyle }).default;
  const base = await load('@primevue/core/base/style');
  const sheets = [
    `${base.getLayerOrderThemeCSS()};`,
    rulesIn(base.getCommonThemeStyleSheet()),
    rulesIn(base.getThemeStyleSheet()),
  ];
  // What the look says nothing of is a part of a part that is not shown, such as the pages of a table.
  for (const name of usedParts().filter((part) => part in preset.components))
    if (existsSync(join(LIBRARY, name, 'style', 'index.mjs')))
      sheets.push(rulesIn((await load(`primevue/${name}/style`)).getThemeStyleSheet()));
  return sheets.filter(Boolean).join('\n');
}

/** Gives `virtual:library-styles.css`. */
export function libraryStylesPlugin(): Plugin {
  return {
    name: 'library-styles',
    resolveId: (id) => (id === LIBRARY_STYLES ? `\0${LIBRARY_STYLES}` : undefined),
    load: (id) => (id === `\0${LIBRARY_STYLES}` ? libraryStyles() : undefined),
  };
}
