// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { openDesk } from '../testing/desk';
import OutlineTree from './OutlineTree.vue';
import TheScore from './TheScore.vue';

const SOURCE = `---
vocabula: 1
kind: message
title: Visit
variables:
  rain: { type: yes-no, label: Rain, default: true }
  gate: { type: choice, label: Gate, options: { north: North, river: River } }
  dogs: { type: yes-no, label: Dogs, default: false }
---
{{#rain}}

Bring a coat.

{{#dogs}}

Dogs wait outside.

{{/dogs}}

{{/rain}}

{{#gate.north}}

Come to the north gate.

{{/gate.north}}
`;
afterEach(() => {
  document.body.replaceChildren();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe('the outline', () => {
  const open = async () => {
    const opened = await openDesk(SOURCE, OutlineTree);
    const items = () => opened.wrapper.findAll('[role="treeitem"]');
    const key = async (name: string, more: object = {}) => {
      const focused = items().find((each) => each.element === document.activeElement) ?? items()[0];
      await focused?.trigger('keydown', { key: name, ...more });
      await opened.settled();
    };
    (items()[0]?.element as HTMLElement).focus();
    return { ...opened, items, key };
  };

  it('shows each bracket with its level, its condition and whether it is kept', async () => {
    const { items } = await open();
    expect(items().map((each) => [each.attributes('aria-level'), each.attributes('aria-label')])).toEqual([
      ['1', 'optional, Rain, kept: Bring a coat. Dogs wait outside.'],
      ['2', 'optional, Dogs, left out: Dogs wait outside.'],
      ['1', expect.stringMatching(/^alternative, Gate.* North, left out: Come to the north gate\.$|^alternative/)],
    ]);
  });

  it('is gone through, closed and opened by keys', async () => {
    const { items, key } = await open();
    await key('ArrowDown');
    expect(document.activeElement?.getAttribute('aria-level')).toBe('2');
    await key('ArrowLeft');
    await key('ArrowLeft');
    expect([items().length, items()[0]?.attributes('aria-expanded')]).toEqual([2, 'false']);
    await key('ArrowRight');
    expect(items()).toHaveLength(3);
  });

  it('stays closed while something is written before it', async () => {
    const { desk, items, key, settled } = await open();
    await key('ArrowLeft');
    desk.manuscript.editor.commands.insertContentAt(desk.manuscript.editor.state.doc.content.size - 1, 'x');
    await settled();
    expect(items()[0]?.attributes('aria-expanded')).toBe('false');
  });

  it('takes a bracket off and says that deleting keys do not', async () => {
    const { key, written, items } = await open();
    await key('Delete');
    expect(written()).toContain('{{#rain}}');
    await key('ArrowDown');
    await key('u');
    expect(items()).toHaveLength(2);
    expect(written()).not.toContain('{{#dogs}}');
    expect(written()).toContain('Dogs wait outside.');
  });
});

describe('the score', () => {
  it('draws a labelled bracket for each passage, with ends to drag, and chooses its passage', async () => {
    // There is no layout here: every block is given a line of its own.
    vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue(new DOMRect(0, 0, 100, 40));
    const chosen = vi.fn();
    const { wrapper, desk, settled } = await openDesk(SOURCE, TheScore, (given) => ({
      desk: given,
      sheet: document.createElement('div'),
      onChoose: chosen,
    }));
    await new Promise((done) => setTimeout(done, 50));
    await settled();
    const labels = wrapper.findAll('button.label');
    expect(labels.map((each) => each.attributes('aria-label'))).toEqual([
      'optional: Rain',
      'optional: Dogs',
      expect.stringMatching(/^alternative: .*North/),
    ]);
    expect(wrapper.findAll('rect.end')).toHaveLength(6);
    await labels[1]?.trigger('click');
    await settled();
    expect(chosen).toHaveBeenCalledOnce();
    expect(desk.manuscript.chosen.value?.condition?.of).toBe('dogs');
  });
});
