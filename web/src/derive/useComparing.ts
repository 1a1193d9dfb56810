import { FEWEST_MAILS, type Derived } from '@vocabula/core/derive';
import { onScopeDispose, ref, shallowRef } from 'vue';
import type { DeriveReply, DeriveRequest } from './protocol';

/** Compares mails in a worker. A new comparison replaces the running one. */
export function useComparing() {
  /** Result of the last comparison; undefined before the first and for too few mails. */
  const derived = shallowRef<Derived>();
  /** Progress, 0 to 1; undefined when no comparison is running. */
  const share = ref<number>();
  /** Why the last comparison failed; empty if it did not. */
  const problem = ref('');
  let worker: Worker | undefined;

  function stop(): void {
    worker?.terminate();
    worker = undefined;
    share.value = undefined;
  }
  let left = false;
  onScopeDispose(() => {
    left = true;
    stop();
  });

  function compare({ mails, ...how }: DeriveRequest): void {
    stop();
    if (left) return;
    problem.value = '';
    if (mails.length < FEWEST_MAILS) {
      derived.value = undefined;
      return;
    }
    share.value = 0;
    worker = new Worker(new URL('./derive.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<DeriveReply>) => {
      if ('share' in data) return void (share.value = data.share);
      if ('derived' in data) derived.value = data.derived;
      else problem.value = data.problem;
      stop();
    };
    worker.onerror = () => {
      problem.value = 'The comparison stopped. Try again with fewer mails.';
      stop();
    };
    worker.postMessage({ mails, ...how } satisfies DeriveRequest);
  }
  return { derived, share, problem, compare, stop };
}
