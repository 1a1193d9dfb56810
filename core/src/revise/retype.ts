/** Another type for a variable, and what cannot be carried over. */
import type { Condition } from '../template/condition.js';
import type { TextDocument } from '../template/document.js';
import { keyFromLabel, labelFromKey } from '../template/keys.js';
import type { TypeName, Variable } from '../template/variable.js';
import { labelOfKey } from '../values/choice.js';
import { isMissing, valueType, type ValueContext } from '../values/index.js';
import { mapDocument } from './map.js';
import { countUses, usesOf } from './uses.js';

/** A text in which a variable has another type. */
export interface Retyped {
  readonly document: TextDocument;
  /** What is lost, each in a few words: `“decimals”`, `the view “counted” in 3 places`. */
  readonly lost: readonly string[];
}

/** Attributes of every type. */
const COMMON: ReadonlySet<string> = new Set([
  'key',
  'type',
  'label',
  'help',
  'example',
  'required',
  'from',
  'remember',
  'default',
  'value',
]);
const hasOptions = (type: TypeName): boolean => valueType(type).governs === 'option';

/** The text with a variable of another type: what fits goes along, what does not is listed. */
export function retypeVariable(document: TextDocument, key: string, type: TypeName, context: ValueContext): Retyped {
  const old = document.attrs.variables.find((variable) => variable.key === key);
  if (!old || old.type === type) return { document, lost: [] };
  const { variable, lost } = declaredAs(old, type, context);
  const views = new Set(valueType(type).views(variable));
  let viewsLost = 0;
  let bracketsLost = 0;
  let turned = 0;
  const changed = mapDocument(document, {
    inline: (node, shadows) => {
      if (node.type !== 'placeholder' || node.attrs.name !== key || shadows.has(key)) return [node];
      const { view } = node.attrs;
      if (view !== '' ? views.has(view) : type !== 'list') return [node];
      if (view !== '') viewsLost += 1;
      const plain = type === 'list' ? (variable.columns?.[0]?.key ?? 'count') : '';
      return [{ ...node, attrs: { name: key, view: plain } }];
    },
    condition: (condition, shadows) => {
      if (condition.of !== key || shadows.has(key)) return condition;
      const next = governs(condition, old, variable);
      if (!next) bracketsLost += 1;
      else if (next !== condition) turned += 1;
      return next;
    },
    variables: (variables) => variables.map((each) => (each.key === key ? variable : each)),
  });
  const readers = countUses(usesOf(document).filter((use) => use.kind === 'expression')).get(key) ?? 0;
  return {
    document: changed,
    lost: [
      ...lost,
      ...(viewsLost > 0 ? [`the view in ${viewsLost} ${viewsLost === 1 ? 'place' : 'places'}`] : []),
      ...(bracketsLost > 0 ? [`${bracketsLost === 1 ? 'a bracket' : `${bracketsLost} brackets`}; the words stay`] : []),
      ...(turned > 0 ? [`which option keeps ${turned === 1 ? 'a passage' : `${turned} passages`}`] : []),
      ...(readers > 0 ? [`perhaps ${readers} ${readers === 1 ? 'use' : 'uses'} in formulas`] : []),
    ],
  };
}

/** The declaration with another type. */
function declaredAs(old: Variable, type: TypeName, context: ValueContext): { variable: Variable; lost: string[] } {
  const allowed = new Set<string>(valueType(type).attributes);
  const lost: string[] = [];
  const kept: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(old)) {
    if (COMMON.has(name) || allowed.has(name)) kept[name] = value;
    else if (value !== undefined) lost.push(`“${name.replace(/_/g, ' ')}”`);
  }
  const { default: usual, ...others } = kept as unknown as Variable;
  const bare = withNeeds({ ...others, type }, old);
  if (bare.remember && valueType(type).isPersonal) {
    lost.push('“remember”');
    delete (bare as { remember?: boolean }).remember;
  }
  const given = usual === undefined || isMissing(usual) ? undefined : carried(usual, old, type);
  if (given === undefined) {
    if (usual !== undefined && !isMissing(usual)) lost.push('the default');
    return { variable: bare, lost };
  }
  if ('problem' in valueType(type).parse(given, bare, context))
    return { variable: bare, lost: [...lost, 'the default'] };
  return { variable: { ...bare, default: given }, lost };
}

/** What a type cannot be without. */
function withNeeds(bare: Variable, old: Variable): Variable {
  const variable = { ...valueType(bare.type).initial, ...bare };
  if (hasOptions(variable.type) && !variable.options?.length) {
    const labels = old.type === 'yes-no' ? [old.words?.yes ?? 'Yes', old.words?.no ?? 'No'] : ['First', 'Second'];
    const taken = new Set<string>();
    const options = labels.map((label) => {
      const key = keyFromLabel(label, taken);
      taken.add(key);
      return { key, label, wording: [{ type: 'text' as const, text: label }] };
    });
    return { ...variable, options };
  }
  if (variable.type === 'list' && !variable.columns?.length) {
    const label = old.label ?? labelFromKey(old.key);
    return { ...variable, columns: [{ key: 'item', type: old.type === 'list' ? 'text' : inColumn(old.type), label }] };
  }
  return variable;
}

/** The type of a first column: options would have to come along, so that words stand for them. */
const inColumn = (type: TypeName): TypeName => (hasOptions(type) ? 'text' : type);

/** A default as another type would be given it; undefined where it says nothing there. */
function carried(usual: NonNullable<Variable['default']>, old: Variable, type: TypeName): Variable['default'] {
  if (hasOptions(old.type) && hasOptions(type)) {
    const keys = Array.isArray(usual) ? (usual as readonly string[]) : [String(usual)];
    return type === 'choices' ? keys : keys[0];
  }
  if (typeof usual !== 'string') return undefined;
  return hasOptions(old.type) ? labelOfKey(old, usual) : usual;
}

/** A condition as the new declaration can govern it: the first option is the yes, and the other way round. */
function governs(condition: Condition, old: Variable, next: Variable): Condition | undefined {
  if (!valueType(next.type).governs) return undefined;
  if (hasOptions(next.type)) {
    if (condition.is.length > 0) return condition;
    const first = next.options?.[0];
    return first && { ...condition, is: [first.key], run: 0 };
  }
  if (condition.is.length === 0)
    return next.type === 'list' || condition.run === 0 ? condition : { ...condition, run: 0 };
  const firsts = old.options?.[0] && condition.is.includes(old.options[0].key);
  return { of: condition.of, is: [], not: firsts ? condition.not : !condition.not, run: 0 };
}
