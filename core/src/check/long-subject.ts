import { advice } from '../findings/finding.js';
import { part } from '../template/document.js';
import { labelFromKey } from '../template/keys.js';
import type { Check } from './check.js';

/** What most mail programs show of a subject before they cut it. */
const SHOWN = 70;

/** A subject that will be cut off where it is listed. Placeholders count as long as their labels. */
export const longSubject: Check = {
  run({ document }) {
    if (document.attrs.front.kind !== 'message') return [];
    const labels = new Map(
      document.attrs.variables.map((variable) => [variable.key, variable.label ?? labelFromKey(variable.key)]),
    );
    const nodes = (part(document, 'subject').content ?? []).filter(
      (node) => !node.marks?.some((mark) => mark.type === 'phrase'),
    );
    const length = nodes.reduce(
      (sum, node) =>
        sum +
        (node.type === 'text'
          ? [...node.text].length
          : node.type === 'placeholder'
            ? (labels.get(node.attrs.name) ?? node.attrs.name).length
            : 0),
      0,
    );
    return length > SHOWN
      ? [advice({ code: 'long-subject', length, shown: SHOWN }, { path: [0], attribute: 'subject' }, 'note')]
      : [];
  },
};
