/** Handing the message over by whichever way, once everything that matters has been looked at. */
import type { Way } from '@vocabula/contract';
import { isBorrowed } from '@vocabula/core/filling';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { command } from '../ui/keys';
import { useMe } from '../ui/me';
import { showMoment } from '../ui/dates/reader';
import { useNotice } from '../ui/notice';
import { zone } from '../ui/today';
import { copy, openMailto, print, saveHandedOver, toService, type Handing } from './handOver';
import { useWorked } from './useWorked';
import type { Filling } from './useFill';

export interface Chosen {
  readonly way: Way;
  /** Of the mail service: an ISO moment, or `draft`. */
  readonly at?: string;
}

export function useHandOver(filling: Filling, focusOn: (key: string) => void) {
  const { fill, message, asked, unsure, disputed, settled } = filling;
  const me = useMe();
  const notice = useNotice();
  const router = useRouter();
  const busy = ref(false);
  const worked = useWorked();
  /** Of those who paste the subject first: whether it has been copied. */
  const subjectCopied = ref(false);
  let last: Chosen = { way: 'copy' };
  const labelOf = (key: string): string => asked.value.find((question) => question.key === key)?.label ?? key;

  /** Why it is not handed over yet, with the question that it is about. */
  async function obstacle(): Promise<{ readonly words: string; readonly key: string | undefined } | undefined> {
    await filling.recipientTaken.value?.catch(() => undefined);
    const blanks = message.value?.blanks ?? [];
    const all = `${command} Shift Enter hands over anyway.`;
    if (blanks.length > 0) return { words: `${blanks.map(labelOf).join(', ')}: still blank. ${all}`, key: blanks[0] };
    const borrowed = unsure.value.filter(isBorrowed);
    if (borrowed.length > 0)
      return {
        words: `${borrowed.map(({ label }) => label).join(', ')}: filled from elsewhere. Enter confirms; ${all}`,
        key: borrowed[0]?.key,
      };
    const [first] = disputed.value;
    if (first)
      return {
        words: `You changed ${labelOf(first.since[0]?.name ?? '')}, which has changed since. Choose which wording to keep.`,
        key: undefined,
      };
    return undefined;
  }

  async function handOver(chosen: Chosen = last, anyway = false): Promise<void> {
    const { value: now } = fill;
    if (!now || busy.value) return;
    last = chosen;
    // What is to go to many is blank for each until it is known for whom.
    const stopped = anyway || chosen.way === 'many' ? undefined : await obstacle();
    if (busy.value) return;
    if (stopped) {
      notice.say(stopped.words);
      if (stopped.key) focusOn(stopped.key);
      return;
    }
    busy.value = true;
    try {
      (document.activeElement as HTMLElement | null)?.blur?.();
      await go(chosen, { id: now.id, settled, incomplete: anyway, worked: worked() }, now.text);
      fill.value = {
        ...now,
        state: chosen.way === 'many' ? now.state : 'handed over',
        last: { way: chosen.way, at: new Date().toISOString() },
      };
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy.value = false;
    }
  }

  async function go({ way, at }: Chosen, handing: Handing, name: string): Promise<void> {
    switch (way) {
      case 'copy': {
        const first = me.ways.order === 'subject first' && !subjectCopied.value;
        const part = me.ways.order === 'together' ? 'all' : first ? 'subject' : 'body';
        notice.say(await copy(handing, me.ways, part));
        subjectCopied.value = first;
        return;
      }
      case 'mailto': {
        const { words, open, long } = await openMailto(handing);
        if (long) return notice.offer(words, 'Open it anyway', open);
        notice.say(words);
        return open();
      }
      case 'print':
        return notice.say(await print(handing));
      case 'service':
        return service(handing, at);
      case 'many': {
        await handing.settled();
        const { id } = await api.makeMailing({ fill: handing.id, timezone: zone() });
        return void (await router.push({ name: 'many', params: { id } }));
      }
      default:
        return notice.say(await saveHandedOver(handing, way, name));
    }
  }

  async function service(handing: Handing, at: string | undefined): Promise<void> {
    const id = await toService(handing, at);
    if (!id) return;
    const words =
      at === 'draft'
        ? 'Kept as a draft in the mailroom.'
        : at === undefined
          ? 'It is sent in 30 seconds.'
          : `It goes ${showMoment(at, 'words')}.`;
    notice.offer(words, 'Take it back', async () => {
      await api.changeOutgoing(id, { act: 'take back' });
      notice.say('Taken back: it is an unfinished message again.');
      if (fill.value) fill.value = { ...fill.value, state: 'unfinished' };
    });
  }
  return { busy, handOver, subjectCopied };
}
