/**
 * Compiles a series: the template of each step, and one small template that holds nothing but what the series asks of
 * its values: the conditions of its steps as calculated variables, the days that steps are counted from, and what became
 * of earlier messages as plain variables. So conditions are checked, asked for, worked out and covered as any others.
 */
import { error, type Finding } from '../findings/finding.js';
import { emptyDocument, type Block, type NamedDocument, type TextDocument } from '../template/document.js';
import { MOST_STEPS, OUTCOME_FLAGS } from '../template/steps.js';
import type { Variable } from '../template/variable.js';
import type { Program, SeriesProgram, StepProgram } from './program.js';
import type { CompileOptions } from './options.js';

/** The key of the variable that says whether a step goes. @param at of the step, from 0 */
export const goesKey = (at: number): string => `step_goes_${at + 1}`;

interface Compiled {
  readonly program: SeriesProgram;
  /** Names of the texts that its steps were compiled from, and of those that are not there. */
  readonly texts: readonly string[];
  readonly missing: readonly string[];
}

/** Compiles the steps of a series. What is wrong with them is added to `findings`; a step that cannot go is left out of none. */
export function compileSteps(
  named: NamedDocument,
  options: CompileOptions,
  compileText: (named: NamedDocument) => Program,
  findings: Finding[],
): Compiled {
  const { front, steps = [] } = named.document.attrs;
  const at = (step: number, attribute = 'text') => ({ attribute: `steps.${step}.${attribute}` });
  if (steps.length === 0) findings.push(error({ code: 'bad-step', why: 'none' }, { attribute: 'steps' }));
  if (steps.length > MOST_STEPS)
    findings.push(error({ code: 'bad-step', why: 'many', most: MOST_STEPS }, { attribute: 'steps' }));
  const compiled = steps.map((step, index): StepProgram => {
    const number = index + 1;
    const document = options.library.get(step.text);
    if (!document) {
      findings.push(error({ code: 'bad-step', why: 'missing', step: number, name: step.text }, at(number)));
      return { step, program: undefined };
    }
    const { kind, title, purpose } = document.attrs.front;
    if (kind !== 'message' || purpose === 'reply') {
      const why = kind === 'message' ? 'reply' : 'no-message';
      findings.push(error({ code: 'bad-step', why, step: number, title }, at(number)));
      return { step, program: undefined };
    }
    return { step, program: compileText({ name: step.text, document }) };
  });
  const asked = variablesOf(named, compiled, options);
  for (const name of OUTCOME_FLAGS)
    if (asked.has(name)) findings.push(error({ code: 'bad-step', why: 'taken', name }, { attribute: 'steps' }));
  steps.forEach(({ before, after }, index) => {
    const name = before ?? after;
    const type = name === undefined ? 'date' : asked.get(name)?.type;
    if (name !== undefined && type !== 'date' && type !== 'datetime')
      findings.push(error({ code: 'bad-step', why: 'no-day', step: index + 1, name }, at(index + 1, 'wait')));
  });
  const plan = compileText({ name: named.name, document: planDocument(named.document, asked) });
  for (const finding of plan.findings) {
    const step = steps.findIndex((_each, index) => finding.place.variable === goesKey(index));
    if (step >= 0)
      findings.push({ ...finding, place: { ...finding.place, variable: undefined, ...at(step + 1, 'when') } });
  }
  const programs = compiled.flatMap(({ program }) => program ?? []);
  return {
    program: { steps: compiled, plan, onAnswer: front.on_answer ?? 'stop' },
    texts: [...new Set(programs.flatMap(({ texts }) => texts))],
    missing: [...new Set(programs.flatMap(({ missing }) => missing))],
  };
}

/** The variables of a series: its own, then those of its templates and of what they include; the first of a key says what it is. */
function variablesOf(
  { document }: NamedDocument,
  steps: readonly StepProgram[],
  { library }: CompileOptions,
): ReadonlyMap<string, Variable> {
  const found = new Map(document.attrs.variables.map((variable) => [variable.key, variable]));
  for (const { program } of steps)
    for (const name of program?.texts ?? [])
      for (const variable of library.get(name)?.attrs.variables ?? [])
        if (!found.has(variable.key)) found.set(variable.key, variable);
  return found;
}

const placeholder = (name: string): Block => ({
  type: 'paragraph',
  content: [{ type: 'placeholder', attrs: { name, view: '' } }],
});

/** A day that lay ahead when a series began is over when its later steps go: it still is what they are counted from. */
function withoutLimits({ earliest: _earliest, latest: _latest, ...variable }: Variable): Variable {
  return variable;
}

/** The template that holds what a series asks of its values. */
function planDocument({ attrs }: TextDocument, asked: ReadonlyMap<string, Variable>): TextDocument {
  const { front, steps = [] } = attrs;
  const flags = OUTCOME_FLAGS.filter((key) => !asked.has(key)).map((key): Variable => ({
    key,
    type: 'yes-no',
    default: 'no',
  }));
  const goes = steps.flatMap(({ when }, index): Variable[] =>
    when === undefined ? [] : [{ key: goesKey(index), type: 'yes-no', value: when }],
  );
  const days = steps.flatMap(({ before, after }) => before ?? after ?? []);
  const empty = emptyDocument({
    kind: 'block',
    title: front.title,
    ...(front.locale === undefined ? {} : { locale: front.locale }),
    ...(front.timezone === undefined ? {} : { timezone: front.timezone }),
  });
  const blocks = [
    ...[...new Set(days)].filter((key) => asked.has(key)).map(placeholder),
    ...goes.map(({ key }): Block => ({
      type: 'passage',
      attrs: { of: key, is: [], not: false, run: 0 },
      content: [{ type: 'paragraph' }],
    })),
  ];
  return {
    ...empty,
    attrs: { front: empty.attrs.front, variables: [...[...asked.values()].map(withoutLimits), ...flags, ...goes] },
    content: empty.content.map((part) =>
      part.type === 'body' && blocks.length > 0 ? { type: 'body', content: blocks } : part,
    ),
  };
}
