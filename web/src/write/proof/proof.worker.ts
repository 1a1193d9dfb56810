/** The proof's worker. Several requests that wait are answered by the newest. */
import { oncePatternsAreReady } from '../../ui/patternsReady';
import { Prover } from './prove';
import type { ProofRequest } from './protocol';

const prover = new Prover();
/** Longer than from one typed letter to the next, in milliseconds. */
const PAUSE = 140;
let later: ReturnType<typeof setTimeout> | undefined;

const textsOf = ({ text, library = [] }: ProofRequest) => [text?.document, ...library.map(([, document]) => document)];
const handle = oncePatternsAreReady(textsOf, (data) => {
  clearTimeout(later);
  const proved = prover.prove(data);
  if (!proved) return;
  postMessage(proved.reply);
  // While somebody types on, the message goes before the checks: these wait for a pause.
  later = setTimeout(() => postMessage(proved.findings()), PAUSE);
});
addEventListener('message', ({ data }: MessageEvent<ProofRequest>) => handle(data));
