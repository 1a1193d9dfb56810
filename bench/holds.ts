/** The longest that large but usual work holds up everybody else: lists, imports, near-duplicates, packing. */
import { figure } from './figures.js';
import type { Case, Target } from './hostile/cases.js';
import { libraryOf, workbook } from './hostile/payloads.js';
import { longestPauses } from './pauses.js';

const ROWS = 10_000;
const TEXTS = 2000;
/** Milliseconds. */
const MOST = 50;

const csv = Buffer.from(
  `Email,First name,Last name,Note\n${Array.from({ length: ROWS }, (_, at) => `p${at}@quillmere.example,Ann,Lee ${at},some words of a note here`).join('\n')}\n`,
);
const sheetRow = (at: number, cells: readonly string[]): string =>
  `<row r="${at}">${cells.map((words, column) => `<c r="${'ABC'[column]}${at}" t="inlineStr"><is><t>${words}</t></is></c>`).join('')}</row>`;
const xlsx = workbook(
  sheetRow(1, ['Email', 'First name', 'Note']) +
    Array.from({ length: ROWS }, (_, at) => sheetRow(at + 2, [`p${at}@quillmere.example`, 'Ann', 'some words'])).join(
      '',
    ),
);
const library = libraryOf(TEXTS);

const brought = (name: string, path: string, bytes: Uint8Array): Case => ({
  name,
  bytes: bytes.length,
  act: (target) => target.send('POST', path, bytes),
});
const got = (name: string, path: string | ((target: Target) => Promise<string>)): Case => ({
  name,
  bytes: 0,
  prepare: async (target) => (typeof path === 'string' ? path : await path(target)),
  act: (target, prepared) => target.send('GET', prepared as string),
});
/** The first recipient list that there is. */
const firstList = async (target: Target): Promise<string> => {
  const { body } = await target.send('GET', '/api/tables?use=recipients');
  const lists = body as { id: string; rows: number }[];
  return lists.reduce((most, each) => (each.rows > most.rows ? each : most)).id;
};

const CASES: readonly Case[] = [
  brought(`import a list of ${ROWS} as CSV`, '/api/tables?use=recipients&title=By%20CSV', csv),
  brought(`import a list of ${ROWS} as a workbook`, '/api/tables?use=recipients&title=By%20workbook', xlsx),
  got('open that list', async (target) => `/api/tables/${await firstList(target)}`),
  got('save that list as CSV', async (target) => `/api/tables/${await firstList(target)}/csv`),
  got('search recipients', '/api/recipients?q=lee'),
  {
    name: `take a library of ${TEXTS} texts`,
    bytes: library.length,
    act: (target) => {
      const form = new FormData();
      form.set('file', new Blob([library as Uint8Array<ArrayBuffer>]), 'library.zip');
      form.set('choices', JSON.stringify({ choices: {}, into: 'root' }));
      return target.send('POST', '/api/library/take', form);
    },
  },
  got(`list ${TEXTS} texts`, '/api/texts'),
  got(`near-duplicates of ${TEXTS} texts`, '/api/texts/alike'),
  { name: `pack ${TEXTS} texts`, bytes: 0, act: (target) => target.send('POST', '/api/library/zip', {}) },
  got('the inbox', '/api/mailroom/inbox'),
  got('unfinished messages', '/api/fills'),
];

export async function bench(): Promise<void> {
  const longest = Math.max(...(await longestPauses(CASES, () => MOST)));
  figure('longest hold of everybody else, of 50 ms', longest, 1);
}
