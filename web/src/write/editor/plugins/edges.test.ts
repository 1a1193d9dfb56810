// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import type { Editor } from '@tiptap/core';
import { bodyOf, caretAt, open, press, type } from '../../testing/open';
import { phrasesAtCaret, placesAt } from './edges';

const X = 'x: { type: yes-no }\ny: { type: yes-no }';
const inside = (of: Editor): string[] => phrasesAtCaret(of.state).map((mark) => String(mark.attrs.of));

describe('the edge of a phrase', () => {
  it('has a place on each side, and an arrow goes from one to the other without passing a letter', () => {
    const of = open('a {{#x}}b{{/x}} c', X);
    caretAt(of, 'b');
    expect(inside(of)).toEqual([]);
    const { from } = of.state.selection;
    expect(press(of, 'ArrowLeft')).toBe(true);
    expect([inside(of), of.state.selection.from]).toEqual([['x'], from]);
    type(of, 'in');
    expect(bodyOf(of)).toBe('a {{#x}}bin{{/x}} c');
    // Typing there goes on inside; one press leaves.
    expect(inside(of)).toEqual(['x']);
    expect(press(of, 'ArrowRight')).toBe(true);
    type(of, 'out');
    expect(bodyOf(of)).toBe('a {{#x}}bin{{/x}}out c');
  });
  it('of two that end together is left one by one', () => {
    const of = open('{{#x}}a {{#y}}b{{/y}}{{/x}} c', X);
    caretAt(of, 'b');
    expect(placesAt(of.state.selection.$from)).toHaveLength(3);
    press(of, 'ArrowLeft');
    expect(inside(of)).toEqual(['x']);
    press(of, 'ArrowLeft');
    expect(inside(of)).toEqual(['x', 'y']);
    // From the innermost place the caret passes the letter, and is on the inner side of the next edge.
    const { pos } = of.state.selection.$from;
    press(of, 'ArrowLeft');
    expect(of.state.selection.$from.pos).toBe(pos - 1);
    expect(inside(of)).toEqual(['x', 'y']);
  });
  it('between two neighbours has a place in neither', () => {
    const of = open('{{#x}}a{{/x}}{{#y}}, b{{/y}}', X);
    caretAt(of, 'a');
    expect(placesAt(of.state.selection.$from).map((place) => place.map((mark) => mark.attrs.of))).toEqual([
      ['x'],
      [],
      ['y'],
    ]);
    type(of, '-');
    expect(bodyOf(of)).toBe('{{#x}}a{{/x}}-{{#y}}, b{{/y}}');
  });
  it('at the beginning of a line can be typed before', () => {
    const of = open('{{#x}}a{{/x}}', X);
    caretAt(of, 'a', 'before');
    type(of, 'b');
    expect(bodyOf(of)).toBe('b{{#x}}a{{/x}}');
    const other = open('{{#x}}a{{/x}}', X);
    caretAt(other, 'a', 'before');
    press(other, 'ArrowRight');
    type(other, 'cd');
    expect(bodyOf(other)).toBe('{{#x}}cda{{/x}}');
  });
  it('where the caret comes to over a letter leaves it on the side it came from', () => {
    const of = open('a {{#x}}bc{{/x}} d', X);
    caretAt(of, 'bc');
    const { pos } = of.state.selection.$from;
    of.commands.setTextSelection(pos - 1);
    press(of, 'ArrowRight');
    expect([of.state.selection.$from.pos, inside(of)]).toEqual([pos, ['x']]);
    of.commands.setTextSelection(pos + 1);
    press(of, 'ArrowLeft');
    expect([of.state.selection.$from.pos, inside(of)]).toEqual([pos, []]);
  });
  it('where the browser moves the caret, in text that runs both ways, leaves it on that side too', () => {
    const of = open('a {{#x}}בג{{/x}} d', X);
    caretAt(of, 'בג');
    const { pos } = of.state.selection.$from;
    of.commands.setTextSelection(pos - 1);
    expect(press(of, 'ArrowRight')).toBe(false);
    of.commands.setTextSelection(pos);
    expect(inside(of)).toEqual(['x']);
  });
});
