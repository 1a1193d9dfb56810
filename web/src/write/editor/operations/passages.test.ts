// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { bodyOf, bracket, caretAt, open } from '../../testing/open';
import { addAlternative } from './alternatives';
import { moveEnd } from './ends';
import { join, moveIn, moveOut, split } from './passages';
import { takeOut, unwrap } from './regovern';
import { variablesOf } from './variables';

const X = 'x: { type: yes-no }\ny: { type: yes-no }';
const TWO = 'a\n\n{{#x}}\nb\n\nc\n{{/x}}\n\nd';

describe('the bracket', () => {
  it('comes off and leaves the words', () => {
    const of = open(TWO, X);
    unwrap(of, bracket(of, 'x'));
    expect(bodyOf(of)).toBe('a\n\nb\n\nc\n\nd');
    of.commands.undo();
    expect(bodyOf(of)).toBe(TWO);
    const phrase = open('a {{#x}}b {{#y}}c{{/y}}{{/x}} d', X);
    unwrap(phrase, bracket(phrase, 'x'));
    expect(bodyOf(phrase)).toBe('a b {{#y}}c{{/y}} d');
    const items = open('- a\n{{#x}}\n- b\n- c\n{{/x}}', X);
    unwrap(items, bracket(items, 'x'));
    expect(bodyOf(items)).toBe('- a\n- b\n- c');
  });
  it('goes with its words where that is asked for, and leaves something to write in', () => {
    const of = open('{{#x}}\nb\n{{/x}}', X);
    takeOut(of, bracket(of, 'x'));
    expect(of.state.doc.lastChild?.childCount).toBe(1);
    expect(bodyOf(of)).not.toContain('{{');
    const items = open('{{#x}}\n- b\n{{/x}}\n\nbehind', X);
    takeOut(items, bracket(items, 'x'));
    expect(bodyOf(items)).toBe('behind');
    const phrase = open('a {{#x}}b{{/x}} c', X);
    takeOut(phrase, bracket(phrase, 'x'));
    expect(bodyOf(phrase)).toBe('a  c');
  });
});

describe('the ends', () => {
  it('of a passage move by blocks, and stop where there is nothing more', () => {
    const of = open(TWO, X);
    expect(moveEnd(of, bracket(of, 'x'), 'end', 1)).toBe(true);
    expect(bodyOf(of)).toBe('a\n\n{{#x}}\nb\n\nc\n\nd\n{{/x}}');
    expect(moveEnd(of, bracket(of, 'x'), 'end', 1)).toBe(false);
    moveEnd(of, bracket(of, 'x'), 'end', -2);
    expect(bodyOf(of)).toBe('a\n\n{{#x}}\nb\n{{/x}}\n\nc\n\nd');
    expect(moveEnd(of, bracket(of, 'x'), 'end', -1)).toBe(false);
    moveEnd(of, bracket(of, 'x'), 'start', 1);
    expect(bodyOf(of)).toBe('{{#x}}\na\n\nb\n{{/x}}\n\nc\n\nd');
    moveEnd(of, bracket(of, 'x'), 'start', -5);
    expect(bodyOf(of)).toBe('a\n\n{{#x}}\nb\n{{/x}}\n\nc\n\nd');
  });
  it('of items move by items, never over another bracket outside', () => {
    const of = open('- a\n{{#x}}\n- b\n{{/x}}\n- c', X);
    moveEnd(of, bracket(of, 'x'), 'end', 3);
    expect(bodyOf(of)).toBe('- a\n{{#x}}\n- b\n- c\n{{/x}}');
    moveEnd(of, bracket(of, 'x'), 'start', -1);
    expect(bodyOf(of)).toBe('- a\n- b\n{{#x}}\n- c\n{{/x}}');
    const nested = open('{{#y}}\n{{#x}}\n- a\n{{/x}}\n- b\n{{/y}}\n- c', X);
    moveEnd(nested, bracket(nested, 'x'), 'end', 2);
    expect(bodyOf(nested)).toBe('{{#y}}\n{{#x}}\n- a\n- b\n{{/x}}\n{{/y}}\n- c');
  });
  it('of a phrase move by words', () => {
    const of = open('one {{#x}}two{{/x}} three, four', X);
    moveEnd(of, bracket(of, 'x'), 'end', 1);
    expect(bodyOf(of)).toBe('one {{#x}}two three,{{/x}} four');
    moveEnd(of, bracket(of, 'x'), 'start', 1);
    expect(bodyOf(of)).toBe('{{#x}}one two three,{{/x}} four');
    moveEnd(of, bracket(of, 'x'), 'end', -2);
    expect(bodyOf(of)).toBe('{{#x}}one{{/x}} two three, four');
    expect(moveEnd(of, bracket(of, 'x'), 'end', -1)).toBe(false);
  });
});

describe('brackets', () => {
  it('are split between blocks, or in the middle of one', () => {
    const of = open(TWO, X);
    caretAt(of, 'c', 'before');
    expect(split(of, bracket(of, 'x'), of.state.selection.from)).toBe(true);
    expect(bodyOf(of)).toBe('a\n\n{{#x}}\nb\n{{/x}}\n\n{{#x}}\nc\n{{/x}}\n\nd');
    const middle = open('{{#x}}\none two\n{{/x}}', X);
    caretAt(middle, 'two', 'before');
    split(middle, bracket(middle, 'x'), middle.state.selection.from);
    expect(bodyOf(middle)).toBe('{{#x}}\none&#32;\n{{/x}}\n\n{{#x}}\ntwo\n{{/x}}');
    caretAt(middle, 'one', 'before');
    expect(split(middle, bracket(middle, 'x'), middle.state.selection.from)).toBe(false);
  });
  it('of repeats are split and told apart', () => {
    const list = 'l: { type: list, columns: { a: { type: text } } }';
    const of = open('{{#l}}\n- a\n- b\n{{/l}}', list);
    expect(split(of, bracket(of, 'l'), bracket(of, 'l').to - 2)).toBe(true);
    expect(bodyOf(of)).toBe('{{#l}}\n- a\n{{/l}}\n{{#l}}\n- b\n{{/l}}');
    const ticks = open('{{#x}}\n- a\n- b\n{{/x}}', X);
    expect(split(ticks, bracket(ticks, 'x'), bracket(ticks, 'x').to - 2)).toBe(false);
  });
  it('join with the next of their form', () => {
    const of = open('{{#x}}\na\n{{/x}}\n\n{{#y}}\nb\n{{/y}}', X);
    expect(join(of, bracket(of, 'x'), bracket(of, 'y'))).toBe(true);
    expect(bodyOf(of)).toBe('{{#x}}\na\n\nb\n{{/x}}');
    const phrase = open('a {{#x}}b{{/x}} c {{#y}}d{{/y}} e', X);
    join(phrase, bracket(phrase, 'x'), bracket(phrase, 'y'));
    expect(bodyOf(phrase)).toBe('a {{#x}}b c d{{/x}} e');
    const items = open('{{#x}}\n- a\n{{/x}}\n{{#y}}\n- b\n{{/y}}', X);
    join(items, bracket(items, 'x'), bracket(items, 'y'));
    expect(bodyOf(items)).toBe('{{#x}}\n- a\n- b\n{{/x}}');
    const apart = open('{{#x}}\na\n{{/x}}\n\nm\n\n{{#y}}\nb\n{{/y}}', X);
    expect(join(apart, bracket(apart, 'x'), bracket(apart, 'y'))).toBe(false);
  });
  it('move out of what is around them and into their neighbours', () => {
    const of = open('{{#x}}\na\n\n{{#y}}\nb\n{{/y}}\n\nc\n{{/x}}', X);
    expect(moveOut(of, bracket(of, 'y'))).toBe(true);
    expect(bodyOf(of)).toBe('{{#x}}\na\n{{/x}}\n\n{{#y}}\nb\n{{/y}}\n\n{{#x}}\nc\n{{/x}}');
    expect(moveIn(of, bracket(of, 'y'))).toBe(true);
    expect(bodyOf(of)).toBe('{{#x}}\na\n\n{{#y}}\nb\n{{/y}}\n{{/x}}\n\n{{#x}}\nc\n{{/x}}');
    expect(moveOut(of, bracket(of, 'x'))).toBe(false);
  });
});

describe('one more alternative', () => {
  const GATE = 'gate: { type: choice, options: { a: { label: A }, b: { label: B } } }';
  it('takes an option that has none yet, then makes one, behind all that stand together', () => {
    const of = open('{{#gate.a}}\nnorth\n{{/gate.a}}\n\nbehind', GATE);
    expect(addAlternative(of, bracket(of, 'gate.a'))).toEqual({ of: 'gate', option: 'b' });
    of.commands.insertContent('south');
    expect(addAlternative(of, bracket(of, 'gate.a'))).toEqual({ of: 'gate', option: 'alternative_3' });
    of.commands.insertContent('east');
    expect(bodyOf(of)).toBe(
      '{{#gate.a}}\nnorth\n{{/gate.a}}\n\n{{#gate.b}}\nsouth\n{{/gate.b}}\n\n{{#gate.alternative_3}}\neast\n{{/gate.alternative_3}}\n\nbehind',
    );
    expect(variablesOf(of.state.doc)[0]?.options).toHaveLength(3);
  });
  it('inside a line stands behind the phrase, ready to be typed in', () => {
    const of = open('by the {{#gate.a}}north{{/gate.a}} gate', GATE);
    addAlternative(of, bracket(of, 'gate.a'));
    of.view.dispatch(of.state.tr.insertText('east'));
    expect(bodyOf(of)).toBe(
      'by the {{#gate.a}}north{{/gate.a}}{{#gate.alternative_3}}east{{/gate.alternative_3}} gate',
    );
  });
  it('is none where there is no alternative', () => {
    const of = open('{{#x}}\na\n{{/x}}', X);
    expect(addAlternative(of, bracket(of, 'x'))).toBeUndefined();
  });
});
