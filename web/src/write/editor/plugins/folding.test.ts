// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { bracket, caretAt, open } from '../../testing/open';
import { alternativesAt, foldAll, foldsOf, showAlone, showStacked, toggleFold } from './folding';

const GATE = 'gate: { type: choice, options: { a: {}, b: {}, c: {} } }\nx: { type: yes-no }';
const BODY =
  '{{#gate.a}}\none\n{{/gate.a}}\n\n{{#gate.b}}\ntwo\n{{/gate.b}}\n\n{{#gate.c}}\nthree\n{{/gate.c}}\n\n{{#x}}\nfour\n{{/x}}';

describe('folding', () => {
  it('closes a passage, moves along with it, and opens it for the caret', () => {
    const of = open(BODY, GATE);
    of.view.dispatch(toggleFold(of.state, bracket(of, 'x').from));
    expect([...foldsOf(of.state).folded]).toEqual([bracket(of, 'x').from]);
    caretAt(of, 'one');
    of.commands.insertContent(' more');
    expect([...foldsOf(of.state).folded]).toEqual([bracket(of, 'x').from]);
    expect(of.view.dom.querySelector('.folded')?.getAttribute('data-words')).toBe('four');
    caretAt(of, 'four');
    expect(foldsOf(of.state).folded.size).toBe(0);
    expect(of.can().undo()).toBe(true);
    of.view.dispatch(foldAll(of.state, true));
    expect(foldsOf(of.state).folded.size).toBeGreaterThanOrEqual(3);
    of.view.dispatch(foldAll(of.state, false));
    expect(foldsOf(of.state).folded.size).toBe(0);
  });
  it('shows alternatives one at a time, whichever the caret goes to, and stacked again', () => {
    const of = open(BODY, GATE);
    const at = (option: string) => bracket(of, `gate.${option}`).from;
    expect(alternativesAt(of.state.doc, at('b'))).toEqual([at('a'), at('b'), at('c')]);
    expect(alternativesAt(of.state.doc, bracket(of, 'x').from)).toEqual([]);
    caretAt(of, 'one');
    of.view.dispatch(showAlone(of.state, at('a')));
    expect(foldsOf(of.state).hidden).toEqual(new Set([at('b'), at('c')]));
    caretAt(of, 'three');
    expect(foldsOf(of.state).hidden).toEqual(new Set([at('a'), at('b')]));
    of.view.dispatch(showStacked(of.state, at('c')));
    expect(foldsOf(of.state).hidden.size).toBe(0);
  });
});
