// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import type { Variable } from '@vocabula/core';
import { open } from '../../testing/open';
import { changeVariable, newVariable, optionsFrom, variablesOf } from './variables';

const X = 'x: { type: yes-no }';

describe('variables', () => {
  it('get keys of their own', () => {
    const { state } = open('a', 'visit_date: { type: date }');
    expect(newVariable(state.doc, 'Visit date', 'date').key).toBe('visit_date_2');
    expect(newVariable(state.doc, 'list', 'text').key).not.toBe('list');
    expect(newVariable(state.doc, 'Fee', 'money').currency).toBe('EUR');
  });

  it('are changed where they are declared', () => {
    const of = open('{{x}}', X);
    changeVariable(of, 'x', (variable): Variable => ({ ...variable, label: 'Rain' }));
    expect(variablesOf(of.state.doc)).toEqual([{ key: 'x', type: 'yes-no', label: 'Rain' }]);
  });

  it('changed as one types are undone together, and apart from other changes', () => {
    const of = open('{{x}}', X);
    const label = (text: string) => changeVariable(of, 'x', (old): Variable => ({ ...old, label: text }), 'label x');
    const labelNow = () => variablesOf(of.state.doc)[0]?.label;
    changeVariable(of, 'x', (old): Variable => ({ ...old, help: 'why' }));
    label('R');
    label('Ra');
    label('Rain');
    of.commands.undo();
    expect([labelNow(), variablesOf(of.state.doc)[0]?.help]).toEqual([undefined, 'why']);
    of.commands.redo();
    expect(labelNow()).toBe('Rain');
  });

  it('get options from lines: a label, and after a colon its wording', () => {
    const options = optionsFrom(['North: the gate of {{tree}}', '', ' River ', 'River']);
    expect(options.map(({ key, label }) => [key, label])).toEqual([
      ['north', 'North'],
      ['river', 'River'],
      ['river_2', 'River'],
    ]);
    expect(options[0]?.wording).toEqual([
      { type: 'text', text: 'the gate of ' },
      { type: 'placeholder', attrs: { name: 'tree', view: '' } },
    ]);
  });
});
