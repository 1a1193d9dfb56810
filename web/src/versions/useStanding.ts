/** Where a text stands: its working copy, its versions, what is waiting. */
import { showMoment } from '../ui/dates/reader';
import type { Standing } from '@vocabula/contract';
import { ref, shallowRef } from 'vue';
import { api } from '../api/client';

export function useStanding() {
  const standing = shallowRef<Standing>();
  const problem = ref('');
  async function load(name: string): Promise<void> {
    try {
      standing.value = await api.standing(name);
      problem.value = '';
    } catch (failure) {
      standing.value = undefined;
      problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
    }
  }
  return { standing, problem, load };
}

/** What colleagues use, in a line: for the head of Write. */
export function standingInWords({ published, changed, retired, timed, versions }: Standing): string {
  const waiting = timed.find(({ state }) => state === 'waiting');
  const later = waiting ? ` · publishes ${showMoment(waiting.due, 'words')}` : '';
  if (retired) return `Retired${later}`;
  if (!published) return `${versions.length > 0 ? 'Withdrawn: colleagues cannot use it' : 'Not published yet'}${later}`;
  return `Colleagues use version ${published.number}${changed ? ' · your changes are kept, not published' : ''}${later}`;
}
