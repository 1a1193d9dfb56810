// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { bodyOf, open, subjectOf } from '../../testing/open';
import { convertMarkers, findMarkerGroups } from './markers';
import { variablesOf } from './variables';

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
    expect(subjectOf(of)).toBe('For {{first_name}}');
    expect(bodyOf(of)).toMatch(
      /^Dear \{\{first_name\}\}, come on \{\{date\}\} with \{\{amount\}\} and \{\{\w+\}\} to \{\{your_gate\}\}\./,
    );
    expect(findMarkerGroups(of.state.doc)).toEqual([]);
    of.commands.undo();
    expect(findMarkerGroups(of.state.doc)).toHaveLength(6);
  });

  it('join a variable of the same label and type', () => {
    const of = open('[Party] of {{party}}', 'party: { type: number, label: Party }');
    convertMarkers(of, findMarkerGroups(of.state.doc));
    expect([bodyOf(of), variablesOf(of.state.doc)]).toEqual(['{{party}} of {{party}}', [expect.anything()]]);
  });

  it('around words that are there sometimes become passages, with what stands in them', () => {
    const of = open(
      'Dear all, [if vegetarian: we have soup for [number],] come soon.\n\n[If a group: Wait at the gate.]\n\nDogs stay outside. (delete if not needed)\n\n[If not a group: Walk in.]',
    );
    const groups = findMarkerGroups(of.state.doc);
    expect(groups.map(({ label, becomes, places }) => [label, becomes, places.length])).toEqual([
      ['Vegetarian', 'optional', 1],
      ['Number', 'value', 1],
      ['A group', 'optional', 2],
      ['Dogs stay outside', 'optional', 1],
    ]);
    expect(convertMarkers(of, groups)).toBe(5);
    expect(bodyOf(of)).toBe(
      'Dear all, {{#vegetarian}}we have soup for {{number}},{{/vegetarian}} come soon.\n\n{{#a_group}}\nWait at the gate.\n{{/a_group}}\n\n{{#dogs_stay_outside}}\nDogs stay outside.\n{{/dogs_stay_outside}}\n\n{{^a_group}}\nWalk in.\n{{/a_group}}',
    );
    expect(findMarkerGroups(of.state.doc)).toEqual([]);
    of.commands.undo();
    expect(findMarkerGroups(of.state.doc)).toHaveLength(4);
  });

  it('of alternatives become a choice whose options keep one of them each', () => {
    const of = open('Option A: Take the bus to the gate.\n\nOption B: Walk.\n\nOption 1: tea. Option 2: milk.');
    const groups = findMarkerGroups(of.state.doc);
    expect(groups.map(({ options }) => options)).toEqual([
      ['Take the bus to', 'Walk'],
      ['tea', 'milk'],
    ]);
    convertMarkers(of, groups);
    expect(bodyOf(of)).toBe(
      '{{#take_the_bus_to_or_walk.take_the_bus_to}}\nTake the bus to the gate.\n{{/take_the_bus_to_or_walk.take_the_bus_to}}\n\n{{#take_the_bus_to_or_walk.walk}}\nWalk.\n{{/take_the_bus_to_or_walk.walk}}\n\n{{#tea_or_milk.tea}}tea.{{/tea_or_milk.tea}} {{#tea_or_milk.milk}}milk.{{/tea_or_milk.milk}}',
    );
  });

  it('are choices between asterisks, also where these were read as emphasis', () => {
    const of = open('We serve *choose: tea / coffee* and **delete as appropriate: milk / sugar**, *or: this / that*.');
    convertMarkers(of, findMarkerGroups(of.state.doc));
    expect(bodyOf(of)).toBe('We serve {{tea_or_coffee}} and {{milk_or_sugar}}, *or: this / that*.');
  });

  it('are what is highlighted: equal words together, days apart, the colour taken off', () => {
    const of = open(
      'Dear <mark data-colour="ochre">**Ann** Lee</mark>, come on <mark data-colour="ochre">4 June 2027</mark> or <mark data-colour="ochre">9 June 2027</mark>, <mark data-colour="ochre">Ann Lee</mark>, with <mark data-colour="ochre">€ 12</mark> for <mark data-colour="ochre">[Guide] </mark>, <mark data-colour="ochre">12 tickets</mark> and <mark data-colour="ochre">number of people</mark>.',
    );
    const groups = findMarkerGroups(of.state.doc);
    expect(groups.map(({ label, type, places }) => [label, type, places.length])).toEqual([
      ['Guide', 'text', 1],
      ['Ann Lee', 'text', 2],
      ['Date', 'date', 1],
      ['Date 2', 'date', 1],
      ['Amount', 'money', 1],
      ['Tickets', 'number', 1],
      ['Number of people', 'number', 1],
    ]);
    convertMarkers(of, groups);
    expect(bodyOf(of)).toBe(
      'Dear **{{ann_lee}}**, come on {{date}} or {{date_2}}, {{ann_lee}}, with {{amount}} for {{guide}} , {{tickets}} tickets and {{number_of_people}}.',
    );
    expect(findMarkerGroups(of.state.doc)).toEqual([]);
    of.commands.undo();
    expect(findMarkerGroups(of.state.doc)).toHaveLength(7);
  });
  it('are days in the text’s language, and no numbers of months', () => {
    const of = open('<mark data-colour="ochre">4 June</mark>, <mark data-colour="ochre">3 rooms</mark>');
    expect(findMarkerGroups(of.state.doc).map(({ type, label, text }) => [type, label, text])).toEqual([
      ['date', 'Date', '4 June'],
      ['number', 'Rooms', '3'],
    ]);
  });
  it.each([
    'Dear Ann, <mark data-colour="ochre">please bring boots that you can walk in all day</mark>, <mark data-colour="ochre">Ann</mark>.',
    'Dear <mark data-colour="ochre">{{name}}</mark>, <mark data-colour="ochre">soon</mark>.',
  ])('are not what is highlighted in a colour that is part of the look: %s', (body) => {
    expect(findMarkerGroups(open(body, 'name: { type: text }').state.doc)).toEqual([]);
  });

  it('that mean a field are filled from it', () => {
    const of = open('Dear [First name],');
    const [group] = findMarkerGroups(of.state.doc);
    if (!group) throw new Error('no marker');
    convertMarkers(of, [{ ...group, from: 'recipient.first_name' }]);
    expect(variablesOf(of.state.doc)).toMatchObject([{ key: 'first_name', from: 'recipient.first_name' }]);
  });

  it('in code are words', () => {
    expect(findMarkerGroups(open('```\n[Name]\n```').state.doc)).toEqual([]);
  });
});
