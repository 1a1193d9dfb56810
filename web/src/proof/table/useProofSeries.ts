import { shallowRef, type ShallowRef } from 'vue';
import { SERIES, type CaseWords, type ProofingReply, type SentSheet, type Series } from './protocol';

/** The cases of a series, and their sheets as far as they are computed. */
export interface Cases {
  readonly cases: readonly CaseWords[];
  readonly sheets: readonly (SentSheet | undefined)[];
}
type Sheets = Extract<ProofingReply, { what: 'sheets' }>;

/** While many sheets come, the page shows new ones at most this often, in milliseconds. */
const PAUSE = 250;
const EMPTY: Cases = { cases: [], sheets: [] };

/** Recipients, hard cases and pairings with their sheets, which come in batches. */
export function useProofSeries() {
  const series: Readonly<Record<Series, ShallowRef<Cases>>> = {
    recipients: shallowRef(EMPTY),
    hard: shallowRef(EMPTY),
    pairing: shallowRef(EMPTY),
  };
  /** Batches that are not shown yet. */
  const batches: Record<Series, Sheets[]> = { recipients: [], hard: [], pairing: [] };
  /** Lines of messages, which sheets name by number. */
  let lines: string[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  let lastShown = 0;

  /** Shows the batches that have come. */
  function publish(): void {
    clearTimeout(timer);
    timer = undefined;
    for (const each of SERIES) {
      if (batches[each].length === 0) continue;
      // A new array tells those who watch it that something changed.
      const { cases, sheets: before } = series[each].value;
      const sheets = [...before];
      for (const { from, sheets: fresh } of batches[each])
        for (const [index, sheet] of fresh.entries()) sheets[from + index] = sheet;
      batches[each] = [];
      series[each].value = { cases, sheets };
    }
    lastShown = performance.now();
  }
  /** Takes a batch of sheets, to be shown soon. */
  function addSheets(batch: Sheets): void {
    if (batch.linesFrom === 0) lines = [];
    lines.length = batch.linesFrom;
    for (const line of batch.lines) lines.push(line);
    batches[batch.series].push(batch);
    timer ??= setTimeout(publish, performance.now() - lastShown > PAUSE ? 0 : PAUSE);
  }
  /** Replaces the cases of a series; sheets keep their places unless they are given. */
  function setCases(which: Series, cases: readonly CaseWords[], sheets = series[which].value.sheets): void {
    batches[which] = [];
    series[which].value = { cases, sheets: cases.map((_, index) => sheets[index]) };
  }
  return { series, publish, addSheets, setCases, lineOf: (number: number): string => lines[number] ?? '' };
}
