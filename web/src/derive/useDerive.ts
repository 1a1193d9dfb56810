/** State of From past mails: the mails, the comparison in its worker, the template, and saving it. */
import { samplesOf, type Settlement } from '@vocabula/core/derive';
import { disguised } from '@vocabula/core/proof';
import { writeCsv } from '@vocabula/core/tables';
import type { TextDocument } from '@vocabula/core';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { useComparing } from './useComparing';
import { useFrame } from './useFrame';
import { useGathered } from './useGathered';

/** What was said of the questions, in its order. Other mails have other questions: then it is forgotten. */
function useSettled(start: () => void) {
  const settled = shallowRef<readonly Settlement[]>([]);
  const say = (all: readonly Settlement[]): void => {
    settled.value = all;
    start();
  };
  return {
    settled,
    settle: (settlement: Settlement): void => say([...settled.value, settlement]),
    unsettle: (settlement: Settlement): void => say(settled.value.filter((each) => each !== settlement)),
    forget: (): void => void (settled.value = []),
  };
}

export function useDerive() {
  const comparing = useComparing();
  const { derived, share, problem } = comparing;
  const locale = ref('en-IE');
  const { settled, settle, unsettle, forget } = useSettled(() => void start());
  const labels = ref<Readonly<Record<string, string>>>({});
  const gathered = useGathered(startAnew);
  const { compared } = gathered;
  /** Stops reading files and comparing. */
  function stop(): void {
    gathered.stopReading();
    comparing.stop();
  }

  const { frame, known } = useFrame();
  async function start(): Promise<void> {
    await known;
    comparing.compare({ mails: compared.value, locale: locale.value, settled: settled.value, frame: frame.value });
  }
  /** Compares other mails, of which nothing was said yet. */
  function startAnew(): void {
    forget();
    void start();
  }
  /** The derived template with the labels that the user gave. */
  const template = computed((): TextDocument | undefined => {
    const found = derived.value?.template;
    if (!found) return undefined;
    const variables = found.attrs.variables.map((variable) => {
      const label = labels.value[variable.key]?.trim();
      return label ? { ...variable, label } : variable;
    });
    return { ...found, attrs: { ...found.attrs, variables } };
  });
  const relabel = (key: string, label: string): void => void (labels.value = { ...labels.value, [key]: label });

  /**
   * Saves the template as a working copy, with a sample set of its answers. Where only the set cannot be saved, the text
   * goes to the bin, so that another attempt leaves one text and not two.
   * @param hide replace real names and addresses by made-up ones
   * @returns the name of the text
   */
  async function take(title: string, folder: string | undefined, hide: boolean): Promise<string> {
    const found = derived.value;
    if (!found || !template.value) throw new Error('There is no template yet.');
    const made = await api.createText({
      kind: 'message',
      title,
      document: template.value,
      ...(folder ? { folder } : {}),
    });
    const { columns, rows } = samplesOf(found);
    const shown = hide ? disguised(columns, rows) : rows;
    const file = new File([writeCsv(columns, shown)], `${made.name}.csv`, { type: 'text/csv' });
    try {
      await api.importTable('sample', title, file);
    } catch (failure) {
      // Why the set was not saved is what is told.
      await api.binText(made.name).catch(() => undefined);
      throw failure;
    }
    return made.name;
  }
  return {
    ...gathered,
    ...{ locale, derived, template, labels, share, problem, settled, settle, unsettle, start: startAnew, stop },
    ...{ relabel, take },
  };
}
export type Deriving = ReturnType<typeof useDerive>;
