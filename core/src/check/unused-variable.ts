import { advice } from '../findings/finding.js';
import { usesOf } from '../revise/uses.js';
import type { Check } from './check.js';

/** A variable that no text, condition, expression or included block reads. */
export const unusedVariable: Check = {
  run({ document, program }) {
    const used = new Set(usesOf(document).flatMap(({ key, kind }) => (kind === 'expression' ? [] : [key])));
    const read = new Set<string>();
    for (const slot of program.slots) {
      if (slot.declarations.length > 1) read.add(slot.key);
      for (const input of slot.inputs) if (input.from === 'slot') read.add(input.slot.key);
    }
    return document.attrs.variables
      .filter(({ key }) => !used.has(key) && !read.has(key))
      .map(({ key }) => advice({ code: 'unused-variable', key }, { variable: key }));
  },
};
