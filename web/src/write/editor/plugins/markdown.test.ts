// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { bodyOf, caretAt, open, press, type } from '../../testing/open';

describe('typed Markdown', () => {
  it.each([
    ['See [the map](https://larkmoor.example/map)', 'See [the map](https://larkmoor.example/map) now'],
    ['Write to [us](mailto:gate@larkmoor.example)', 'Write to [us](mailto:gate@larkmoor.example) now'],
    ['A [trap](javascript:alert(1))', 'A \\[trap\\](javascript:alert(1)) now'],
    ['![The gate](assets/gate.png)', '![The gate](assets/gate.png) now'],
  ])('%s', (typed, written) => {
    const editor = open('');
    editor.commands.setTextSelection(editor.state.doc.content.size - 2);
    type(editor, typed);
    type(editor, ' now');
    expect(bodyOf(editor)).toBe(written);
  });

  it('makes a link of the words only, and what is typed behind it stays outside', () => {
    const editor = open('');
    editor.commands.setTextSelection(editor.state.doc.content.size - 2);
    type(editor, 'a [b](https://c.example)d');
    expect(bodyOf(editor)).toBe('a [b](https://c.example)d');
  });

  it('is a table where a line of cells ends', () => {
    const editor = open('');
    editor.commands.setTextSelection(editor.state.doc.content.size - 2);
    type(editor, '| Item | Price |');
    expect(press(editor, 'Enter')).toBe(true);
    type(editor, 'Tea');
    expect(bodyOf(editor)).toBe('| Item | Price |\n| --- | --- |\n| Tea |  |');
  });

  it('leaves other lines alone', () => {
    const editor = open('Either | or');
    caretAt(editor, 'or');
    press(editor, 'Enter');
    expect(editor.state.doc.lastChild?.childCount).toBe(2);
  });
});

describe('addresses', () => {
  it('a comma behind a whole one begins the next', () => {
    const editor = open('Text.');
    let to = 0;
    editor.state.doc.descendants((node, pos) => {
      if (node.type.name === 'address' && to === 0) to = pos + 1;
    });
    editor.commands.setTextSelection(to);
    type(editor, 'Lee, Ann <ann@larkmoor.example>, bo@larkmoor.example');
    const names = editor.state.doc.child(1).content.content.map((each) => each.textContent);
    expect(names).toEqual(['Lee, Ann <ann@larkmoor.example>', 'bo@larkmoor.example']);
  });
});
