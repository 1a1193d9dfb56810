// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { bodyOf, caretAt, open, type } from '../../testing/open';

it('typed letters are undone together, an act on the structure by itself', () => {
  const editor = open('Come');
  caretAt(editor, 'Come');
  type(editor, ' here');
  editor.commands.toggleWrap('blockquote');
  expect(bodyOf(editor)).toBe('> Come here');
  editor.commands.undo();
  expect(bodyOf(editor)).toBe('Come here');
  editor.commands.undo();
  expect(bodyOf(editor)).toBe('Come');
});
