/** The four stacks of the mailroom: what came, what is a draft, what waits, what has gone. */
import { useIntervalFn } from '@vueuse/core';
import type { Delivered, OutgoingSummary, StandInClock } from '@vocabula/contract';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';

export const STACKS = ['answer', 'drafts', 'waiting', 'gone'] as const;
export type Stack = (typeof STACKS)[number];
export const TITLES: Readonly<Record<Stack, string>> = {
  answer: 'To answer',
  drafts: 'Drafts',
  waiting: 'Scheduled',
  gone: 'Sent',
};
/** How often what may have changed is looked for, in milliseconds. */
const LOOK_AGAIN = 4000;

export interface Item {
  readonly id: string;
  readonly stack: Stack;
  readonly title: string;
  readonly words: string;
  readonly at: string;
  /** What is wrong with it, or what became of it. */
  readonly state: string;
  readonly problem: boolean;
}

export function useMailroom() {
  const notice = useNotice();
  const inbox = shallowRef<readonly Delivered[]>([]);
  const outgoing = shallowRef<readonly OutgoingSummary[]>([]);
  const clock = ref<StandInClock>();
  const loaded = ref(false);

  async function load(): Promise<void> {
    try {
      [inbox.value, outgoing.value, clock.value] = await Promise.all([api.inbox(), api.outgoing(), api.standInClock()]);
      loaded.value = true;
    } catch (problem) {
      notice.fail(problem);
    }
  }
  useIntervalFn(() => document.hidden || void load(), LOOK_AGAIN);

  const items = computed((): Readonly<Record<Stack, readonly Item[]>> => {
    const of = (states: readonly OutgoingSummary['state'][], stack: Stack): Item[] =>
      outgoing.value.filter(({ state }) => states.includes(state)).map((each) => itemOf(each, stack));
    return {
      answer: inbox.value.map(({ id, from, subject, opening, at, thread }) => ({
        id,
        stack: 'answer',
        title: from.replace(/\s*<[^<>]*>$/, '').replace(/^"|"$/g, '') || 'no sender given',
        words: subject || opening || 'no subject',
        at,
        state: thread > 1 ? `${thread} in this thread` : '',
        problem: false,
      })),
      drafts: of(['draft'], 'drafts'),
      waiting: of(['waiting', 'sending', 'uncertain', 'refused'], 'waiting'),
      gone: of(['gone'], 'gone'),
    };
  });
  return { inbox, outgoing, clock, items, load, loaded };
}

function itemOf(each: OutgoingSummary, stack: Stack): Item {
  const counted = Object.entries(each.counts)
    .map(([what, number]) => (number > 1 ? `${what} ${number} times` : what))
    .join(', ');
  const state = { uncertain: 'may have been sent', refused: 'refused', sending: 'sending' }[each.state as string] ?? '';
  return {
    id: each.id,
    stack,
    title: each.name || each.address || 'forgotten',
    words: each.subject,
    at: each.goneAt ?? each.due,
    state: state || (each.attempts > 0 && each.state === 'waiting' ? `tried ${each.attempts} times` : counted),
    problem: each.state === 'uncertain' || each.state === 'refused',
  };
}
