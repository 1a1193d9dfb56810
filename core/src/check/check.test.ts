import { describe, expect, it } from 'vitest';
import { readHouse } from '../formats/house/index.js';
import { documentOf, type Source } from '../testing/build.js';
import { check } from './index.js';

const codes = (text: Source): string[] =>
  check({ name: 'main', document: documentOf(text) }, { library: { get: () => undefined } }).map(
    (finding) => finding.code,
  );
const plain = (body: string, variables?: string): string[] =>
  codes({ body, front: 'kind: message\nsubject: S\nlocale: en-IE', ...(variables ? { variables } : {}) });

describe('planted faults are found and near misses left alone', () => {
  it.each([
    ['Dear [NAME], hello', 'leftover-marker', 'Dear friend [1], the NATO desk'],
    ['It is the the gate', 'doubled-word', 'He had had tea'],
    ['a  b', 'doubled-space', 'a b'],
    ['Please find attached the plan.', 'attachment-missing', 'The geese are attached to the pond.'],
    ['The plan is attached to this e-mail.', 'attachment-missing', 'The boat is attached to this quay.'],
    ['On Sunday 14 June 2027 we open.', 'weekday-mismatch', 'On Monday 14 June 2027 we open.'],
    ['![](assets/map.png)', 'missing-alt', '![Map](assets/map.png)'],
  ])('%s', (fault, code, nearMiss) => {
    expect(plain(fault)).toContain(code);
    expect(plain(nearMiss)).not.toContain(code);
  });

  it('passages that can never or always be kept, and variables nobody reads', () => {
    expect(plain('{{#x}}a{{^x}}b{{/x}}{{/x}}', 'x: { type: yes-no }')).toContain('never-kept');
    expect(plain('{{#x}}\n{{#x}}\na\n{{/x}}\n{{/x}}', 'x: { type: yes-no }')).toContain('always-kept');
    expect(plain('a', 'x: { type: text }')).toEqual(['unused-variable']);
    expect(plain('{{x}}', 'x: { type: text }')).toEqual([]);
  });
});

describe('a column that is written through its list', () => {
  const LIST =
    'items: { type: list, columns: { what: { type: text }, price: { type: number } } }\nwhat: { type: text }';
  const found = (body: string) =>
    check(
      { name: 'main', document: documentOf({ body, front: 'kind: message\nsubject: S', variables: LIST }) },
      { library: { get: () => undefined } },
    ).filter(({ code }) => code === 'joined-in-repeat');
  it('joins all rows in the repeat of that list; the repair writes the column of the row', () => {
    const [one, ...others] = found('{{#items}}\n- {{items.what}}\n{{/items}}\n\n{{what}}');
    expect(others).toEqual([]);
    expect(one?.repair).toMatchObject({ label: 'Write {{what}}', attrs: { name: 'what', view: '' } });
  });
  it('is meant outside of it, and where its rows are left out', () => {
    expect(found('{{items.what}} {{#items}}{{what}}, {{/items}}{{^items}}{{items.what}}{{/items}}{{what}}')).toEqual(
      [],
    );
  });
});

describe('the house', () => {
  const { house } = readHouse(`vocabula: 1
facts:
  fee: { type: money, label: Entry fee, currency: EUR, value: "4.50" }
  desk: { type: phone, label: Desk, value: "+353209100123" }
  garden: { type: text, label: Name of the garden, value: Larkmoor Botanic Garden }
  word: { type: text, value: open }
`);
  const found = (body: string) =>
    check(
      { name: 'main', document: documentOf({ body, front: 'kind: message\nsubject: S\nlocale: en-IE' }) },
      { library: { get: () => undefined }, house },
    );

  it.each([
    ['Entry is €4.50 each.', 'fact-as-text', 'Entry is €4.505 each, or €14.50.'],
    ['Ring +353 20 910 0123.', 'fact-as-text', 'Ring +353 20 910 01234.'],
    ['Welcome to Larkmoor Botanic Garden', 'fact-as-text', 'The garden is open to Larkmoor Botanic Gardeners'],
    ['<span data-colour="sea">a</span>', 'off-style', '<span data-colour="moss">a</span>'],
    ['<mark data-colour="sea">a</mark>', 'off-style', '<mark data-colour="moss">a</mark>'],
    ['<div data-panel="sea">\na\n</div>', 'off-style', '<div data-panel>\na\n</div>'],
  ])('%s is %s', (fault, code, nearMiss) => {
    expect(found(fault).map((finding) => finding.code)).toEqual([code]);
    expect(found(nearMiss).map((finding) => finding.code)).toEqual([]);
  });

  it('has repairs: the fact as a placeholder in the view that says it, a colour that is there', () => {
    expect(found('Entry is 4.50 or €4.50.').map(({ repair }) => repair)).toMatchObject([
      { how: 'replace', offset: 17, length: 5, insert: [{ attrs: { name: 'house.fee', view: '' } }] },
    ]);
    expect(
      found('<span data-colour="moss_green">a</span> <mark data-colour="sea">b</mark>').map(({ repair }) => repair),
    ).toMatchObject([
      { how: 'recolour', mark: 'colour', name: 'moss' },
      { how: 'recolour', mark: 'highlight', name: undefined },
    ]);
  });
});

describe('an address of the envelope', () => {
  const found = (front: string): unknown[] =>
    check(
      { name: 'main', document: documentOf({ body: 'a', front: `kind: message\nsubject: S\n${front}` }) },
      { library: { get: () => undefined } },
    ).flatMap((each) => (each.code === 'bad-address' ? [[each.address, each.place.attribute, each.level]] : []));
  it('that is written out and is none is an error of the text', () => {
    expect(found('to: [nobody, ann@x.example]\ncc: ["Bo <bo>", "Una <una@x.example>"]')).toEqual([
      ['nobody', 'to', 'error'],
      ['Bo <bo>', 'cc', 'error'],
    ]);
  });
  it('that a value has a part in is told of the message', () => {
    expect(found('to: "{{recipient.email}}"\ncc: "{{recipient.name}} <desk@x.example>"')).toEqual([]);
  });
});
