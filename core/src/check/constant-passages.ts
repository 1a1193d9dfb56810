import { implies, neverBoth, severalIn } from '../compile/condition-logic.js';
import { conditionInWords } from '../compile/wording.js';
import { advice, type Finding } from '../findings/finding.js';
import type { Condition } from '../template/condition.js';
import { walk } from '../template/walk.js';
import type { Check, CheckContext } from './check.js';

/** Passages that no filling ever keeps, or that all do: `never-kept` and `always-kept`. */
export const kept: Check = {
  run(context) {
    const findings: Finding[] = [];
    const reported = new Set<string>();
    walk(context.document, ({ path, outer, own }) =>
      own.forEach((condition, index) => {
        const finding = judge(condition, [...outer, ...own.slice(0, index)], context, path);
        const id = `${path.slice(0, -1).join()} ${finding?.message}`;
        if (finding && !reported.has(id)) findings.push(finding);
        reported.add(id);
      }),
    );
    return findings;
  },
};

function judge(
  condition: Condition,
  outer: readonly Condition[],
  { document, program }: CheckContext,
  path: readonly number[],
): Finding | undefined {
  const several = severalIn(document.attrs.variables);
  const variable = document.attrs.variables.find(({ key }) => key === condition.of);
  const words = conditionInWords(condition, variable);
  const against = outer.find((each) => neverBoth(each, condition, several));
  if (against)
    return advice(
      {
        code: 'never-kept',
        why: 'against',
        condition: words,
        outer: conditionInWords(
          against,
          document.attrs.variables.find(({ key }) => key === against.of),
        ),
      },
      { path },
    );
  if (variable?.type !== 'list' && outer.some((each) => implies(each, condition, several)))
    return advice({ code: 'always-kept', why: 'implied', condition: words }, { path });
  const slot = program.slots.find(({ key }) => key === condition.of);
  if (
    variable?.value !== undefined &&
    slot?.expression &&
    slot.expression.references.length === 0 &&
    slot.expression.fields.length === 0 &&
    !/today\s*\(|house\./.test(variable.value)
  ) {
    const value = slot.expression.evaluate({}, program);
    if (variable.type === 'yes-no' && typeof value === 'boolean') {
      const holds = value !== condition.not;
      return advice({ code: holds ? 'always-kept' : 'never-kept', why: 'constant', condition: words }, { path });
    }
  }
  const options = variable?.options?.map((option) => option.key) ?? [];
  const all =
    condition.is.length > 0 &&
    options.length > 0 &&
    options.every((key) => condition.is.includes(key)) &&
    !variable?.other;
  if (all && variable?.required && variable.type === 'choice')
    return advice(
      { code: condition.not ? 'never-kept' : 'always-kept', why: 'every-option', condition: words },
      { path },
    );
  return undefined;
}
