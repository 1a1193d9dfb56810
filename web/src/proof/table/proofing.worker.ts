/** The proofing table's worker: works in short turns, so that what is asked meanwhile is answered at once. */
import type { TextDocument } from '@vocabula/core';
import { oncePatternsAreReady } from '../../ui/patternsReady';
import { Proofing } from './proofing';
import type { ProofingRequest } from './protocol';

/** How long one turn takes, in milliseconds. */
const TURN = 24;
const proofing = new Proofing((reply) => postMessage(reply));
const channel = new MessageChannel();
let work: Generator<void> | undefined;
let stopped = false;
let waiting = false;

function goOn(): void {
  if (waiting || stopped || !work) return;
  waiting = true;
  channel.port2.postMessage(undefined);
}
channel.port1.onmessage = () => {
  waiting = false;
  if (stopped || !work) return;
  const end = performance.now() + TURN;
  while (performance.now() < end)
    if (work.next().done) {
      work = undefined;
      return;
    }
  goOn();
};
function textsOf(request: ProofingRequest): (TextDocument | undefined)[] {
  const { text, library = [] } =
    request.what === 'template'
      ? { text: request.parts.text.document, library: request.parts.library }
      : request.what === 'other'
        ? { text: request.document, library: request.library }
        : {};
  return [text, ...library.map(([, document]) => document)];
}
const handle = oncePatternsAreReady(textsOf, (data: ProofingRequest) => {
  const begun = proofing.handle(data);
  if (data.what === 'stop') stopped = true;
  if (data.what === 'go on' || begun) stopped = false;
  if (begun) work = begun;
  goOn();
});
addEventListener('message', ({ data }: MessageEvent<ProofingRequest>) => handle(data));
