/** Part of `npm run lint`: no file imports itself, by whatever way, types included. Prints each circle; ends with 1 if there is one. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import ts from 'typescript';

const PACKAGES = ['core', 'mail', 'contract', 'server', 'cli', 'web'];

/** The files of the packages, tests left out: nothing imports those. */
const files = PACKAGES.flatMap((name) =>
  readdirSync(join(name, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(?:ts|vue)$/.test(file) && !file.endsWith('.test.ts'))
    .map((file) => resolve(name, 'src', file)),
);
const known = new Set(files);

/** The script of a component, or the whole of a module. */
const scriptOf = (file: string): string => {
  const source = readFileSync(file, 'utf8');
  return file.endsWith('.vue') ? (/<script[^>]*>(.*?)<\/script>/s.exec(source)?.[1] ?? '') : source;
};
/** What a path in an import means; undefined for packages. */
function target(from: string, path: string): string | undefined {
  if (!path.startsWith('.')) return undefined;
  const base = resolve(dirname(from), path);
  return [base, base.replace(/\.js$/, '.ts'), `${base}.ts`, join(base, 'index.ts')].find(
    (each) => known.has(each) && existsSync(each),
  );
}
/** What a file imports before it runs; what is loaded later, by `import()`, is no part of it. */
function importsOf(file: string): string[] {
  const script = scriptOf(file);
  return ts
    .preProcessFile(script)
    .importedFiles.filter(({ pos }) => !/import\(\s*$/.test(script.slice(0, pos)))
    .flatMap(({ fileName }) => target(file, fileName) ?? []);
}
const imports = new Map(files.map((file) => [file, importsOf(file)]));

/** Strongly connected parts of more than one file (Tarjan, 1972). */
function circles(): string[][] {
  const found: string[][] = [];
  const order = new Map<string, number>();
  const lowest = new Map<string, number>();
  const stack: string[] = [];
  const visit = (file: string): void => {
    order.set(file, order.size);
    lowest.set(file, order.get(file) as number);
    stack.push(file);
    for (const next of imports.get(file) ?? []) {
      if (!order.has(next)) visit(next);
      if (stack.includes(next)) lowest.set(file, Math.min(lowest.get(file) as number, lowest.get(next) as number));
    }
    if (lowest.get(file) !== order.get(file)) return;
    const part = stack.splice(stack.indexOf(file));
    if (part.length > 1 || imports.get(file)?.includes(file)) found.push(part);
  };
  for (const file of files) if (!order.has(file)) visit(file);
  return found;
}

const all = circles();
for (const part of all) console.error(`These import each other: ${part.map((file) => relative('.', file)).join(', ')}`);
process.exit(all.length > 0 ? 1 : 0);
