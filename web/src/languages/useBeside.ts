/** A language version on one's hands: beside its original, changed line by line, kept as any working copy. */
import type { Inline, TextDocument } from '@vocabula/core';
import {
  agreedBy,
  besideOriginal,
  carryOver,
  statesOf,
  withLine,
  type Agreed,
  type Beside,
  type LanguageRow,
} from '@vocabula/core/languages';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import { useTexts } from '../ui/stores/lists';
import { labels } from '../write/editor/views/labels';
import { useWorkingCopy, type Settled } from '../write/useWorkingCopy';
import { isToDo } from './languageWords';

const NONE: Beside = { rows: [], findings: [] };

export function useBeside() {
  const notice = useNotice();
  const texts = useTexts();
  const copy = useWorkingCopy();
  const original = shallowRef<TextDocument>();
  const version = shallowRef<TextDocument>();
  const agreed = shallowRef<readonly Agreed[]>([]);
  const problem = ref('');
  const beside = computed(() =>
    original.value && version.value ? besideOriginal(original.value, version.value, agreed.value) : NONE,
  );
  const counts = computed(() => statesOf(beside.value.rows));

  /** Opens a version, and the text that it is of. */
  async function open(name: string): Promise<void> {
    try {
      await copy.open(name);
      const of = copy.opened.value?.attrs.front.translation_of;
      if (!of || !copy.opened.value) throw new Error('This text is no language version.');
      const [first, said] = await Promise.all([api.text(of), api.agreedLines(name)]);
      original.value = first.document;
      agreed.value = said.pairs;
      show(copy.opened.value);
      problem.value = '';
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : 'This could not be read.';
    }
  }
  function show(document: TextDocument): void {
    version.value = document;
    const own = document.attrs.variables;
    const named = original.value?.attrs.variables ?? [];
    // Both columns call a variable what the original calls it.
    labels.set([...named, ...own.filter(({ key }) => !named.some((each) => each.key === key))], undefined);
  }
  function put(document: TextDocument): void {
    show(document);
    copy.changed(document);
  }
  /** Other words in a line of the version. */
  function change({ version: line }: LanguageRow, content: readonly Inline[]): void {
    if (version.value && line) put(withLine(version.value, line.place, content));
  }
  /** Says of lines that they say what the original says. */
  async function agree(rows: readonly LanguageRow[]): Promise<void> {
    const pairs = agreedBy(rows);
    if (pairs.length === 0) return;
    agreed.value = [...agreed.value, ...pairs];
    try {
      agreed.value = (await api.agreeOn(copy.name.value, { pairs })).pairs;
    } catch (failure) {
      notice.fail(failure);
    }
  }
  const agreeOnAll = (): Promise<void> => agree(beside.value.rows.filter(({ state }) => state === 'unsure'));
  function carry(): void {
    const before = version.value;
    if (!before || !original.value) return;
    const { locale } = before.attrs.front;
    const versionOf = (name: string): string | undefined => texts.versionOf(name, locale);
    put(carryOver(original.value, before, { agreed: agreed.value, versionOf }));
    notice.say('It is built as the original is; what is new has the original’s words.', () => put(before));
  }
  /** A conflict with somebody else's saving was settled. */
  async function settle(settled: Settled): Promise<void> {
    try {
      await copy.settle(settled);
      show(settled.document);
      notice.say('Merged.');
    } catch (failure) {
      notice.fail(failure);
    }
  }
  /** The next line about which something is to be done, behind one; the first where there is none behind it. */
  const nextToDo = (from: number): number => {
    const { rows } = beside.value;
    const later = rows.findIndex((row, index) => index > from && row.version !== undefined && isToDo(row));
    return later >= 0 ? later : rows.findIndex((row) => row.version !== undefined && isToDo(row));
  };
  return { copy, original, version, beside, counts, problem, open, change, agree, agreeOnAll, carry, settle, nextToDo };
}
