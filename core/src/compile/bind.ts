/** What names and conditions mean at a place. */
import { error, type Finding, type FindingData } from '../findings/finding.js';
import type { Condition } from '../template/condition.js';
import type { Variable } from '../template/variable.js';
import type { FactValues } from '../house/facts.js';
import type { House } from '../house/house.js';
import type { Read, Slot, Test } from './program.js';
import { column, declarationOf } from './scope.js';
import type { Site } from './site.js';
import { valueType } from '../values/index.js';
import { conditionInWords } from './wording.js';

/** Binds names to slots, columns, fields and facts. */
export class Binder {
  private readonly byKey: ReadonlyMap<string, Slot>;

  constructor(
    slots: readonly Slot[],
    private readonly house: House,
    private readonly facts: ReadonlyMap<string, FactValues>,
    private readonly findings: Finding[],
  ) {
    this.byKey = new Map(slots.map((slot) => [slot.key, slot]));
  }

  /** The message-wide value of that key. */
  slotRead(key: string): Read | undefined {
    const slot = this.byKey.get(key);
    return slot && { from: 'slot', key, slot };
  }

  /** What a name means at a site; undefined if nothing. A text sees only what it declares, and columns. */
  read(name: string, site: Site): Read | undefined {
    const [source, field] = name.split('.');
    if (field !== undefined && (source === 'recipient' || source === 'sender')) return { from: source, key: field };
    if (field !== undefined && source === 'house') {
      const fact = Object.hasOwn(this.house.facts, field) ? this.house.facts[field] : undefined;
      return fact && { from: 'fact', key: field, variable: fact.variable, values: this.facts.get(field) ?? [] };
    }
    return column(site.scope, name) ?? (site.unit.variables.has(name) ? this.slotRead(name) : undefined);
  }

  /** Binds a condition; undefined and a finding if it is none. */
  test(condition: Condition, site: Site, path: readonly number[]): Test | undefined {
    const read = this.read(condition.of, site);
    const at = site.unit.place({ path });
    if (!read) {
      this.findings.push(error({ code: 'unknown-variable', why: 'variable', name: condition.of }, at));
      return undefined;
    }
    const variable = declarationOf(read);
    const kind = variable && valueType(variable.type).governs;
    const problem = whyNoCondition(condition, variable, kind);
    if (problem !== undefined || kind === undefined) {
      if (problem) this.findings.push(error(problem, at));
      return undefined;
    }
    return {
      condition,
      read,
      kind,
      label: conditionInWords(condition, variable),
      depth: site.scope ? site.scope.depth + 1 : 0,
      rowSlots: [],
    };
  }
}

/** Why a variable cannot govern anything in that way; undefined if it can. */
function whyNoCondition(
  { of, is }: Condition,
  variable: Variable | undefined,
  kind: Test['kind'] | undefined,
): FindingData<'not-a-condition'> | undefined {
  const code = 'not-a-condition';
  if (kind === undefined) return { code, why: 'type', of };
  if (kind !== 'option') return is.length > 0 ? { code, why: 'no-options', of } : undefined;
  if (is.length === 0) return { code, why: 'option-missing', of, example: variable?.options?.[0]?.key ?? 'option' };
  const unknown = is.find((key) => !variable?.options?.some((option) => option.key === key));
  return unknown === undefined ? undefined : { code, why: 'unknown-option', of, option: unknown };
}
