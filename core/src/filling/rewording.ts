/** Reading back a line that was changed by typing where it stands in a message, and what was written over in it. */
import { valuesOf, type RenderInput } from '../render/render.js';
import type { Program } from '../compile/program.js';
import type { Inline } from '../template/document.js';
import { normaliseInline } from '../template/normalise.js';
import { valueType } from '../values/index.js';
import type { Rewording } from './changes.js';

/** A run of a line as it stands in the page, in order. */
export interface EditedRun {
  /** The line's inline node that it was rendered from; none for words typed between. */
  readonly of: number | undefined;
  readonly words: string;
}

/**
 * What an edited line says, as content of a document: a run whose words are untouched is the node it came from,
 * placeholders included; any other is words under the marks of where it stands. What was not shown (a passage left out,
 * an empty value) stays where it was.
 * @param before the line's content
 * @param shown the runs as they were rendered
 * @param edited the runs as they stand now
 */
export function readEdited(
  before: readonly Inline[],
  shown: readonly EditedRun[],
  edited: readonly EditedRun[],
): readonly Inline[] {
  const was = new Map<number, string>();
  for (const { of, words } of shown) if (of !== undefined) was.set(of, (was.get(of) ?? '') + words);
  const out: Inline[] = [];
  let next = 0;
  const hiddenUpTo = (end: number): void => {
    for (; next < end; next += 1) if (!was.has(next)) out.push(before[next] as Inline);
    next = Math.max(next, end);
  };
  let marks: Inline['marks'];
  for (const { of, words } of joined(edited)) {
    const node = of === undefined ? undefined : before[of];
    if (of !== undefined && node) {
      hiddenUpTo(of);
      next = Math.max(next, of + 1);
      marks = node.marks;
      if (words === was.get(of)) {
        out.push(node);
        continue;
      }
    }
    if (words !== '') out.push({ type: 'text', text: words, ...(marks ? { marks } : {}) });
  }
  hiddenUpTo(before.length);
  return normaliseInline(out);
}

/** Runs of one node side by side are one. */
function joined(runs: readonly EditedRun[]): EditedRun[] {
  const out: EditedRun[] = [];
  for (const run of runs) {
    const last = out.at(-1);
    if (last && last.of === run.of) out[out.length - 1] = { of: run.of, words: last.words + run.words };
    else out.push(run);
  }
  return out;
}

/** The names of the values and conditions that a line had and has no more. */
export function writtenOver(before: readonly Inline[], after: readonly Inline[] | null): string[] {
  const left = namesOf(after ?? []);
  return [...namesOf(before)].filter((name) => !left.has(name));
}

function namesOf(nodes: readonly Inline[]): Set<string> {
  const names = new Set<string>();
  for (const node of nodes) {
    if (node.type === 'placeholder') names.add(node.attrs.name);
    for (const mark of node.marks ?? []) if (mark.type === 'phrase') names.add(mark.attrs.of);
  }
  return names;
}

/** Values in words, by name: variables as their plain view shows them, fields as they are. */
export function valuesInWords(program: Program, input: RenderInput, names: readonly string[]): Record<string, string> {
  if (names.length === 0) return {};
  const values = new Map(valuesOf(program, input).map(({ slot, value }) => [slot.key, { slot, value }]));
  return Object.fromEntries(
    names.map((name) => {
      const known = values.get(name);
      if (known) {
        const { slot, value } = known;
        const view = { choice: 'label', choices: 'labels', list: 'count' }[slot.variable.type as string] ?? '';
        const words =
          value === undefined ? '' : valueType(slot.variable.type).formatter(slot.variable, view, slot.locale);
        return [name, typeof words === 'function' && value !== undefined ? words(value) : ''];
      }
      const [source = '', key = ''] = name.split('.');
      const fields = source === 'recipient' ? input.recipient : source === 'sender' ? input.sender : undefined;
      return [name, String(fields?.[key] ?? '')];
    }),
  );
}

/** What was written over in a line and has changed since: the person chooses between their words and the new value. */
export function changedSince(
  { over }: Rewording,
  program: Program,
  input: RenderInput,
): { readonly name: string; readonly was: string; readonly now: string }[] {
  const now = valuesInWords(program, input, Object.keys(over));
  return Object.entries(over).flatMap(([name, was]) => {
    const words = now[name] ?? '';
    return words === was ? [] : [{ name, was, now: words }];
  });
}
