// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { openDesk } from '../testing/desk';
import VariablesTray from './VariablesTray.vue';

const SOURCE = `---
vocabula: 1
kind: message
title: Visit
subject: "{{fee}}"
variables:
  name: { type: text, label: Name, from: recipient.first_name }
  fee: { type: money, label: Fee, currency: EUR, default: 12 }
  adult: { type: text, label: Adult }
---
Dear {{adult}} {{name}}, {{fee}}.
`;
afterEach(() => {
  document.body.replaceChildren();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

/** The details of the open variable, which are loaded with the first one. */
const labelOf = ({ wrapper }: Awaited<ReturnType<typeof openDesk>>) =>
  vi.waitFor(() => wrapper.get('form.details input'), { timeout: 40_000 });
const open = async () => {
  const opened = await openDesk(SOURCE, VariablesTray);
  const rows = () => opened.wrapper.findAll('li > button.row');
  return { ...opened, rows };
};

describe('the Variables tray', () => {
  it('shows each variable with value, source and places, in reading order or by name', async () => {
    const { wrapper, rows } = await open();
    const names = () => rows().map((row) => row.find('.name').text());
    expect(names()).toEqual(['Fee', 'Adult', 'Name']);
    expect(rows()[0]?.text()).toMatch(/€12\.00.*2 places$/s);
    expect(rows()[2]?.text()).toContain('1 place');
    wrapper.getComponent({ name: 'PickOne' }).vm.$emit('update:modelValue', 'name');
    await wrapper.vm.$nextTick();
    expect(names()).toEqual(['Adult', 'Fee', 'Name']);
    await wrapper.get('input[aria-label="Find a variable"]').setValue('ad');
    expect(names()).toEqual(['Adult']);
  });

  it('renames a label and changes a type, each undone by one step', async () => {
    const opened = await open();
    const { wrapper, rows, settled, written, desk } = opened;
    const before = written();
    await rows()[1]?.trigger('click');
    await (await labelOf(opened)).setValue('Grown-up');
    await settled();
    expect(written()).toContain('label: Grown-up');
    desk.undo();
    await settled();
    expect(written()).toBe(before);
    wrapper.getComponent('form.details').getComponent({ name: 'PickOne' }).vm.$emit('update:modelValue', 'date');
    await settled();
    expect(written()).toContain('adult: { type: date, label: Adult }');
    desk.undo();
    await settled();
    expect(written()).toBe(before);
  });

  it('makes a variable whose key follows its first label', async () => {
    const opened = await open();
    const { wrapper, settled, written, desk } = opened;
    const before = written();
    await wrapper
      .findAll('button')
      .find((each) => each.text() === 'New variable')
      ?.trigger('click');
    await settled();
    await (await labelOf(opened)).setValue('Meeting place');
    await settled();
    expect(written()).toContain('meeting_place: { type: text, label: Meeting place');
    desk.undo();
    desk.undo();
    await settled();
    expect(written()).toBe(before);
  });
});
