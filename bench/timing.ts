/** Timing several ways of doing the same work side by side. */

export interface Contestant {
  readonly name: string;
  /** Does the work for the case of that number; what it returns is summed, so that it cannot be optimised away. */
  readonly run: (at: number) => string;
}

export interface Result {
  readonly name: string;
  /** Microseconds for one run: the median and the fastest of all rounds. */
  readonly median: number;
  readonly fastest: number;
}

/**
 * Runs contestants in turns, so that whatever else the machine does falls on all of them alike.
 * @param count how many cases one round has.
 * @param rounds how many rounds are counted, after a tenth of as many to warm up.
 */
export function race(contestants: readonly Contestant[], count: number, rounds: number): readonly Result[] {
  const times = new Map<string, number[]>(contestants.map(({ name }) => [name, []]));
  let length = 0;
  for (let round = -Math.ceil(rounds / 10); round < rounds; round += 1) {
    // Each round begins with another contestant: nobody always runs on a freshly collected heap.
    contestants.forEach((_, offset) => {
      const { name, run } = contestants[(offset + Math.abs(round)) % contestants.length] as Contestant;
      const start = process.hrtime.bigint();
      for (let at = 0; at < count; at += 1) length += run(at).length;
      const took = Number(process.hrtime.bigint() - start) / 1000 / count;
      if (round >= 0) times.get(name)?.push(took);
    });
  }
  if (length === 0) throw new Error('Nothing was made.');
  return contestants.map(({ name }) => {
    const sorted = [...(times.get(name) ?? [])].sort((a, b) => a - b);
    return { name, median: sorted[sorted.length >> 1] as number, fastest: sorted[0] as number };
  });
}

/** Prints results as ratios to one of them, fastest first. */
export function printRatios(title: string, results: readonly Result[], base: Result): void {
  console.log(`\n${title}\n`);
  console.log('| | ratio of medians | ratio of fastest rounds |');
  console.log('|---|---:|---:|');
  for (const each of [...results].sort((a, b) => a.median - b.median))
    console.log(
      `| ${each.name} | ${(each.median / base.median).toFixed(2)} | ${(each.fastest / base.fastest).toFixed(2)} |`,
    );
}
