/** Standing replies being written: each change is kept and tried on the past at once. */
import type { DriveStandingReply, ShownMessage, StandingReply, StandingRule, TriedStanding } from '@vocabula/contract';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client';
import { makeKeeper } from '../ui/keeper';
import { useNotice } from '../ui/notice';
import { zone } from '../ui/today';

const keeper = makeKeeper<StandingRule, StandingReply>({
  send: (id, rule) => api.saveStandingReply(id, rule),
  after: 600,
});

/** What a new rule begins with. */
export const newRule = (): StandingRule => ({
  ...{ title: 'New standing reply', when: '', text: '', values: {} },
  ...{ does: 'suggest', everyDays: 7, hours: false, mostADay: 20, timezone: zone() },
});

/** @param id the rule that is shown; empty for none */
export function useStandingReplies(id: Ref<string>) {
  const notice = useNotice();
  const replies = shallowRef<readonly StandingReply[]>();
  const problem = ref('');
  const chosen = computed(() => replies.value?.find((each) => each.id === id.value));
  /** The rule as it is written here, before it is kept. */
  const rule = shallowRef<StandingRule>();

  async function load(): Promise<void> {
    try {
      replies.value = await api.standingReplies();
      problem.value = '';
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
    }
  }
  const put = (reply: StandingReply): void =>
    void (replies.value = replies.value?.map((each) => (each.id === reply.id ? reply : each)));

  const past = usePast(id, put);
  watch(
    () => chosen.value?.id,
    () => {
      rule.value = chosen.value && (keeper.waiting(chosen.value.id) ?? chosen.value.rule);
      if (chosen.value) void past.attempt(chosen.value);
    },
    { immediate: true },
  );
  keeper.hear({
    kept: (of, reply) => {
      put(reply);
      // Waited for: what is switched on was tried as it stands.
      return of === id.value ? past.attempt(reply) : undefined;
    },
    refused: (_of, _rule, failure) => {
      notice.fail(failure);
      return 'hold';
    },
  });
  function change(more: Partial<StandingRule>): void {
    if (!rule.value) return;
    rule.value = { ...rule.value, ...more };
    keeper.keep(id.value, rule.value);
  }
  async function drive(of: string, act: DriveStandingReply['act'], words: string, undo?: () => void): Promise<void> {
    try {
      // What is switched on is what stands here.
      await keeper.flush((each) => each === of);
      await api.driveStandingReply(of, act);
      await load();
      notice.say(words, undo);
    } catch (failure) {
      notice.fail(failure);
    }
  }
  async function make(): Promise<string | undefined> {
    try {
      const made = await api.makeStandingReply(newRule());
      await load();
      return made.id;
    } catch (failure) {
      notice.fail(failure);
      return undefined;
    }
  }
  const keeping = computed(() => keeper.stateOf(id.value));
  return { replies, problem, chosen, rule, keeping, load, change, drive, make, ...past };
}

/** A rule tried on the past: the mails it would have answered, and how. */
function usePast(id: Ref<string>, put: (reply: StandingReply) => void) {
  const tried = shallowRef<TriedStanding>();
  const trying = ref(false);
  /** Why it cannot be tried, in words. */
  const cannot = ref('');
  const letter = ref('');
  const message = shallowRef<ShownMessage>();
  let latest = 0;

  async function attempt(reply: StandingReply, wrong = reply.trial?.wrong ?? []): Promise<void> {
    const mine = (latest += 1);
    cannot.value = '';
    if (tried.value && tried.value.standing.id !== reply.id) tried.value = undefined;
    if (reply.problem !== '' || reply.rule.text === '') {
      tried.value = undefined;
      cannot.value =
        reply.rule.when === '' ? 'Say above which mail it answers.' : reply.problem || 'Choose a template.';
      return;
    }
    trying.value = true;
    try {
      const found = await api.tryStandingReply(reply.id, [...wrong]);
      if (mine !== latest || reply.id !== id.value) return;
      tried.value = found;
      put(found.standing);
      if (!found.mails.some((each) => each.letter === letter.value)) letter.value = found.mails[0]?.letter ?? '';
    } catch (failure) {
      if (mine === latest) cannot.value = failure instanceof Error ? failure.message : 'It could not be tried.';
    } finally {
      if (mine === latest) trying.value = false;
    }
  }
  const mark = async (which: string, isWrong: boolean): Promise<void> => {
    const found = tried.value;
    if (!found) return;
    const others = (found.standing.trial?.wrong ?? []).filter((each) => each !== which);
    await attempt(found.standing, isWrong ? [...others, which] : others);
  };
  watch([letter, tried], async ([which]) => {
    if (which === '' || !tried.value) return void (message.value = undefined);
    const found = await api.standingReplyTo(id.value, which).catch(() => undefined);
    if (letter.value === which) message.value = found;
  });
  return { tried, trying, cannot, letter, message, attempt, mark };
}
