// @vitest-environment happy-dom
/** Write on the demo, but for what is typed into the manuscript itself: starting, the tray, details, finding. */
import type { WorkingCopy } from '@vocabula/contract';
import type { TextDocument, Variable } from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';
import { afterEach, describe, expect, it } from 'vitest';
import { takeIn, useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen, within } from '../ui/testing/page';
import { eventually, frameSays, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
const maeve = demo.as('maeve');
let page: DemoPage;
let person: ReturnType<typeof stepsOf>;
afterEach(() => page.close());
async function open(path: string): Promise<void> {
  page = await demo.open(path);
  person = stepsOf(page.user);
}
/** A template with a variable of every common kind, an optional passage and a block. */
const source = (title: string): string => `---
vocabula: 1
kind: message
title: ${title}
subject: "Your visit, {{name}}"
to: "{{recipient.email}}"
variables:
  name: { type: text, label: Name, required: true }
  party: { type: number, label: Party }
  gate:
    type: choice
    label: Gate
    options:
      north: { label: North }
      river: { label: River }
  lunch: { type: yes-no, label: Lunch }
---
Dear {{name}},

we expect {{party}} of you at the {{gate}} gate. {{#lunch}}Lunch is at noon.{{/lunch}}

{{> opening-hours}}
`;
/** Opens a text of one's own in Write; all of its desk is there. */
async function write(name: string, content = source(name)): Promise<void> {
  await takeIn(maeve, { [name]: content });
  await open(`/write/${name}`);
  await screen.findByRole('textbox', { name: 'Manuscript' });
  await screen.findByRole('tab', { name: /^Variables/ });
  await frameSays('Proof', 'Dear');
}
const stored = async (name: string): Promise<TextDocument> =>
  (await maeve.call<WorkingCopy>('GET', `/texts/${name}`)).document;
const variable = async (name: string, key: string): Promise<Variable | undefined> =>
  (await stored(name)).attrs.variables.find((each) => each.key === key);
/** Opens a variable in the tray. */
async function openVariable(label: string): Promise<void> {
  await person.open(/^Variables/);
  await person.press(new RegExp(`^${label} .*place`));
}
const manuscript = (): string => document.querySelector('.ProseMirror')?.textContent ?? '';

describe('starting a text', () => {
  const at = (): unknown => page.router.currentRoute.value.params.name;
  it('takes a title, and opens it in Write', async () => {
    await open('/write');
    await person.write(/^Title/, 'A letter begun{Enter}');
    await eventually(() => expect(at()).toBe('a-letter-begun'));
    expect((await stored('a-letter-begun')).attrs.front.kind).toBe('message');
  });
  it('makes a block, in the folder that is chosen', async () => {
    await open('/write');
    await person.tick('Block');
    await person.pick('In the folder', 'Visits');
    await person.write(/^Title/, 'A block begun{Enter}');
    await eventually(() => expect(at()).toBe('a-block-begun'));
    expect((await stored('a-block-begun')).attrs.front.kind).toBe('block');
  });
  it('takes a paste, with what is marked in it', async () => {
    await open('/write');
    await person.tick('A paste');
    await person.write(/^Title/, 'Pasted');
    const box = await screen.findByLabelText(/^Paste/);
    await page.user.click(box);
    await page.user.paste('Dear [name],\n\nyour visit is on [date].');
    await person.press('Start');
    await eventually(() => expect(at()).toBe('pasted'));
    await eventually(() => expect(manuscript()).toContain('your visit is on'));
  });
  it('copies another text', async () => {
    await open('/write');
    await person.tick('A copy');
    await person.write(/^Title/, 'A copy of it');
    await person.write('Find the text to copy', 'thank');
    await page.user.click(
      (await screen.findAllByRole('option', { name: /Thank you for the visit/ }))[0] as HTMLElement,
    );
    await person.press('Start');
    await eventually(() => expect(at()).not.toBe(''));
    await eventually(() => expect(manuscript()).toContain('It was good to have you'));
  });
  it('says what is wrong with a title that is none', async () => {
    await open('/write');
    const button = await screen.findByRole('button', { name: 'Start' });
    await person.write(/^Title/, '   ');
    if (!(button as HTMLButtonElement).disabled) await page.user.click(button);
    expect(page.router.currentRoute.value.fullPath).toBe('/write');
  });
});

describe('a variable in the tray', () => {
  it('is renamed: its label, and where it is written', async () => {
    await write('relabelled');
    await openVariable('Party');
    await person.write('Label', 'Number of guests');
    await page.user.tab();
    await eventually(async () => expect((await variable('relabelled', 'party'))?.label).toBe('Number of guests'));
    await eventually(() => expect(manuscript()).toContain('Number of guests'));
  });
  it('gets another key, which all of its places follow', async () => {
    await write('rekeyed');
    await openVariable('Party');
    await person.write('Key, in files and expressions', 'guests');
    await page.user.tab();
    await eventually(async () => expect(writeText(await stored('rekeyed'))).toContain('{{guests}}'));
    expect(writeText(await stored('rekeyed'))).not.toContain('{{party}}');
  });
  it('is required, has a default and a help text', async () => {
    await write('limits');
    await openVariable('Party');
    await person.tick('required');
    await person.write('Default', '12');
    await person.write('Help text', 'Children count');
    await page.user.tab();
    await eventually(async () =>
      expect(await variable('limits', 'party')).toMatchObject({ required: true, help: 'Children count' }),
    );
    expect(String((await variable('limits', 'party'))?.default)).toBe('12');
  });
  it('says what is wrong with a default that its type does not take', async () => {
    await write('wrong-default');
    await openVariable('Party');
    await person.write('Default', 'many');
    await page.user.tab();
    await eventually(() => expect(document.querySelector('.details .error')?.textContent).toMatch(/number/));
  });
  it('asks before another type loses something', async () => {
    await write('retyped');
    await openVariable('Gate');
    await person.pick('Type', 'text');
    await says(/As a text it would lose/);
    expect((await variable('retyped', 'gate'))?.type).toBe('choice');
    await person.press('Change it');
    await eventually(async () => expect((await variable('retyped', 'gate'))?.type).toBe('text'));
  });
  it('is filled from a field of the recipient', async () => {
    await write('sourced');
    await openVariable('Name');
    await person.pick('Filled from', 'First name');
    await eventually(async () => expect((await variable('sourced', 'name'))?.from).toBe('recipient.first_name'));
    await frameSays('Proof', 'Dear Siobhán');
  });
  it('has options that are added, moved by key and removed', async () => {
    await write('options');
    await openVariable('Gate');
    await person.press('Add an option');
    await person.write('Label of option 3', 'Garden');
    await page.user.tab();
    const keys = async (): Promise<unknown> => (await variable('options', 'gate'))?.options?.map(({ label }) => label);
    await eventually(async () => expect(await keys()).toEqual(['North', 'River', 'Garden']));
    screen.getByRole('button', { name: /^Garden, option 3/ }).focus();
    await person.keys('{ArrowUp}');
    await eventually(async () => expect(await keys()).toEqual(['North', 'Garden', 'River']));
    await person.press('Remove North');
    await eventually(async () => expect(await keys()).toEqual(['Garden', 'River']));
  });
  it('is worked out by a formula', async () => {
    await write('formula');
    await openVariable('Lunch');
    await person.tick(/^calculated by a formula/);
    await eventually(async () => expect((await variable('formula', 'lunch'))?.value).toBe(''));
  });
  it('is removed, with what stays in its places', async () => {
    await write('removed');
    await openVariable('Gate');
    await person.press('Remove');
    await person.press('Remove it');
    await eventually(async () => expect(await variable('removed', 'gate')).toBeUndefined());
    expect(writeText(await stored('removed'))).toContain('Gate gate');
  });
  it('is made one with another of its kind', async () => {
    await write(
      'merged',
      source('merged').replace('party: { type: number', 'host: { type: text, label: Host }\n  party: { type: number'),
    );
    await openVariable('Host');
    await person.press('Merge');
    await person.pick('becomes one with', 'Name');
    await person.press('Merge them');
    await eventually(async () => expect(await variable('merged', 'host')).toBeUndefined());
  });
  it('is found by a few letters, and put in order by name', async () => {
    await write('found');
    await person.open(/^Variables/);
    await person.write('Find a variable', 'lun');
    await eventually(() => expect(screen.queryByRole('button', { name: /^Party .*place/ })).toBeNull());
    await person.write('Find a variable', '');
    await person.pick('Order', 'by name');
    const names = [...document.querySelectorAll('.variables .name')].map(({ textContent }) => textContent);
    expect(names.slice(0, 4)).toEqual(['Gate', 'Lunch', 'Name', 'Party']);
  });
  it('is made in the tray where there is none', async () => {
    await write(
      'made',
      '---\nvocabula: 1\nkind: message\ntitle: made\nsubject: Hi\nto: "{{recipient.email}}"\n---\nDear all,\n',
    );
    await person.open(/^Variables/);
    await person.press('make one here');
    await eventually(async () => expect(writeText(await stored('made'))).toContain('variables:'));
  });
});

describe('passages in the tray', () => {
  it('stand in the outline, with what governs them and whether they are kept', async () => {
    await write('outlined');
    await person.open('Outline');
    const tree = await screen.findByRole('tree', { name: 'Outline of the passages' });
    const [first] = within(tree).getAllByRole('treeitem');
    expect(first?.getAttribute('aria-label')).toMatch(/Lunch.*: Lunch is at noon/);
  });
  it('are chosen in the outline, and are turned round in the tray', async () => {
    await write('turned');
    await person.open('Outline');
    const [first] = within(await screen.findByRole('tree')).getAllByRole('treeitem');
    await page.user.click(first as HTMLElement);
    await person.open('Chosen');
    await says('Lunch');
    await person.tick('Show when not met');
    await eventually(async () => expect(writeText(await stored('turned'))).toMatch(/\{\{\^lunch\}\}/));
  });
  it('are governed by another variable', async () => {
    await write('governed');
    await person.open('Outline');
    const [first] = within(await screen.findByRole('tree')).getAllByRole('treeitem');
    await page.user.click(first as HTMLElement);
    await person.open('Chosen');
    await person.pick('Governed by', 'Gate');
    await eventually(async () => expect(writeText(await stored('governed'))).toContain('gate'));
    await page.user.click(within(await screen.findByRole('group', { name: 'Kept with' })).getByLabelText('River'));
    await eventually(async () => expect(writeText(await stored('governed'))).toMatch(/river/));
  });
});

describe('the details of a text', () => {
  it('are kept: call word, how it is sent, who answers for it, until when it is offered', async () => {
    await write('detailed');
    await page.user.click(await screen.findByText('Details'));
    await person.write('Call word', 'DETAIL');
    await page.user.tab();
    await person.pick('Sent as', 'reply');
    await person.write('Owner', 'maeve@larkmoor.example');
    await page.user.tab();
    await eventually(async () =>
      expect((await stored('detailed')).attrs.front).toMatchObject({
        ...{ call: 'detail', purpose: 'reply', owner: 'maeve@larkmoor.example' },
      }),
    );
  });
  it('follow the title, which is kept when it is left', async () => {
    await write('titled');
    await person.write('Title', 'Another title{Enter}');
    await page.user.tab();
    await eventually(async () => expect((await stored('titled')).attrs.front.title).toBe('Another title'));
  });
});

describe('findings', () => {
  it('are listed as one writes, and repaired by a press', async () => {
    await write('repaired', source('repaired').replace('we expect', 'this is a easy day: we expect'));
    await person.open(/^Findings/);
    await person.press('Write “an”');
    await eventually(async () => expect(writeText(await stored('repaired'))).toContain('this is an easy day'));
  });
});

describe('finding words', () => {
  it('shows how often they stand there, and replaces them', async () => {
    await write('replaced');
    await person.open('Find');
    await person.write('Find', 'noon');
    await says(/1 of 1|1 place/);
    await person.write('Replace with', 'one o’clock');
    await person.press(/^Replace all|^All/);
    await eventually(async () => expect(writeText(await stored('replaced'))).toContain('Lunch is at one o’clock'));
  });
});

describe('remarks', () => {
  it('are listed with what they hang on, answered and settled', async () => {
    const quote = { exact: 'at noon', prefix: '', suffix: '' };
    await takeIn(maeve, { remarked: source('remarked') });
    await demo.as('petra').call('POST', '/versions/remarked/remarks', { quote, body: 'In winter, too?' });
    await open('/write/remarked');
    await person.open(/^Remarks/);
    await says('In winter, too?');
    await person.press('Answer');
    await person.write('Answer', 'All year.{Enter}');
    await says('All year.');
    await person.press('Settle');
    await eventually(() => expect(screen.getByRole('button', { name: 'Open again' })).toBeTruthy());
  });
});

describe('the proof beside the manuscript', () => {
  it('goes from recipient to recipient by key', async () => {
    await write('stepped', source('stepped').replace('label: Name,', 'label: Name, from: recipient.first_name,'));
    await frameSays('Proof', 'Dear Siobhán');
    await person.keys('{F9}');
    await frameSays('Proof', 'Dear Tomás');
  });
  it('shows the message as plain text', async () => {
    await write('plain');
    await person.press('plain');
    await eventually(() => expect(document.querySelector('aside pre')?.textContent).toContain('Dear'));
  });
});
