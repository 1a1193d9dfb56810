// @vitest-environment happy-dom
/** A whole letter that is pasted: its head goes to the envelope. */
import type { Editor } from '@tiptap/core';
import { writeText } from '@vocabula/core/markdown';
import { normalise, type TextDocument } from '@vocabula/core';
import { describe, expect, it, vi } from 'vitest';
import { bodyOf, open, subjectOf } from '../../testing/open';

async function paste(editor: Editor, text: string, html = ''): Promise<void> {
  const event = new Event('paste', { bubbles: true, cancelable: true });
  const data: Readonly<Record<string, string>> = { 'text/plain': text, 'text/html': html };
  Object.assign(event, { clipboardData: { getData: (type: string) => data[type] ?? '', files: [] } });
  const before = editor.state.doc;
  editor.commands.setTextSelection(before.content.size - 1);
  editor.view.dom.dispatchEvent(event);
  // What reads it is loaded with the first paste.
  await vi.waitFor(() => expect(editor.state.doc.eq(before)).toBe(false), { timeout: 10_000 });
}
const lineOf = (editor: Editor, name: string): string =>
  new RegExp(`^${name}: (.*)$`, 'm').exec(writeText(normalise(editor.getJSON() as unknown as TextDocument)))?.[1] ?? '';

describe('a letter pasted with its head', () => {
  const LETTER = 'To: [email address]\nSubject: Your visit on [date]\n\nDear [name],\n\ncome soon.';
  it('goes to the lines of the envelope that are empty, and is one step of undo', async () => {
    const editor = open('', '', '');
    await paste(editor, LETTER);
    expect(subjectOf(editor)).toBe('Your visit on [date]');
    expect(lineOf(editor, 'to')).toContain('[email address]');
    expect(bodyOf(editor)).toBe('Dear \\[name\\],\n\ncome soon.');
    editor.commands.undo();
    expect([subjectOf(editor), lineOf(editor, 'to'), bodyOf(editor)]).toEqual(['', '', '']);
  });
  it('comes as HTML too, with its names in bold', async () => {
    const editor = open('', '', '');
    await paste(editor, '', '<p><b>Subject:</b> Hello</p><p>Dear you</p>');
    expect([subjectOf(editor), bodyOf(editor)]).toEqual(['Hello', 'Dear you']);
  });
  it('leaves a subject that is there', async () => {
    const editor = open('', '', 'Mine');
    await paste(editor, LETTER);
    expect(subjectOf(editor)).toBe('Mine');
  });
  it('stays in the body where something was written already', async () => {
    const editor = open('Words', '', '');
    await paste(editor, LETTER);
    expect(subjectOf(editor)).toBe('');
    expect(bodyOf(editor)).toContain('Subject: Your visit');
  });
});
