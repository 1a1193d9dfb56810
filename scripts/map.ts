/**
 * `npm run map`: the picture of the house in `docs/map.svg`, made from the imports. Packages stand in layers, what is
 * imported below what imports it; each shows its folders with their number of lines, tests left out. A line says how many
 * imports go from one package to another.
 */
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

const LAYERS = [['web', 'server', 'cli'], ['contract', 'mail'], ['core']];
const [WIDTH, COLUMN, ROW, PAD, GAP] = [1160, 150, 18, 14, 64];

interface Folder {
  readonly name: string;
  readonly lines: number;
}
const isSource = (file: string): boolean => /\.(?:ts|vue)$/.test(file) && !file.endsWith('.test.ts');
const filesBelow = (path: string): string[] =>
  readdirSync(path, { recursive: true, encoding: 'utf8' })
    .filter(isSource)
    .map((file) => join(path, file));
const linesOf = (files: readonly string[]): number =>
  files.reduce((sum, file) => sum + readFileSync(file, 'utf8').split('\n').length, 0);

function foldersOf(name: string): Folder[] {
  const source = join(name, 'src');
  const entries = readdirSync(source).filter((entry) => statSync(join(source, entry)).isDirectory());
  return entries
    .map((entry) => ({ name: entry, lines: linesOf(filesBelow(join(source, entry))) }))
    .filter(({ lines }) => lines > 0)
    .sort((a, b) => a.name.localeCompare(b.name, 'en'));
}
/** How many imports go from a package to each other one. */
function importsOf(name: string): Map<string, number> {
  const found = new Map<string, number>();
  for (const file of filesBelow(join(name, 'src'))) {
    const text = readFileSync(file, 'utf8');
    const script = file.endsWith('.vue') ? (/<script[^>]*>(.*?)<\/script>/s.exec(text)?.[1] ?? '') : text;
    for (const { fileName } of ts.preProcessFile(script).importedFiles) {
      const [, to] = /^@vocabula\/(\w+)/.exec(fileName) ?? [];
      if (to !== undefined && to !== name) found.set(to, (found.get(to) ?? 0) + 1);
    }
  }
  return found;
}

interface Box {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly folders: readonly Folder[];
  readonly lines: number;
}
/** How many columns of folders a box of a width has room for. */
const columnsIn = (width: number): number => Math.max(1, Math.floor((width - 2 * PAD) / COLUMN));

const boxes = new Map<string, Box>();
let top = 24;
for (const layer of LAYERS) {
  const packages = layer.map((name) => ({
    name,
    folders: foldersOf(name),
    lines: linesOf(filesBelow(join(name, 'src'))),
  }));
  const total = packages.reduce((sum, { folders }) => sum + Math.max(1, Math.ceil(folders.length / 9)), 0);
  const free = WIDTH - 48 - (packages.length - 1) * 24;
  let x = 24;
  let tallest = 0;
  for (const { name, folders, lines } of packages) {
    const columns = Math.max(1, Math.ceil(folders.length / 9));
    const width = Math.max(COLUMN + 2 * PAD, (free * columns) / total);
    const height = 44 + Math.ceil(folders.length / columnsIn(width)) * ROW + PAD;
    boxes.set(name, { name, x, y: top, width, height, folders, lines });
    x += width + 24;
    tallest = Math.max(tallest, height);
  }
  top += tallest + GAP;
}

const number = (value: number): string => value.toLocaleString('en').replace(/,/g, ' ');
const drawBox = ({ name, x, y, width, height, folders, lines }: Box): string => {
  const columns = columnsIn(width);
  const rows = Math.ceil(folders.length / columns);
  const step = (width - 2 * PAD) / columns;
  const listed = folders.map((folder, at) => {
    const [left, line] = [x + PAD + Math.floor(at / rows) * step, y + 50 + (at % rows) * ROW];
    return `<text x="${left}" y="${line}">${folder.name}<tspan class="quiet" dx="6">${number(folder.lines)}</tspan></text>`;
  });
  return `<rect x="${x}" y="${y}" width="${width}" height="${height}" rx="3"/><text class="name" x="${x + PAD}" y="${y + 24}">${name}<tspan class="quiet" dx="8">${number(lines)} lines</tspan></text>${listed.join('')}`;
};
const drawImports = (from: Box): string =>
  [...importsOf(from.name)]
    .flatMap(([name, count]) => {
      const to = boxes.get(name);
      if (!to) return [];
      // Apart from each other where they end.
      const nth = [...boxes.keys()].indexOf(from.name);
      const [x1, y1] = [from.x + from.width / 2 + (name === 'core' ? 30 : -30), from.y + from.height];
      const [x2, y2] = [to.x + (to.width * (nth + 1)) / (boxes.size + 1), to.y];
      const middle = to.y - GAP / 2;
      return [
        `<path d="M${x1} ${y1}C${x1} ${middle} ${x2} ${middle} ${x2} ${y2}" marker-end="url(#to)"/><text class="count" x="${x2 + 6}" y="${y2 - 14 - (nth % 2) * 13}">${count} from ${from.name}</text>`,
      ];
    })
    .join('');
const all = [...boxes.values()];
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${top - GAP + 24}" font-family="system-ui, sans-serif" font-size="13" role="img" aria-label="Packages, their folders and their imports"><style>svg{background:#F4F1EA}rect{fill:#FFFDF8;stroke:#D9D3C7}text{fill:#20262E}.name{font-size:16px;font-weight:600}.quiet,.count{fill:#6B6F76;font-size:11px;font-weight:400}path{fill:none;stroke:#1E6E66;stroke-width:1.2}</style><defs><marker id="to" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0L8 4L0 8z" style="fill:#1E6E66;stroke:none"/></marker></defs>${all.map(drawImports).join('')}${all.map(drawBox).join('')}</svg>
`;
writeFileSync(join('docs', 'map.svg'), svg);
