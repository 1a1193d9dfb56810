/** Names and, when asked for, values that placeholders show. */
import { labelFromKey, type TypeName, type Variable } from '@vocabula/core';

/** Names and, when asked for, values of the current recipient; every view follows them. */
class Labels {
  private variables: readonly Variable[] = [];
  private values: ((name: string, view: string) => string | undefined) | undefined;
  private readonly views = new Set<() => void>();

  set(variables: readonly Variable[], values: ((name: string, view: string) => string | undefined) | undefined): void {
    const same =
      variables.length === this.variables.length && variables.every((each, index) => each === this.variables[index]);
    if (same && values === undefined && this.values === undefined) return;
    this.variables = variables;
    this.values = values;
    for (const update of this.views) update();
  }

  watch(update: () => void): () => void {
    this.views.add(update);
    return () => void this.views.delete(update);
  }

  refresh(): void {
    for (const update of this.views) update();
  }

  of(name: string): { label: string; type: TypeName | 'field' | 'fact'; known: boolean } {
    const [source, field] = name.split('.');
    const fact = source === 'house' ? this.variables.find((each) => each.key === name) : undefined;
    if (fact) return { label: fact.label ?? labelFromKey(field ?? name), type: 'fact', known: true };
    if (field)
      return {
        label:
          `${source === 'recipient' ? 'Recipient’s' : source === 'sender' ? 'My' : ''} ${labelFromKey(field).toLowerCase()}`.trim(),
        type: source === 'house' ? 'fact' : 'field',
        known: source !== 'house',
      };
    const variable =
      this.variables.find((each) => each.key === name) ??
      this.variables.flatMap((each) => each.columns ?? []).find((each) => each.key === name);
    return {
      label: variable?.label ?? labelFromKey(name),
      type: variable?.type ?? 'text',
      known: variable !== undefined,
    };
  }

  value(name: string, view: string): string | undefined {
    return this.values?.(name, view);
  }
}
export const labels = new Labels();
