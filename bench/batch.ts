/**
 * Ten thousand recipients through one template of 20 variables, 10 passages and 5 choices: what the proofing table
 * makes of each (all outputs, findings, passages, values, a digest) against the same renders in a bare loop, and
 * against renders without a trace; and how much memory the sheets hold on to.
 */
import { figure } from './figures.js';
import { compile, render, type Program } from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';
import { fillingOfRow, ProofTable, type Sheet } from '@vocabula/core/proof';
import { printRatios } from './timing.js';

const RECIPIENTS = 10_000;
const ROUNDS = 3;

/** The template, as a file. */
export function batchTemplate(title = 'Batch'): string {
  const texts = Array.from({ length: 15 }, (_, at) => `  text${at}: { type: text, from: recipient.text${at} }`);
  const choices = Array.from(
    { length: 5 },
    (_, at) =>
      `  pick${at}: { type: choice, required: true, options: { a: { wording: "the first way" }, b: { wording: "the other way, by {{text${at}}}" } } }`,
  );
  const switches = Array.from({ length: 10 }, (_, at) => `  with${at}: { type: yes-no }`);
  const paragraphs = Array.from(
    { length: 10 },
    (_, at) =>
      `{{#with${at}}}\nThe garden keeps {{text${at}}} for you, as we said when you wrote, and goes {{pick${at % 5}}}.\n{{/with${at}}}`,
  );
  return `---\nvocabula: 1\nkind: message\ntitle: ${title}\nlocale: en-IE\nsubject: "About {{text0}}"\nto: "{{recipient.email}}"\nvariables:\n${[...texts, ...choices, ...switches].join('\n')}\n---\nDear {{text0}},\n\n${paragraphs.join('\n\n')}\n\nWith {{text10}}, {{text11}}, {{text12}}, {{text13}} and {{text14}}.\n`;
}

/** Made-up rows for it. */
export const batchRows = (count: number): Record<string, string>[] =>
  Array.from({ length: count }, (_, at) => ({
    email: `guest${at}@quillmere.example`,
    ...Object.fromEntries(
      Array.from({ length: 15 }, (_cell, text) => [
        `text${text}`,
        (text + at) % 11 === 0 ? '' : `words ${text} of ${at % 97}`,
      ]),
    ),
    ...Object.fromEntries(
      Array.from({ length: 5 }, (_cell, pick) => [`pick${pick}`, (at >> pick) % 2 === 0 ? 'a' : 'b']),
    ),
    ...Object.fromEntries(
      Array.from({ length: 10 }, (_cell, part) => [`with${part}`, (at * 7 + part) % 3 === 0 ? 'true' : 'false']),
    ),
  }));

/** Runs the comparison and prints its table. */
export function bench(): void {
  const document = readText(batchTemplate()).document;
  const program: Program = compile({ name: 'batch', document }, { library: { get: () => undefined } });
  const today = '2026-11-25';
  const fillings = batchRows(RECIPIENTS).map((row) => fillingOfRow(program, row));
  const times: Record<'bare' | 'traced' | 'table', number[]> = { bare: [], traced: [], table: [] };
  let length = 0;
  let held = 0;
  for (let round = -1; round < ROUNDS; round += 1) {
    const timed = (name: keyof typeof times, work: () => void): void => {
      const begun = performance.now();
      work();
      if (round >= 0) times[name].push(performance.now() - begun);
    };
    timed('bare', () => {
      for (const filling of fillings) length += render(program, { ...filling, today }).html.length;
    });
    timed('traced', () => {
      for (const filling of fillings) length += render(program, { ...filling, today }, { trace: true }).html.length;
    });
    globalThis.gc?.();
    const before = process.memoryUsage().heapUsed;
    const table = new ProofTable({ name: 'batch', document }, program, { today });
    const sheets: Sheet[] = [];
    timed('table', () => {
      for (const filling of fillings) sheets.push(table.sheet(filling));
    });
    globalThis.gc?.();
    held = (process.memoryUsage().heapUsed - before) / sheets.length;
  }
  if (length === 0) throw new Error('Nothing was made.');
  const result = (name: string, all: number[]) => ({
    name,
    median: [...all].sort((a, b) => a - b)[all.length >> 1] ?? NaN,
    fastest: Math.min(...all),
  });
  const bare = result('renders in a bare loop', times.bare);
  const table = result('the proofing table', times.table);
  figure('batch with checks, of a bare loop', table.median / bare.median, 1.6);
  printRatios(
    `${RECIPIENTS} recipients, 20 variables, 10 passages, 5 choices`,
    [bare, result('the same renders, traced', times.traced), table],
    bare,
  );
  console.log(
    `\n${(held / 1024).toFixed(1)} KiB are held for a sheet${globalThis.gc ? '' : ' (garbage included: run with --expose-gc)'}`,
  );
}
