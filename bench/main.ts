/**
 * `npm run bench [-- NAME… --keep]`: runs the measured comparisons, all of them or those named, and prints their figures
 * beside those that were kept last.
 */
import { printFigures } from './figures.js';

// Compiled with the page's types, which nothing here is to know of.
const BROWSER = './browser' as string;
const BENCHES: Readonly<Record<string, () => Promise<{ bench(): void | Promise<void> }>>> = {
  render: () => import('./render.js'),
  live: () => import(`${BROWSER}/live.js`),
  cover: () => import('./cover.js'),
  derive: () => import('./derive.js'),
  batch: () => import('./batch.js'),
  search: () => import('./search.js'),
  crash: () => import('./crash.js'),
  sending: () => import('./sending.js'),
  fill: () => import(`${BROWSER}/fill.js`),
  opening: () => import(`${BROWSER}/opening.js`),
  load: () => import('./load.js'),
  start: () => import('./start.js'),
  holds: () => import('./holds.js'),
  autosave: () => import('./autosave.js'),
  queries: () => import('./queries.js'),
  hostile: () => import('./hostile/main.js'),
  faults: () => import('./faults.js'),
  'batch-in-browser': () => import(`${BROWSER}/batch.js`),
};

const wanted = process.argv.slice(2).filter((name) => name !== '--keep');
const unknown = wanted.find((name) => !(name in BENCHES));
if (unknown !== undefined) {
  console.error(`There is no comparison “${unknown}”; there are: ${Object.keys(BENCHES).join(', ')}`);
  process.exit(2);
}
for (const name of wanted.length > 0 ? wanted : Object.keys(BENCHES)) {
  console.log(`\n## ${name}`);
  await (await BENCHES[name]?.())?.bench();
}
printFigures(process.argv.includes('--keep'));
