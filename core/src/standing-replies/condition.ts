/** The condition of a standing reply: an expression over what is known of a mail, compiled as those of templates are. */
import { compileBundle } from '../bundle/bundle.js';
import type { Program } from '../compile/program.js';
import { PLAIN_HOUSE } from '../house/house.js';
import { valuesOf } from '../render/render.js';
import { emptyDocument, type NamedDocument } from '../template/document.js';
import { fold } from '../words/fold.js';
import { MAIL_VARIABLES } from './mail.js';

const HOLDS = 'the_condition';

/** A condition, ready to be asked of mails. */
export interface MailCondition {
  readonly program: Program;
  /** What is wrong with it, in words; a condition with problems holds for nothing. */
  readonly problems: readonly string[];
}

/** Words in quotation marks, as expressions have them. */
const LITERAL = /"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'/g;

/** @param when an expression over `MAIL_VARIABLES`; empty for none, which holds for nothing */
export function mailCondition(when: string): MailCondition {
  const empty = emptyDocument({ kind: 'block', title: 'Condition' });
  // Mails are compared in small letters without accents: so are the words they are compared with.
  const value = when.replace(LITERAL, (words) => fold(words));
  const named: NamedDocument = {
    name: 'condition',
    document: {
      ...empty,
      attrs: {
        front: empty.attrs.front,
        variables: [
          ...MAIL_VARIABLES,
          ...(value.trim() === '' ? [] : [{ key: HOLDS, type: 'yes-no' as const, value }]),
        ],
      },
      content: empty.content.map((part) =>
        part.type === 'body'
          ? {
              type: 'body',
              content: [
                {
                  type: 'passage',
                  attrs: { of: value.trim() === '' ? 'answers_ours' : HOLDS, is: [], not: false, run: 0 },
                  content: [{ type: 'paragraph' }],
                },
              ],
            }
          : part,
      ),
    },
  };
  const program = compileBundle({ text: named, texts: [named], house: PLAIN_HOUSE });
  const found = program.findings.filter(({ level, place }) => level === 'error' && place.variable === HOLDS);
  const problems = value.trim() === '' ? ['There is no condition yet.'] : found.map(({ message }) => message);
  return { program, problems };
}

/** Whether a condition holds for a mail. What cannot be told, for want of a value, does not. @param facts of `factsOf` */
export function holdsFor(
  { program, problems }: MailCondition,
  facts: Readonly<Record<string, string | number>>,
  today: string,
): boolean {
  if (problems.length > 0) return false;
  const input = { recipient: {}, sender: {}, answers: facts, today };
  return valuesOf(program, input).find(({ slot }) => slot.key === HOLDS)?.value === true;
}
