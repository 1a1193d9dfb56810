// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { bodyOf, open, press, select } from '../../testing/open';
import { crossed, targetOf, upToEdge, wrap } from './wrap';

const X = 'x: { type: yes-no }';
const condition = { of: 'x', is: [], not: false, run: 0 };

describe('passages', () => {
  it('go around words of a line, or around whole paragraphs', () => {
    const of = open('come and see us', X);
    select(of, 'and see');
    wrap(of, condition);
    expect(bodyOf(of)).toBe('come {{#x}}and see{{/x}} us');
    const whole = open('one\n\ntwo', X);
    select(whole, 'two');
    wrap(whole, condition);
    expect(bodyOf(whole)).toBe('one\n\n{{#x}}\ntwo\n{{/x}}');
  });

  it('around several paragraphs take them all, even when parts of them are selected', () => {
    const of = open('one\n\ntwo words\n\nthree', X);
    const from = select(of, 'one').from + 1;
    of.commands.setTextSelection({ from, to: select(of, 'two').to });
    wrap(of, condition);
    expect(bodyOf(of)).toBe('{{#x}}\none\n\ntwo words\n{{/x}}\n\nthree');
  });

  it('bring their alternatives with them', () => {
    const of = open('north', 'gate: { type: choice, options: { a: {}, b: {} } }');
    select(of, 'north');
    wrap(of, { ...condition, of: 'gate', is: ['a'] }, [], [{ ...condition, of: 'gate', is: ['b'] }]);
    expect(bodyOf(of)).toBe('{{#gate.a}}\nnorth\n{{/gate.a}}\n\n{{#gate.b}}\n<p></p>\n{{/gate.b}}');
  });

  it('are left by Enter in an empty last paragraph, and split by Enter elsewhere', () => {
    const of = open('{{#x}}\none two\n{{/x}}', X);
    of.commands.setTextSelection(select(of, 'two').from);
    const enter = () => press(of, 'Enter');
    enter();
    expect(bodyOf(of)).toBe('{{#x}}\none&#32;\n\ntwo\n{{/x}}');
    of.commands.setTextSelection(select(of, 'two').to);
    enter();
    enter();
    of.commands.insertContent('behind');
    expect(bodyOf(of)).toBe('{{#x}}\none&#32;\n\ntwo\n{{/x}}\n\nbehind');
  });
});

describe('items and rows', () => {
  const LIST = 'l: { type: list, columns: { a: { type: text } } }';
  it('carry their conditions themselves', () => {
    const of = open('- one\n- two\n- three', X);
    of.commands.setTextSelection({ from: select(of, 'two').from, to: select(of, 'three').to });
    wrap(of, condition);
    expect(bodyOf(of)).toBe('- one\n{{#x}}\n- two\n- three\n{{/x}}');
  });
  it('are put under a second condition outside what only some of them carry', () => {
    const of = open('- one\n{{#x}}\n- two\n{{/x}}\n- three', `${X}\ny: { type: yes-no }`);
    of.commands.setTextSelection({ from: select(of, 'one').from, to: select(of, 'two').to });
    wrap(of, { ...condition, of: 'y' });
    expect(bodyOf(of)).toBe('{{#y}}\n- one\n{{#x}}\n- two\n{{/x}}\n{{/y}}\n- three');
  });
  it('of a table repeat below its head, which carries none', () => {
    const of = open('| A | B |\n| - | - |\n| one | two |', LIST);
    of.commands.setTextSelection({ from: select(of, 'A').from, to: select(of, 'one').to });
    wrap(of, { ...condition, of: 'l' });
    expect(bodyOf(of)).toBe('| A | B |\n| --- | --- |\n{{#l}}\n| one | two |\n{{/l}}');
  });
  it('repeat as a whole where words of a line are selected, for a list does not repeat inside a line', () => {
    const of = open('- one two\n- three', LIST);
    select(of, 'two');
    wrap(of, { ...condition, of: 'l' });
    expect(bodyOf(of)).toBe('{{#l}}\n- one two\n{{/l}}\n- three');
    const row = open('| A | B |\n| - | - |\n| one | two |', LIST);
    select(row, 'one');
    wrap(row, { ...condition, of: 'l' });
    expect(bodyOf(row)).toContain('{{#l}}\n| one | two |\n{{/l}}');
  });
});

describe('a selection over the edge of a passage', () => {
  const of = () => open('before\n\n{{#x}}\nfirst\n\nsecond\n{{/x}}\n\nbehind', `${X}\ny: { type: yes-no }`);
  it('is told, and reaches up to the edge or takes the passage in', () => {
    const editor = of();
    const [from, to] = [select(editor, 'second').from, select(editor, 'behind').to];
    expect(crossed(editor.state.doc, { from, to })).toHaveLength(1);
    const inside = upToEdge(editor.state.doc, from, to);
    expect(editor.state.doc.textBetween(inside.from, inside.to, '|')).toBe('second');
    const outside = upToEdge(editor.state.doc, to, from);
    expect(editor.state.doc.textBetween(outside.from, outside.to, '|')).toBe('behind');
    wrap(editor, { ...condition, of: 'y' }, [], [], inside);
    expect(bodyOf(editor)).toBe('before\n\n{{#x}}\nfirst\n\n{{#y}}\nsecond\n{{/y}}\n{{/x}}\n\nbehind');
    const whole = of();
    const range = { from: select(whole, 'second').from, to: select(whole, 'behind').to };
    wrap(whole, { ...condition, of: 'y' }, [], [], range);
    expect(bodyOf(whole)).toBe('before\n\n{{#y}}\n{{#x}}\nfirst\n\nsecond\n{{/x}}\n\nbehind\n{{/y}}');
  });
  it('inside one passage crosses none', () => {
    const editor = of();
    const range = { from: select(editor, 'first').from, to: select(editor, 'second').to };
    expect(crossed(editor.state.doc, range)).toEqual([]);
    expect(targetOf(editor.state.doc, range)?.form).toBe('passage');
  });
});
