/**
 * Deriving a template from 25, 50, 100 and 200 mails of about 300 words: how many come out word for word, how time grows
 * with their number, and how much of the five seconds, and of the 500 MB, that 200 of them take.
 */
import { derive } from '@vocabula/core/derive';
import { figure } from './figures.js';
import { CORPORA, mailsOf } from '../core/src/derive/testing/corpus.js';

const SENTENCES = [
  'The beds by the wall were cut back in autumn, and stand better for it.',
  'Whoever comes by train takes the lane along the river, which is longer and dry.',
  'In the palm house it is warm; coats are left on the hooks by the door.',
  'Seeds are lent from March on, and come back when the plants have borne some.',
  'The geese belong to the pond and not to the picnic, whatever they say.',
  'Our shop has paper bags; those who bring a basket carry it home more easily.',
];
const FIVE_SECONDS = 5000;
const MOST_BYTES = 500_000_000;

/** The corpus of visits, made as long as letters are. */
const LONG = {
  ...CORPORA.visits,
  source: CORPORA.visits.source.replace(
    'Paths may be icy',
    `${Array.from({ length: 3 }, (_, at) => [...SENTENCES.slice(at), ...SENTENCES.slice(0, at)].join(' ')).join('\n\n')}\n\nPaths may be icy`,
  ),
};

/** Runs the comparison and prints its table. */
export function bench(): void {
  console.log('| mails | word for word | time to that of 25 | share of the time | share of the memory |');
  console.log('|---:|---:|---:|---:|---:|');
  let first = 0;
  for (const count of [25, 50, 100, 200]) {
    const mails = mailsOf(LONG, count, 1);
    const begun = performance.now();
    let most = 0;
    const { exact } = derive(mails, {
      locale: LONG.locale,
      onProgress: () => (most = Math.max(most, process.memoryUsage().heapUsed)),
    });
    const took = performance.now() - begun;
    first ||= took;
    if (count === 200) {
      figure('deriving from 200 mails, of 5 s', took / FIVE_SECONDS, 1);
      figure('deriving from 200 mails, of 500 MB', most / MOST_BYTES, 1);
      figure('of 200 mails come out word for word', exact / count, 1, 'more');
    }
    console.log(
      `| ${count} | ${exact} | ${(took / first).toFixed(2)} | ${(took / FIVE_SECONDS).toFixed(2)} | ${(most / MOST_BYTES).toFixed(2)} |`,
    );
  }
}
