import { error, type Finding } from '../findings/finding.js';
import { ADDRESS_PARTS, part, plainWords } from '../template/document.js';
import { isMailbox } from '../values/mailbox.js';
import type { Check } from './check.js';

/** An address of the envelope that is written out, and is none: told as it is typed, not when the message is made. */
export const fixedAddress: Check = {
  run: ({ document }) =>
    ADDRESS_PARTS.flatMap((name): Finding[] => {
      const index = document.content.findIndex(({ type }) => type === name);
      return part(document, name).content.flatMap(({ content = [] }, at): Finding[] => {
        const words = plainWords(content).trim();
        // What values or conditions make of it is told of the message.
        const isFixed = content.every((node) => node.type === 'text' && !node.marks?.length);
        if (!isFixed || words === '' || isMailbox(words)) return [];
        return [error({ code: 'bad-address', address: words }, { path: [index, at], attribute: name })];
      });
    }),
};
