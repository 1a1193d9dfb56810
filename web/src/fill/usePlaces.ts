/** What can be changed at a place of the message: its value, and the questions that keep it or leave it out. */
import { PROOF_CLASS, PROOF_DATA } from '@vocabula/core';
import { render, type Question } from '@vocabula/core';
import { shallowRef } from 'vue';
import type { Worked } from './useMessage';
import type { LinePlace } from './useRewording';

export interface OpenPlace {
  /** Where the card stands, in pixels of the window. */
  readonly left: number;
  readonly top: number;
  readonly questions: readonly string[];
  readonly line: LinePlace | undefined;
}

export function usePlaces({ asked, program, input }: Worked, placeOf: (element: HTMLElement) => LinePlace | undefined) {
  const open = shallowRef<OpenPlace>();
  const isAsked = (key: string): boolean => asked.value.some((question) => question.key === key);
  /** What is worked out is changed by what it is worked out from. */
  const changeable = (key: string, seen: readonly string[] = []): string[] => {
    if (isAsked(key)) return [key];
    const slot = program.value?.slots.find((each) => each.key === key);
    if (!slot || seen.includes(key)) return [];
    return slot.inputs.flatMap((read) => (read.from === 'slot' ? changeable(read.key, [...seen, key]) : []));
  };

  function show(target: Element, frame: DOMRect): void {
    const { left, bottom } = target.getBoundingClientRect();
    const element = target.closest<HTMLElement>(`[${PROOF_DATA.line}]`);
    const line = element ? placeOf(element) : undefined;
    const value = target.closest(`[${PROOF_DATA.of}]`)?.getAttribute(PROOF_DATA.of) ?? undefined;
    const keys = [...(value ? changeable(value) : []), ...governing(target, line).flatMap((key) => changeable(key))];
    open.value = { left: frame.left + left, top: frame.top + bottom, questions: [...new Set(keys)], line };
  }

  /** The names that the conditions around a place ask, innermost first: told by where its words come from. */
  function governing(target: Element, line: LinePlace | undefined): string[] {
    const left = target.closest(`.${PROOF_CLASS.gone}`)?.getAttribute(PROOF_DATA.of);
    const inside = left ? [left] : [];
    if (!line || !program.value) return inside;
    const run = target.closest(`[${PROOF_DATA.node}]`)?.getAttribute(PROOF_DATA.node);
    const { trace = [] } = render(program.value, input.value, { trace: true });
    const own = trace.find(
      ({ origin }) =>
        origin.text === line.text &&
        origin.path.slice(0, line.shownPath.length).join('.') === line.shownPath.join('.') &&
        (run === undefined || run === null || String(origin.path[line.shownPath.length]) === run),
    );
    return [...inside, ...(own?.origin.conditions ?? []).map(({ of }) => of).reverse()];
  }
  const close = (): void => void (open.value = undefined);
  const questionsOf = (place: OpenPlace): Question[] =>
    place.questions.flatMap((key) => asked.value.find((question) => question.key === key) ?? []);
  return { open, show, close, questionsOf };
}
