/** The proof's worker. Several requests that wait are answered by the newest. */
import { Prover } from './prove';
import type { ProofRequest } from './protocol';

const prover = new Prover();
let later: ReturnType<typeof setTimeout> | undefined;

addEventListener('message', ({ data }: MessageEvent<ProofRequest>) => {
  clearTimeout(later);
  const proved = prover.prove(data);
  if (!proved) return;
  postMessage(proved.reply);
  // A keystroke that comes meanwhile takes the place of these checks.
  later = setTimeout(() => postMessage(proved.findings()), 30);
});
