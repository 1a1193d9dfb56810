/** The catalogue: what is in it, what is shown of it, what is chosen, and what is done to that. */
import type { Folder, Hit, TextSummary } from '@vocabula/contract';
import { storeToRefs } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { useMe } from '../ui/me';
import { useNotice } from '../ui/notice';
import { useFolders, useGroups, usePeople, useRequests, useTexts } from '../ui/stores/lists';
import { today } from '../ui/today';
import { holds, narrow } from './narrow';

export type Order = 'hand' | 'title' | 'use';
/** What the list shows instead of a folder. */
export type View = 'asked' | 'review' | 'alike' | 'bin' | 'import' | 'rights';
/** How long after a keystroke the server is asked, in milliseconds. */
const PAUSE = 120;

// eslint-disable-next-line max-lines-per-function -- one store of what the Catalogue shows: its functions share the list, the choice and the folder
export function useCatalogue() {
  const route = useRoute();
  const router = useRouter();
  const me = useMe();
  const notice = useNotice();
  const forAll = [useTexts(), useFolders()] as const;
  const forAuthors = [usePeople(), useGroups(), useRequests()] as const;
  const { list: texts, loaded } = storeToRefs(forAll[0]);
  const { list: folders } = storeToRefs(forAll[1]);
  const { list: people, names } = storeToRefs(forAuthors[0]);
  const { list: groups } = storeToRefs(forAuthors[1]);
  const { list: requests } = storeToRefs(forAuthors[2]);
  const typed = ref('');
  const hits = shallowRef<ReadonlyMap<string, Hit>>(new Map());
  const order = ref<Order>('title');
  /** Names of the chosen texts, several at once. */
  const chosen = ref<ReadonlySet<string>>(new Set());

  const view = computed(() => route.query.view as View | undefined);
  const folder = computed(() => (route.query.in ? String(route.query.in) : undefined));
  const current = computed(() => texts.value.find(({ name }) => name === route.params.name));
  const narrowing = computed(() =>
    narrow(typed.value, { folders: folders.value, people: names.value, today: today() }),
  );
  /** A folder with all below it. */
  const within = computed(() => {
    if (folder.value === undefined) return undefined;
    const ids = new Set([folder.value]);
    for (const { id, parent } of folders.value) if (parent !== undefined && ids.has(parent)) ids.add(id);
    return ids;
  });
  const isOverdue = ({ reviewBy, binned, owner, madeBy }: TextSummary): boolean =>
    !binned && (reviewBy ?? '9') < today() && (owner ? isMine(owner) : madeBy === me.who?.id || me.isAdministrator);
  const isMine = (owner: string): boolean =>
    [me.who?.address, me.profile.email, me.profile.name].some((each) => each?.toLowerCase() === owner.toLowerCase());
  const overdue = computed(() => texts.value.filter(isOverdue));

  const shown = computed(() => {
    const { words, matches } = narrowing.value;
    const of = (text: TextSummary): boolean => {
      if ((view.value === 'bin') !== text.binned) return false;
      if (view.value === 'review') return isOverdue(text);
      return within.value === undefined || within.value.has(text.folder);
    };
    const found = texts.value.filter(
      (text) => of(text) && matches(text) && (words === '' || holds(text, words) || hits.value.has(text.name)),
    );
    return found.sort((a, b) => compare(a, b));
  });
  function compare(a: TextSummary, b: TextSummary): number {
    const words = narrowing.value.words;
    // With words typed, the best hits come first.
    if (words !== '') {
      const [x, y] = [rank(a.name), rank(b.name)];
      if (x !== y) return x - y;
    }
    if (order.value === 'use' && a.used !== b.used) return b.used - a.used;
    if (order.value === 'hand') {
      const [x, y] = [folderAt(a.folder), folderAt(b.folder)];
      if (x !== y) return x - y;
      if (a.position !== b.position) return (a.position || Infinity) - (b.position || Infinity);
    }
    return a.title.localeCompare(b.title, 'en');
  }
  const ranks = computed(() => new Map([...hits.value.keys()].map((name, at) => [name, at])));
  const rank = (name: string): number => ranks.value.get(name) ?? Infinity;
  const places = computed(() => new Map(folders.value.map(({ id }, at) => [id, at])));
  const folderAt = (id: string): number => places.value.get(id) ?? Infinity;

  let timer: ReturnType<typeof setTimeout> | undefined;
  watch(
    () => narrowing.value.words,
    (words) => {
      clearTimeout(timer);
      if (words.length < 2) {
        hits.value = new Map();
        return;
      }
      timer = setTimeout(async () => {
        const found = await api.search(words, 'write').catch(() => []);
        if (narrowing.value.words === words) hits.value = new Map(found.map((hit) => [hit.name, hit]));
      }, PAUSE);
    },
  );

  async function load(): Promise<void> {
    try {
      await Promise.all(forAll.map((each) => each.load()));
      if (me.isAuthor) await Promise.all(forAuthors.map((each) => each.load()));
      const known = new Set(texts.value.map(({ name }) => name));
      chosen.value = new Set([...chosen.value].filter((name) => known.has(name)));
    } catch (problem) {
      notice.fail(problem);
    }
  }
  /** Does something, shows the catalogue anew, and says what was done. */
  async function act(words: string, work: () => Promise<unknown>, undo?: () => Promise<unknown>): Promise<void> {
    try {
      await work();
      await load();
      notice.say(words, undo && (() => undo().then(load)));
    } catch (problem) {
      notice.fail(problem);
    }
  }
  const go = (to: { name?: string; in?: string | undefined; view?: View | undefined }): void =>
    void router.replace({
      name: 'catalogue',
      params: { name: to.name ?? (route.params.name as string) ?? '' },
      query: {
        ...('in' in to || 'view' in to ? {} : route.query),
        ...(to.in ? { in: to.in } : {}),
        ...(to.view ? { view: to.view } : {}),
      },
    });

  /** The texts that an act is about: the chosen ones, else the one that is read. */
  const subjects = computed(() => {
    const wanted = chosen.value.size > 0 ? chosen.value : new Set(current.value ? [current.value.name] : []);
    return texts.value.filter(({ name }) => wanted.has(name));
  });
  const counted = (list: readonly TextSummary[]): string =>
    list.length === 1 ? `“${list[0]?.title ?? ''}”` : `${list.length} texts`;

  async function move(list: readonly TextSummary[], to: Folder): Promise<void> {
    const from = new Map(list.map(({ name, folder: old }) => [name, old]));
    const back = async (): Promise<void> => {
      for (const old of new Set(from.values()))
        await api.many({
          act: 'move',
          names: [...from].filter(([, id]) => id === old).map(([name]) => name),
          folder: old,
        });
    };
    await act(
      `${counted(list)} ${list.length === 1 ? 'is' : 'are'} in ${to.title}.`,
      () => api.many({ act: 'move', names: [...from.keys()], folder: to.id }),
      back,
    );
  }
  async function bin(list: readonly TextSummary[]): Promise<void> {
    const wanted = list.map(({ name }) => name);
    await act(
      `${counted(list)} ${list.length === 1 ? 'is' : 'are'} in the bin.`,
      () => api.many({ act: 'bin', names: wanted }),
      () => api.many({ act: 'restore', names: wanted }),
    );
    chosen.value = new Set();
  }
  async function restore(list: readonly TextSummary[]): Promise<void> {
    const wanted = list.map(({ name }) => name);
    await act(
      `${counted(list)} ${list.length === 1 ? 'is' : 'are'} back.`,
      () => api.many({ act: 'restore', names: wanted }),
      () => api.many({ act: 'bin', names: wanted }),
    );
    chosen.value = new Set();
  }
  async function tag(list: readonly TextSummary[], tags: string[], off = false): Promise<void> {
    const wanted = list.map(({ name }) => name);
    await act(
      `${counted(list)}: ${off ? 'no longer tagged' : 'tagged'} ${tags.join(', ')}.`,
      () => api.many({ act: 'tag', names: wanted, tags, off }),
      () => api.many({ act: 'tag', names: wanted, tags, off: !off }),
    );
  }
  /** Puts the read text one place up or down among those of its folder, by hand. */
  async function shift(text: TextSummary, by: -1 | 1): Promise<void> {
    const list = texts.value
      .filter((each) => each.folder === text.folder && !each.binned)
      .sort((a, b) => (a.position || Infinity) - (b.position || Infinity) || a.title.localeCompare(b.title, 'en'))
      .map(({ name }) => name);
    const at = list.indexOf(text.name);
    const to = at + by;
    if (to < 0 || to >= list.length) return;
    list.splice(at, 1);
    list.splice(to, 0, text.name);
    order.value = 'hand';
    await act('Moved. This folder is ordered by hand.', () =>
      api.many({ act: 'order', names: list, folder: text.folder }),
    );
  }

  return {
    me,
    texts,
    folders,
    people,
    groups,
    requests,
    loaded,
    typed,
    narrowing,
    hits,
    order,
    chosen,
    view,
    folder,
    current,
    shown,
    overdue,
    subjects,
    load,
    act,
    go,
    move,
    bin,
    restore,
    tag,
    shift,
  };
}
export type Catalogue = ReturnType<typeof useCatalogue>;
