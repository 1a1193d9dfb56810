/** A desk with a text on it, for tests of what stands on it: the proof runs as it does in its worker. */
import { mount, type VueWrapper } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { vi } from 'vitest';
import { h, nextTick, type Component } from 'vue';
import { PLAIN_HOUSE, type TextDocument } from '@vocabula/core';
import { readText, writeText } from '@vocabula/core/markdown';
import { api } from '../../api/client';
import { useDesk, type Desk } from '../desk/useDesk';
import { Prover } from '../proof/prove';
import type { ProofRequest } from '../proof/protocol';
import { useWorkingCopy } from '../useWorkingCopy';

/** Answers in the same thread what the worker would. */
class ProofWorker extends EventTarget {
  private readonly prover = new Prover();
  postMessage(request: ProofRequest): void {
    const proved = this.prover.prove(structuredClone(request));
    if (!proved) return;
    for (const data of [proved.reply, proved.findings()])
      queueMicrotask(() => this.dispatchEvent(new MessageEvent('message', { data })));
  }
  terminate(): void {
    // Nothing runs on by itself.
  }
}

export interface OpenDesk {
  readonly desk: Desk;
  readonly wrapper: VueWrapper;
  /** Waits until everything that follows a change has followed it. */
  settled(): Promise<void>;
  /** The text as its file would be. */
  written(): string;
}

/** Puts a text on a desk, and a part of the desk beside it. */
export async function openDesk(
  source: string,
  part: Component,
  props: (desk: Desk) => Record<string, unknown> = (desk) => ({ desk }),
): Promise<OpenDesk> {
  const { document } = readText(source);
  vi.stubGlobal('Worker', ProofWorker);
  setActivePinia(createPinia());
  const stored = { name: 'text', revision: 1, updatedAt: '2026-11-24T10:00:00.000Z', document };
  vi.spyOn(api, 'house').mockResolvedValue({ house: PLAIN_HOUSE, revision: 1, updatedAt: stored.updatedAt } as never);
  vi.spyOn(api, 'tables').mockResolvedValue([]);
  vi.spyOn(api, 'texts').mockResolvedValue([]);
  vi.spyOn(api, 'assets').mockResolvedValue([]);
  vi.spyOn(api, 'remarks').mockResolvedValue([]);
  vi.spyOn(api, 'standing').mockResolvedValue({ name: 'text', versions: [], timed: [], changed: true } as never);
  vi.spyOn(api, 'text').mockResolvedValue(stored);
  vi.spyOn(api, 'closure').mockResolvedValue({ texts: [], version: undefined });
  vi.spyOn(api, 'saveText').mockImplementation((_name, body) =>
    Promise.resolve({ ...stored, document: body.document, revision: body.revision + 1 }),
  );
  let desk!: Desk;
  const wrapper = mount(
    {
      setup() {
        const copy = useWorkingCopy();
        desk = useDesk(copy, document);
        return () => h(part, props(desk));
      },
    },
    { attachTo: window.document.body },
  );
  desk.manuscript.editor.mount(window.document.createElement('div'));
  desk.manuscript.editor.setOptions({ editorProps: { handleScrollToSelection: () => true } });
  const settled = async (): Promise<void> => {
    desk.manuscript.settle();
    for (let beat = 0; beat < 6; beat += 1) {
      await new Promise((done) => setTimeout(done));
      await nextTick();
    }
  };
  await settled();
  const written = (): string => writeText(desk.manuscript.current.value as TextDocument);
  return { desk, wrapper, settled, written };
}
