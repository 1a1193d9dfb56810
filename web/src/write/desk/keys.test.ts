// @vitest-environment happy-dom
import { NodeSelection } from '@tiptap/pm/state';
import { afterEach, describe, expect, it, vi } from 'vitest';
import VariablesTray from '../tray/VariablesTray.vue';
import type { Desk } from './useDesk';
import { openDesk } from '../testing/desk';

afterEach(() => {
  document.body.replaceChildren();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const open = (variables = '') =>
  openDesk(
    `---
vocabula: 1
kind: message
title: A visit
subject: Your visit
${variables}---
Dear you.
`,
    VariablesTray,
  );
const pressed = (key: string): void => void window.dispatchEvent(new KeyboardEvent('keydown', { key }));

/** The place before the first word of the message. */
function beginning({ manuscript }: Desk): number {
  let at = -1;
  manuscript.editor.state.doc.descendants((node, pos) => {
    if (node.text === 'Dear you.') at = pos;
  });
  return at;
}

describe('keys that go by the proof, pressed in the moment after a change', () => {
  it('F2 selects the blank that has just been put in', async () => {
    const { desk, settled } = await open('variables:\n  guest: { type: text, label: Guest, required: true }\n');
    const { editor } = desk.manuscript;
    editor.commands.insertContentAt(beginning(desk), { type: 'placeholder', attrs: { name: 'guest', view: '' } });
    pressed('F2');
    await settled();
    const { selection } = editor.state;
    expect(selection instanceof NodeSelection && selection.node.attrs.name).toBe('guest');
  });
  it('F8 goes to a finding that the change has brought', async () => {
    const { desk, settled } = await open();
    const at = beginning(desk);
    desk.manuscript.editor.commands.insertContentAt(at, 'Dear ');
    pressed('F8');
    await settled();
    const { doc, selection } = desk.manuscript.editor.state;
    expect(doc.textBetween(selection.from, selection.to)).toMatch(/^(Dear )?Dear$/);
  });
});
