/** Joins declarations into the questions of one message (engine notes, section 4). */
import { error, type Finding } from '../findings/finding.js';
import { labelFromKey } from '../template/keys.js';
import type { Variable } from '../template/variable.js';
import { valueType, type ValueContext } from '../values/index.js';
import type { Read, Slot } from './program.js';
import type { Declaration, TextUnit } from './texts.js';

/** What must be equal where two declarations share a key; the attribute that is not, or undefined. */
export function clash(a: Variable, b: Variable): string | undefined {
  if (a.type !== b.type) return 'type';
  for (const name of ['currency', 'decimals', 'unit', 'zone'] as const) if (a[name] !== b[name]) return name;
  for (const name of ['plural', 'forms'] as const)
    if (JSON.stringify(a[name] ?? {}) !== JSON.stringify(b[name] ?? {})) return name;
  const keys = (options: Variable['options']): string =>
    (options ?? [])
      .map((option) => option.key)
      .sort()
      .join();
  if (keys(a.options) !== keys(b.options)) return 'options';
  const columns = (list: Variable): string =>
    (list.columns ?? [])
      .map((column) => `${column.key}:${column.type}`)
      .sort()
      .join();
  return columns(a) === columns(b) ? undefined : 'columns';
}

/** Makes the slots: the outermost declaration wins, among siblings the first in reading order. */
export function makeSlots(
  declarations: readonly Declaration[],
  findings: Finding[],
): { slots: Slot[]; units: Map<Slot, TextUnit> } {
  const ordered = declarations
    .map((declaration, order) => ({ ...declaration, order }))
    .sort((a, b) => a.depth - b.depth || a.order - b.order);
  const groups = new Map<string, Declaration[]>();
  for (const declaration of ordered) {
    const group = groups.get(declaration.variable.key);
    if (!group) groups.set(declaration.variable.key, [declaration]);
    else if (!group.some((other) => other.variable === declaration.variable)) group.push(declaration);
  }
  const units = new Map<Slot, TextUnit>();
  const slots = [...groups.entries()].map(([key, group], index): Slot => {
    const [winner, ...others] = group as [Declaration, ...Declaration[]];
    const agreeing = others.filter(({ variable, unit }) => {
      const attribute = clash(winner.variable, variable);
      if (attribute === undefined) return true;
      findings.push(
        error(
          { code: 'type-clash', why: 'texts', key, attribute, one: winner.unit.name, other: unit.name },
          unit.place({ variable: key, attribute }),
        ),
      );
      return false;
    });
    const all = [winner, ...agreeing];
    const slot: Slot = {
      index,
      key,
      variable: winner.variable,
      declarations: all.map(({ variable, unit }) => ({
        variable,
        locale: unit.locale,
        type: valueType(variable.type),
      })),
      asGiven: asGivenByAll(all.map(({ variable }) => variable)),
      label: winner.variable.label ?? labelFromKey(key),
      locale: winner.unit.locale,
      text: winner.unit.name,
      inputs: [],
      columns: [],
    };
    units.set(slot, winner.unit);
    return slot;
  });
  return { slots, units };
}

/** What all declarations take as it stands. */
export function asGivenByAll(variables: readonly Variable[]): Slot['asGiven'] {
  if (variables.some(({ value }) => value !== undefined)) return undefined;
  const takes = variables.map((variable) => valueType(variable.type).asGiven?.(variable));
  const [first, ...others] = takes;
  if (!first || !others.every((take) => take !== undefined)) return undefined;
  return others.length === 0
    ? first
    : (input) => (others.every((take) => take(input) !== undefined) ? first(input) : undefined);
}

/** Gives computed slots and computed columns their expressions, bound to what they read. */
export function bindExpressions(
  slots: readonly Slot[],
  units: ReadonlyMap<Slot, TextUnit>,
  resolve: (key: string) => Read | undefined,
  findings: Finding[],
): void {
  for (const slot of slots) {
    const unit = units.get(slot);
    if (unit) bindSlot(slot, unit, resolve);
  }
  breakLoops(slots, units, findings);
}

/** Binds one slot's expression, or those of its columns. */
export function bindSlot(slot: Slot, unit: TextUnit, resolve: (key: string) => Read | undefined): void {
  const reads = (keys: readonly string[]): Read[] => keys.flatMap((key) => resolve(key) ?? []);
  const writable = slot as { -readonly [key in keyof Slot]: Slot[key] };
  const expression = unit.expression(slot.variable);
  if (expression) {
    writable.expression = expression;
    writable.inputs = reads(expression.references);
    return;
  }
  const own = new Set((slot.variable.columns ?? []).map((column) => column.key));
  writable.columns = orderColumns(
    (slot.variable.columns ?? []).flatMap((column) => {
      const compiled = unit.columnExpression(slot.variable, column);
      return compiled
        ? [
            {
              variable: column,
              expression: compiled,
              inputs: reads(compiled.references.filter((key) => !own.has(key))),
            },
          ]
        : [];
    }),
  );
  writable.inputs = writable.columns.flatMap((column) => column.inputs);
}

/** Columns that read other computed columns come after them; those in a loop keep their order and stay undecided. */
function orderColumns(columns: Slot['columns']): Slot['columns'] {
  const ordered: Slot['columns'][number][] = [];
  const left = [...columns];
  while (left.length > 0) {
    const next = left.findIndex(
      (column) =>
        !column.expression.references.some((key) =>
          left.some((other) => other !== column && other.variable.key === key),
        ),
    );
    ordered.push(...left.splice(Math.max(0, next), 1));
  }
  return ordered;
}

function breakLoops(slots: readonly Slot[], units: ReadonlyMap<Slot, TextUnit>, findings: Finding[]): void {
  const done = new Set<Slot>();
  const visit = (slot: Slot, path: readonly Slot[]): void => {
    if (done.has(slot)) return;
    const at = path.indexOf(slot);
    if (at >= 0) {
      const chain = [...path.slice(at), slot].map((each) => each.key);
      const place = units.get(slot)?.place({ variable: slot.key, attribute: 'value' }) ?? {};
      findings.push(error({ code: 'value-loop', why: 'values', chain }, place));
      (slot as { expression?: unknown }).expression = undefined;
      (slot as { inputs: readonly Read[] }).inputs = [];
      return;
    }
    for (const input of slot.inputs) if (input.from === 'slot') visit(input.slot, [...path, slot]);
    done.add(slot);
  };
  for (const slot of slots) visit(slot, []);
}

/** Checks what each declaration says of itself, its default included. */
export function checkDeclaration(variable: Variable, unit: TextUnit, context: ValueContext, findings: Finding[]): void {
  const type = valueType(variable.type);
  for (const problem of type.declared(variable, context)) {
    findings.push(
      error(
        { code: problem.code ?? 'bad-value', why: 'declaration', key: variable.key, says: problem.message },
        unit.place({ variable: variable.key, attribute: problem.attribute }),
      ),
    );
  }
  if (variable.default !== undefined && variable.default !== '') {
    const parsed = type.parse(variable.default, variable, context);
    // Limits relative to today may come to fit a default later; everything else never will.
    if ('problem' in parsed)
      findings.push(
        error(
          { code: 'bad-value', why: 'default', key: variable.key, says: parsed.problem },
          unit.place({ variable: variable.key, attribute: 'default' }),
        ),
      );
  }
  if (variable.value !== undefined && (variable.from !== undefined || variable.default !== undefined)) {
    findings.push(
      error(
        { code: 'bad-value', why: 'computed-and-prefilled', key: variable.key },
        unit.place({ variable: variable.key, attribute: 'value' }),
      ),
    );
  }
  if (
    variable.from !== undefined &&
    !/^(?:(?:recipient|sender)\.[a-z][a-z0-9_]*|last|clipboard)$/.test(variable.from)
  ) {
    findings.push(
      error(
        { code: 'bad-value', why: 'from-elsewhere', key: variable.key },
        unit.place({ variable: variable.key, attribute: 'from' }),
      ),
    );
  }
  const unknown = variable.remember && type.isPersonal;
  if (unknown)
    findings.push(
      error(
        { code: 'bad-value', why: 'not-remembered', type: variable.type },
        unit.place({ variable: variable.key, attribute: 'remember' }),
      ),
    );
}
