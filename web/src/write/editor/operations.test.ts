// @vitest-environment happy-dom
import { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import { normalise, type TextDocument, type Variable } from '@vocabula/core';
import { readText, writeText } from '@vocabula/core/markdown';
import {
  changeVariable,
  convertMarkers,
  findMarkerGroups,
  findWords,
  makeVariable,
  newVariable,
  optionsFrom,
  removeVariable,
  unwrap,
  variablesOf,
  wrap,
} from './operations';
import { extensions } from './schema';

let editor: Editor | undefined;
afterEach(() => editor?.destroy());

/** An editor on a file's body, and subject if one is given. */
function open(body: string, variables = '', subject = 'S'): Editor {
  const declared = variables === '' ? '' : `variables:\n${variables.replace(/^/gm, '  ')}\n`;
  const source = `---\nvocabula: 1\nkind: message\ntitle: T\nsubject: ${JSON.stringify(subject)}\n${declared}---\n${body}\n`;
  editor = new Editor({
    element: document.createElement('div'),
    extensions,
    content: readText(source).document as never,
  });
  // There is no layout here to scroll in.
  editor.setOptions({ editorProps: { handleScrollToSelection: () => true } });
  return editor;
}
const written = (of: Editor): string => writeText(normalise(of.getJSON() as unknown as TextDocument));
const body = (of: Editor): string => (written(of).split('---\n')[2] ?? '').trimEnd();
const subject = (of: Editor): string => /^subject: "(.*)"$/m.exec(written(of))?.[1] ?? '';
function select(of: Editor, words: string): { from: number; to: number } {
  const [place] = findWords(of.state.doc, words);
  if (!place) throw new Error(words);
  of.commands.setTextSelection(place);
  return place;
}
const X = 'x: { type: yes-no }';
const condition = { of: 'x', is: [], not: false, run: 0 };

describe('words', () => {
  it('are found everywhere, whatever their case and spacing, and only as whole words', () => {
    const { state } = open('Ann Lee and **ann  lee**.\n\n- ANN LEE\n\nAnn Leeson', '', 'For Ann Lee');
    expect(findWords(state.doc, ' Ann Lee ')).toHaveLength(4);
    expect(findWords(state.doc, '')).toEqual([]);
  });

  it('become a variable in all their places at once, marks and subject included, in one step of undo', () => {
    const of = open('Dear **Ann**, Ann.', '', 'For Ann');
    makeVariable(
      of,
      newVariable(of.state.doc, 'First name', 'text', { required: true }),
      findWords(of.state.doc, 'Ann'),
    );
    expect(body(of)).toBe('Dear **{{first_name}}**, {{first_name}}.');
    expect(subject(of)).toBe('For {{first_name}}');
    of.commands.undo();
    expect([body(of), subject(of), variablesOf(of.state.doc)]).toEqual(['Dear **Ann**, Ann.', 'For Ann', []]);
  });
});

describe('markers', () => {
  it('of all hands are found, guessed and turned into variables in one step', () => {
    const of = open(
      'Dear [First name], come on <<date>> with [amount] and \\_\\_\\_\\_ to YOUR GATE. [First name], [he/she] waits.',
      '',
      'For [First name]',
    );
    const groups = findMarkerGroups(of.state.doc);
    expect(groups.map(({ label, type, places }) => [label, type, places.length])).toEqual([
      ['First name', 'text', 3],
      ['Date', 'date', 1],
      ['Amount', 'money', 1],
      [expect.any(String), 'text', 1],
      ['Your gate', 'text', 1],
      [expect.any(String), 'choice', 1],
    ]);
    expect(convertMarkers(of, groups)).toBe(8);
    expect(subject(of)).toBe('For {{first_name}}');
    expect(body(of)).toMatch(
      /^Dear \{\{first_name\}\}, come on \{\{date\}\} with \{\{amount\}\} and \{\{\w+\}\} to \{\{your_gate\}\}\./,
    );
    expect(findMarkerGroups(of.state.doc)).toEqual([]);
    of.commands.undo();
    expect(findMarkerGroups(of.state.doc)).toHaveLength(6);
  });

  it('join a variable of the same label and type', () => {
    const of = open('[Party] of {{party}}', 'party: { type: number, label: Party }');
    convertMarkers(of, findMarkerGroups(of.state.doc));
    expect([body(of), variablesOf(of.state.doc)]).toEqual(['{{party}} of {{party}}', [expect.anything()]]);
  });

  it('in code are words', () => {
    expect(findMarkerGroups(open('```\n[Name]\n```').state.doc)).toEqual([]);
  });
});

describe('passages', () => {
  it('go around words of a line, or around whole paragraphs', () => {
    const of = open('come and see us', X);
    select(of, 'and see');
    wrap(of, condition);
    expect(body(of)).toBe('come {{#x}}and see{{/x}} us');
    const whole = open('one\n\ntwo', X);
    select(whole, 'two');
    wrap(whole, condition);
    expect(body(whole)).toBe('one\n\n{{#x}}\ntwo\n{{/x}}');
  });

  it('around several paragraphs take them all, even when parts of them are selected', () => {
    const of = open('one\n\ntwo words\n\nthree', X);
    const from = select(of, 'one').from + 1;
    of.commands.setTextSelection({ from, to: select(of, 'two').to });
    wrap(of, condition);
    expect(body(of)).toBe('{{#x}}\none\n\ntwo words\n{{/x}}\n\nthree');
  });

  it('bring their alternatives with them', () => {
    const of = open('north', 'gate: { type: choice, options: { a: {}, b: {} } }');
    select(of, 'north');
    wrap(of, { ...condition, of: 'gate', is: ['a'] }, [], [{ ...condition, of: 'gate', is: ['b'] }]);
    expect(body(of)).toBe('{{#gate.a}}\nnorth\n{{/gate.a}}\n\n{{#gate.b}}\n<p></p>\n{{/gate.b}}');
  });

  it('lose their bracket and keep their words', () => {
    const of = open('a\n\n{{#x}}\nb\n\nc\n{{/x}}', X);
    let at = -1;
    of.state.doc.descendants((node, pos) => {
      if (node.type.name === 'passage') at = pos;
    });
    unwrap(of, at);
    expect(body(of)).toBe('a\n\nb\n\nc');
  });

  it('are left by Enter in an empty last paragraph, and split by Enter elsewhere', () => {
    const of = open('{{#x}}\none two\n{{/x}}', X);
    of.commands.setTextSelection(select(of, 'two').from);
    const enter = () =>
      of.view.someProp('handleKeyDown', (handle) => handle(of.view, new KeyboardEvent('keydown', { key: 'Enter' })));
    enter();
    expect(body(of)).toBe('{{#x}}\none&#32;\n\ntwo\n{{/x}}');
    of.commands.setTextSelection(select(of, 'two').to);
    enter();
    enter();
    of.commands.insertContent('behind');
    expect(body(of)).toBe('{{#x}}\none&#32;\n\ntwo\n{{/x}}\n\nbehind');
  });
});

describe('variables', () => {
  it('get keys of their own', () => {
    const { state } = open('a', 'visit_date: { type: date }');
    expect(newVariable(state.doc, 'Visit date', 'date').key).toBe('visit_date_2');
    expect(newVariable(state.doc, 'list', 'text').key).not.toBe('list');
    expect(newVariable(state.doc, 'Fee', 'money').currency).toBe('EUR');
  });

  it('are changed where they are declared', () => {
    const of = open('{{x}}', X);
    changeVariable(of, 'x', (variable): Variable => ({ ...variable, label: 'Rain' }));
    expect(variablesOf(of.state.doc)).toEqual([{ key: 'x', type: 'yes-no', label: 'Rain' }]);
  });

  it('taken out leave their names as words, and take their brackets with them', () => {
    const of = open(
      '**{{x}}** and {{#x}}more{{/x}}\n\n{{#x}}\nkept {{x}}\n{{/x}}',
      'x: { type: yes-no, label: Rain }',
      '{{x}}',
    );
    removeVariable(of, variablesOf(of.state.doc)[0] as Variable);
    expect([body(of), subject(of), variablesOf(of.state.doc)]).toEqual(['**Rain** and more\n\nkept Rain', 'Rain', []]);
    of.commands.undo();
    expect(body(of)).toContain('{{#x}}');
  });

  it('get options from lines: a label, and after a colon its wording', () => {
    const options = optionsFrom(['North: the gate of {{tree}}', '', ' River ', 'River']);
    expect(options.map(({ key, label }) => [key, label])).toEqual([
      ['north', 'North'],
      ['river', 'River'],
      ['river_2', 'River'],
    ]);
    expect(options[0]?.wording).toEqual([
      { type: 'text', text: 'the gate of ' },
      { type: 'placeholder', attrs: { name: 'tree', view: '' } },
    ]);
  });
});
