import { advice } from '../findings/finding.js';
import { part, plainWords } from '../template/document.js';
import { fold } from '../words/fold.js';
import type { Check } from './check.js';

/** The subject is the title: words for finding the template, which the recipient was not to read. */
export const titleAsSubject: Check = {
  run({ document }) {
    const { kind, title } = document.attrs.front;
    const subject = plainWords(part(document, 'subject').content);
    return kind === 'message' && title && fold(title).trim() === fold(subject).trim()
      ? [advice({ code: 'title-as-subject' }, { path: [0], attribute: 'subject' }, 'note')]
      : [];
  },
};
