/** A folder of texts in the file format, found by name wherever they lie below it. */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { basename, dirname, join, relative, resolve, sep } from 'node:path';
import {
  error,
  placeInWords,
  visit,
  PLAIN_HOUSE,
  type Finding,
  type House,
  type Library,
  type TextDocument,
} from '@vocabula/core';
import { readHouse } from '@vocabula/core/house';
import { typeOfFile, type Asset } from '@vocabula/mail';
import { readText, type ReadText } from '@vocabula/core/markdown';
import { UsageError } from './arguments.js';

export interface LoadedText extends ReadText {
  readonly file: string;
  readonly name: string;
}

/** A finding as the command line prints it. */
export interface Printed {
  readonly file: string;
  readonly code: string;
  readonly level: string;
  readonly message: string;
  readonly where: string;
}

const SKIPPED = new Set(['node_modules', '.git', 'assets']);

/** The .md files at or below a path, in order. */
export function templateFiles(path: string): string[] {
  if (!existsSync(path)) throw new UsageError(`there is no ${path}`);
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((entry) => !SKIPPED.has(entry.name) && !entry.isSymbolicLink())
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) =>
      entry.isDirectory()
        ? templateFiles(join(path, entry.name))
        : entry.name.endsWith('.md')
          ? [join(path, entry.name)]
          : [],
    );
}

export const nameOf = (file: string): string => basename(file).replace(/\.md$/, '');

/** Reads texts by name, each once. */
export class FolderLibrary implements Library {
  private readonly files = new Map<string, string>();
  private readonly loaded = new Map<string, LoadedText>();
  readonly findings: { file: string; finding: Finding }[] = [];
  /** What `house.yaml` at the root says; the plain house without it. */
  readonly house: House;

  constructor(private readonly root: string) {
    this.house = this.readHouse();
    for (const file of existsSync(root) ? templateFiles(root) : []) {
      const name = nameOf(file);
      const other = this.files.get(name);
      if (other !== undefined)
        this.findings.push({
          file,
          finding: error({ code: 'bad-file', why: 'same-name', file: relative(root, other) }, { line: 1 }),
        });
      else this.files.set(name, file);
    }
  }

  private readHouse(): House {
    const file = join(this.root, 'house.yaml');
    if (!existsSync(file)) return PLAIN_HOUSE;
    const { house, findings } = readHouse(readFileSync(file, 'utf8'));
    for (const finding of findings) this.findings.push({ file, finding });
    return house;
  }

  /** The bytes of a file below `assets/`; nothing outside it can be named. */
  readonly asset = (path: string): Asset | undefined => {
    const assets = resolve(this.root, 'assets');
    const file = resolve(this.root, path);
    if (!file.startsWith(assets + sep) || !existsSync(file) || !statSync(file).isFile()) return undefined;
    return { content: readFileSync(file), type: typeOfFile(file) };
  };

  /** An error for each file below `assets/` that a text names and the library lacks. */
  missingAssets({ document }: LoadedText): Finding[] {
    const findings: Finding[] = [];
    visit(document, (node, path) => {
      const file =
        node.type === 'attachment'
          ? node.attrs.file
          : node.type === 'image' && !/^https?:/i.test(node.attrs.src)
            ? node.attrs.src
            : undefined;
      if (file !== undefined && !this.asset(file))
        findings.push(error({ code: 'bad-file', why: 'no-asset', file }, { path }));
    });
    return findings;
  }

  /** The folder that is searched when none is named. */
  static rootFor(path: string, named: string | undefined): string {
    if (named !== undefined && !(existsSync(named) && statSync(named).isDirectory()))
      throw new UsageError(`there is no folder ${named}`);
    return named ?? (existsSync(path) && statSync(path).isDirectory() ? path : dirname(resolve(path)));
  }

  /** Reads a file, whether it lies in the library or not; it is then what its name means. */
  load(file: string): LoadedText {
    const name = nameOf(file);
    const known = this.loaded.get(name);
    if (known && resolve(known.file) === resolve(file)) return known;
    let source: string;
    try {
      source = readFileSync(file, 'utf8');
    } catch {
      throw new UsageError(`cannot read ${file}`);
    }
    const text = { ...readText(source), file, name };
    if (!known) this.loaded.set(name, text);
    return text;
  }

  text(name: string): LoadedText | undefined {
    const file = this.files.get(name);
    return this.loaded.get(name) ?? (file === undefined ? undefined : this.load(file));
  }

  get(name: string): TextDocument | undefined {
    return this.text(name)?.document;
  }

  /** A finding with its file and, where it can be told, its line. */
  print(finding: Finding, file: string): Printed {
    const { place } = finding;
    const text =
      place.text === undefined ? [...this.loaded.values()].find((each) => each.file === file) : this.text(place.text);
    const line =
      place.line ??
      (place.variable !== undefined ? text?.map.lineOfVariable(place.variable, place.attribute) : undefined) ??
      (place.path ? text?.map.lineOf(place.path) : undefined);
    return {
      file: text?.file ?? file,
      code: finding.code,
      level: finding.level,
      message: finding.message,
      where: placeInWords({ ...place, text: undefined, ...(line === undefined ? {} : { line }) }),
    };
  }
}

/** A finding in one line. */
export const printedLine = (finding: Printed): string =>
  `${finding.file}${finding.where ? `: ${finding.where}` : ''}: ${finding.level} ${finding.code}: ${finding.message}`;
