/** What goes over the wire: what each request takes, and what comes close to it and is refused. */
import { PLAIN_HOUSE } from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';
import { describe, expect, it } from 'vitest';
import type * as z from 'zod';
import {
  addRecipientsSchema,
  askAddressSchema,
  auditQuerySchema,
  becauseSchema,
  changeMailedSchema,
  changeOutgoingSchema,
  changesSchema,
  changeTableSchema,
  columnSchema,
  createTextSchema,
  driveMailingSchema,
  EMPTY_PROFILE,
  firstPersonSchema,
  forwardSchema,
  handOverSchema,
  HOUSE_NAME,
  importTableSchema,
  inviteSchema,
  makeFolderSchema,
  makeKeySchema,
  makeTableSchema,
  manySchema,
  nameSchema,
  periodSchema,
  profileSchema,
  publishSchema,
  restoreStateSchema,
  saveFillSchema,
  saveHouseSchema,
  saveTextSchema,
  senderFields,
  sendProofSchema,
  setAsideSchema,
  startFillSchema,
  startTrialSchema,
  subjectSchema,
  textPeriodSchema,
  USUAL_WAYS,
  waysSchema,
} from './index.js';

const takes = (schema: z.ZodType, value: unknown): boolean => schema.safeParse(value).success;
const long = (count: number): string => 'x'.repeat(count);
const DOCUMENT = readText('---\nvocabula: 1\nkind: message\ntitle: Visit\nsubject: Hello\n---\nDear you,\n').document;

/** What is taken, and what comes close. */
interface Table {
  readonly of: string;
  readonly schema: z.ZodType;
  readonly fine: readonly unknown[];
  readonly wrong: readonly unknown[];
}
const TABLES: readonly Table[] = [
  {
    of: 'a name of a text',
    schema: nameSchema,
    fine: ['visit', '2-visits', 'a', long(80)],
    wrong: ['', 'Visit', 'a b', '-visit', 'a_b', 'höhe', long(81), '../visit', 7, null],
  },
  {
    of: 'what has versions',
    schema: subjectSchema,
    fine: ['visit', HOUSE_NAME],
    wrong: ['house.yml', 'House.yaml', ''],
  },
  {
    of: 'a text that is made',
    schema: createTextSchema,
    fine: [
      { kind: 'message', title: 'Visit' },
      { kind: 'block', title: long(200), folder: 'f1' },
      { kind: 'message', title: 'Visit', document: DOCUMENT },
    ],
    wrong: [
      { kind: 'letter', title: 'Visit' },
      { kind: 'message', title: '   ' },
      { kind: 'message', title: long(201) },
      { kind: 'message' },
      { kind: 'message', title: 'Visit', document: { type: 'template' } },
      { kind: 'message', title: 'Visit', document: { ...DOCUMENT, content: [] } },
    ],
  },
  {
    of: 'a text that is saved',
    schema: saveTextSchema,
    fine: [{ document: DOCUMENT, revision: 1 }],
    wrong: [
      { document: DOCUMENT },
      { document: DOCUMENT, revision: 0 },
      { document: DOCUMENT, revision: 1.5 },
      { document: DOCUMENT, revision: '1' },
      { document: 'text', revision: 1 },
    ],
  },
  {
    of: 'what is done with many texts',
    schema: manySchema,
    fine: [
      { act: 'bin', names: ['a'] },
      { act: 'move', names: ['a', 'b'], folder: 'f1' },
      { act: 'tag', names: ['a'], tags: ['spring'], off: true },
      { act: 'order', names: ['b', 'a'], folder: 'f1' },
    ],
    wrong: [
      { act: 'burn', names: ['a'] },
      { act: 'bin', names: [] },
      { act: 'move', names: ['a'] },
      { act: 'tag', names: ['a'], tags: ['two words'] },
      { act: 'tag', names: ['a'], tags: ['a,b'] },
      { act: 'tag', names: ['a'], tags: [] },
      { act: 'bin', names: ['a'], folder: 'f1' },
    ],
  },
  {
    of: 'a message that is begun',
    schema: startFillSchema,
    fine: [
      { text: 'visit' },
      { call: 'visit', to: 'Ann' },
      { text: 'visit', recipient: { email: 'a@x.example' }, answers: { party: 3, rows: [{ item: 'tea' }] } },
    ],
    wrong: [
      {},
      { text: 'visit', call: 'visit' },
      { text: 'Visit' },
      { text: 'visit', recipient: { email: 7 } },
      { text: 'visit', answers: { party: undefined, f: () => 1 } },
      { text: 'visit', recipient: Object.fromEntries(Array.from({ length: 501 }, (_, at) => [`k${at}`, ''])) },
      { text: 'visit', recipient: { [long(81)]: '' } },
    ],
  },
  {
    of: 'a message that is kept',
    schema: saveFillSchema,
    fine: [
      { recipient: {}, answers: {} },
      { recipient: {}, answers: {}, original: null, all: true, confirmed: ['party'] },
      { recipient: {}, answers: {}, offered: { party: { value: 3, source: 'last', from: '3 March' } } },
    ],
    wrong: [
      { recipient: {} },
      { answers: {} },
      { recipient: {}, answers: {}, offered: { party: { value: 3, source: 'oracle', from: '' } } },
      { recipient: {}, answers: {}, confirmed: [7] },
      { recipient: { note: long(100_001) }, answers: {} },
    ],
  },
  {
    of: 'changes made by hand',
    schema: changesSchema,
    fine: [
      { parts: [], reworded: [] },
      { parts: [{ name: 'hours', at: 0 }], reworded: [] },
      {
        parts: [],
        reworded: [{ text: 'visit', path: [5, 0], before: [{ type: 'text', text: 'a' }], after: null, over: {} }],
      },
    ],
    wrong: [
      { parts: [] },
      { parts: [{ name: 'hours', at: -1 }], reworded: [] },
      { parts: Array.from({ length: 21 }, () => ({ name: 'hours', at: 0 })), reworded: [] },
      { parts: [], reworded: [{ text: 'visit', path: [], before: [], after: null, over: {} }] },
      { parts: [], reworded: [{ text: 'visit', path: [0.5], before: [], after: null, over: {} }] },
      { parts: [], reworded: [{ text: 'visit', path: [0], before: [{ type: 'script' }], after: null, over: {} }] },
    ],
  },
  {
    of: 'handing over',
    schema: handOverSchema,
    fine: [
      { way: 'copy' },
      { way: 'service', at: 'draft' },
      { way: 'service', at: '2027-05-11T09:30:00.000Z', timezone: 'Europe/Dublin', worked: 40 },
    ],
    wrong: [
      {},
      { way: 'pigeon' },
      { way: 'service', at: 'tomorrow' },
      { way: 'service', at: '2027-05-11' },
      { way: 'copy', timezone: 'Europe/Atlantis' },
      { way: 'copy', worked: -1 },
      { way: 'copy', worked: 90_000 },
      { way: 'copy', incomplete: 'yes' },
    ],
  },
  {
    of: 'recipients of a mailing',
    schema: addRecipientsSchema,
    fine: [{ list: 'l1' }, { list: 'l1', search: 'ann' }, { paste: 'a@x.example' }],
    wrong: [{}, { list: 'l1', paste: 'a@x.example' }, { paste: 7 }],
  },
  {
    of: 'one message of a mailing',
    schema: changeMailedSchema,
    fine: [{}, { out: true }, { answers: { party: 2 } }, { fields: { first_name: 'Ann' } }],
    wrong: [{ out: 'yes' }, { fields: { first_name: 7 } }, { state: 'gone' }],
  },
  {
    of: 'driving a mailing',
    schema: driveMailingSchema,
    fine: [{ act: 'first', count: 2 }, { act: 'rest' }, { act: 'go on' }, { act: 'arrived', count: 1 }],
    wrong: [{ act: 'first' }, { act: 'first', count: 0 }, { act: 'rest', count: 2 }, { act: 'again' }, { act: 'fly' }],
  },
  {
    of: 'a message that waits',
    schema: changeOutgoingSchema,
    fine: [{ due: '2027-05-11T09:30:00Z' }, { act: 'take back' }],
    wrong: [{}, { due: '2027-05-11' }, { act: 'burn' }, { act: 'now', due: '2027-05-11T09:30:00Z' }],
  },
  {
    of: 'a version that is published',
    schema: publishSchema,
    fine: [
      { revision: 1, note: 'New hours' },
      { revision: 3, note: 'x', at: '2027-05-11T09:30:00+01:00' },
    ],
    wrong: [
      { revision: 1, note: '  ' },
      { revision: 0, note: 'x' },
      { revision: 1, note: long(2001) },
      { revision: 1, note: 'x', at: 'at noon' },
    ],
  },
  { of: 'a reason', schema: becauseSchema, fine: [{ because: 'wrong day' }], wrong: [{ because: ' ' }, {}] },
  {
    of: 'a state of history',
    schema: restoreStateSchema,
    fine: [
      { state: 'version:3', revision: 1 },
      { state: 'checkpoint:5d3-a.b_c', revision: 9 },
    ],
    wrong: [
      { state: 'working', revision: 1 },
      { state: 'version:', revision: 1 },
      { state: 'version:1 or 1=1', revision: 1 },
      { state: 'version:3', revision: 0 },
    ],
  },
  {
    of: 'a trial',
    schema: startTrialSchema,
    fine: [
      { arms: [1, 2].map((version) => ({ version, weight: 1 })), outcome: 'answered', matters: 0.05 },
      { arms: [4, 2, 9].map((version) => ({ version, weight: 100 })), outcome: 'followed', matters: 0.5 },
    ],
    wrong: [
      { arms: [{ version: 1, weight: 1 }], outcome: 'answered', matters: 0.05 },
      { arms: [1, 1].map((version) => ({ version, weight: 1 })), outcome: 'answered', matters: 0.05 },
      { arms: [1, 2, 3, 4].map((version) => ({ version, weight: 1 })), outcome: 'answered', matters: 0.05 },
      { arms: [1, 2].map((version) => ({ version, weight: 0 })), outcome: 'answered', matters: 0.05 },
      { arms: [1, 2].map((version) => ({ version, weight: 1 })), outcome: 'bounced', matters: 0.05 },
      { arms: [1, 2].map((version) => ({ version, weight: 1 })), outcome: 'answered', matters: 0 },
    ],
  },
  {
    of: 'a period',
    schema: periodSchema,
    fine: [{}, { from: '2026-11-27' }, { from: '2026-11-01', until: '2026-11-30' }],
    wrong: [{ from: '27 November' }, { from: '2026-99-99' }, { until: '2026-02-30' }, { until: '2026-11-27T10:00' }],
  },
  {
    of: 'how somebody hands over',
    schema: waysSchema,
    fine: [USUAL_WAYS, { ...USUAL_WAYS, from: '00:00', to: '23:59', days: [] }],
    wrong: [
      { ...USUAL_WAYS, from: '9:00' },
      { ...USUAL_WAYS, from: '24:00' },
      { ...USUAL_WAYS, to: '99:99' },
      { ...USUAL_WAYS, days: [0] },
      { ...USUAL_WAYS, days: [8] },
      { ...USUAL_WAYS, days: [1, 1] },
      { ...USUAL_WAYS, look: 'loud' },
    ],
  },
  {
    of: 'a profile',
    schema: profileSchema,
    fine: [EMPTY_PROFILE, { ...EMPTY_PROFILE, own: { desk_hours: '9 to 5' }, signature: 'yours' }],
    wrong: [
      { ...EMPTY_PROFILE, own: { 'Desk hours': '9 to 5' } },
      { ...EMPTY_PROFILE, own: { [`k${long(40)}`]: '' } },
      { ...EMPTY_PROFILE, signature: 'Not A Name' },
      { ...EMPTY_PROFILE, name: long(501) },
      { ...EMPTY_PROFILE, role: 'administrator' },
    ],
  },
  {
    of: 'the first person',
    schema: firstPersonSchema,
    fine: [{ name: 'Ann', address: ' ann@x.example ', password: 'a long sentence' }],
    wrong: [
      { name: ' ', address: 'ann@x.example', password: 'a long sentence' },
      { name: 'Ann', address: 'ann', password: 'a long sentence' },
      { name: 'Ann', address: 'ann@x.example', password: 'short' },
      { name: 'Ann', address: 'ann@x.example', password: long(201) },
    ],
  },
  {
    of: 'an invitation',
    schema: inviteSchema,
    fine: [{ name: 'Ann', address: 'ann@x.example', role: 'colleague' }],
    wrong: [
      { name: 'Ann', address: 'ann@x.example', role: 'king' },
      { name: 'Ann', address: 'a b@x.example', role: 'author' },
      { name: 'Ann', address: 'a@b@x.example', role: 'author' },
    ],
  },
  {
    of: 'a further address',
    schema: askAddressSchema,
    fine: [{ address: 'visits@larkmoor.example' }],
    wrong: [{ address: '' }, { address: `${long(320)}@x.example` }, { address: 'no at' }],
  },
  {
    of: 'a key for other programs',
    schema: makeKeySchema,
    fine: [{ title: 'Booking form', scopes: ['read', 'render'] }],
    wrong: [
      { title: 'x', scopes: [] },
      { title: ' ', scopes: ['read'] },
      { title: 'x', scopes: ['write'] },
      { title: 'x', scopes: ['read', 'render', 'begin', 'recipients', 'publish', 'read'] },
    ],
  },
  {
    of: 'a folder',
    schema: makeFolderSchema,
    fine: [{ parent: 'root', title: 'Visits' }],
    wrong: [
      { parent: 'root', title: 'a/b' },
      { parent: 'root', title: ' ' },
      { parent: '', title: 'x' },
      { title: 'x' },
    ],
  },
  {
    of: 'a column',
    schema: columnSchema,
    fine: [{ key: 'visit_date', name: 'Visit date', type: 'date' }],
    wrong: [
      { key: 'Visit', name: 'x', type: 'date' },
      { key: 'visit', name: ' ', type: 'date' },
      { key: 'visit', name: 'x', type: 'colour' },
    ],
  },
  {
    of: 'a set that is made',
    schema: makeTableSchema,
    fine: [{ use: 'sample', title: 'S', columns: [{ key: 'a', name: 'A', type: 'text' }], rows: [{ a: 'x' }] }],
    wrong: [
      { use: 'sample', title: 'S', columns: [], rows: [] },
      { use: 'both', title: 'S', columns: [{ key: 'a', name: 'A', type: 'text' }], rows: [] },
      { use: 'sample', title: 'S', columns: [{ key: 'a', name: 'A', type: 'text' }], rows: [{ A: 'x' }] },
    ],
  },
  {
    of: 'changes of a set',
    schema: changeTableSchema,
    fine: [
      { revision: 1, changes: [{ what: 'title', title: 'New' }] },
      {
        revision: 1,
        changes: [
          { what: 'cells', position: 0, cells: { a: '' } },
          { what: 'remove-column', key: 'a' },
        ],
      },
      { revision: 1, changes: [{ what: 'keep-until', day: null }] },
    ],
    wrong: [
      { revision: 1, changes: [] },
      { revision: 1, changes: [{ what: 'drop-table' }] },
      { revision: 1, changes: [{ what: 'keep-until', day: '2027-13-01' }] },
      { revision: 1, changes: [{ what: 'remove-rows', positions: [-1] }] },
      { revision: 0, changes: [{ what: 'title', title: 'New' }] },
    ],
  },
  {
    of: 'a file that becomes a table',
    schema: importTableSchema,
    fine: [
      { use: 'recipients', title: 'People' },
      { use: 'sample', title: 'S', choices: '{"day":{"type":"date","order":"day first"}}', accept: 'true' },
    ],
    wrong: [
      { use: 'sample', title: 'S', choices: '{' },
      { use: 'sample', title: 'S', choices: '{"day":{"type":"colour"}}' },
      { use: 'sample', title: 'S', choices: '[]' },
      { use: 'sample', title: 'S', accept: 'perhaps' },
    ],
  },
  {
    of: 'proofs by mail',
    schema: sendProofSchema,
    fine: [{ to: ['Ann <ann@x.example>'], cases: [{ label: 'Ann', recipient: {}, answers: {} }], timezone: 'UTC' }],
    wrong: [
      { to: [], cases: [{ label: 'Ann', recipient: {}, answers: {} }] },
      { to: ['nobody'], cases: [{ label: 'Ann', recipient: {}, answers: {} }] },
      { to: ['ann@x.example'], cases: [] },
      { to: Array.from({ length: 11 }, () => 'ann@x.example'), cases: [{ label: '', recipient: {}, answers: {} }] },
    ],
  },
  {
    of: 'a finding that is set aside',
    schema: setAsideSchema,
    fine: [{ fingerprint: '0123456789abcdef', code: 'a-or-an', message: 'a a', reason: 'a name' }],
    wrong: [
      { fingerprint: '0123456789ABCDEF', code: 'a-or-an', message: 'a a', reason: 'a name' },
      { fingerprint: '0123', code: 'a-or-an', message: 'a a', reason: 'a name' },
      { fingerprint: '0123456789abcdef', code: 'a-or-an', message: 'a a', reason: '' },
    ],
  },
  {
    of: 'the house that is saved',
    schema: saveHouseSchema,
    fine: [{ house: PLAIN_HOUSE, revision: 0 }],
    wrong: [
      { house: {}, revision: 0 },
      { house: PLAIN_HOUSE, revision: -1 },
      { house: { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, font: 7 } }, revision: 0 },
    ],
  },
  {
    of: 'the stand-in’s clock',
    schema: forwardSchema,
    fine: [{ hours: 0.5 }, { hours: 24 * 60 }],
    wrong: [{ hours: 0 }, { hours: -1 }, { hours: 24 * 60 + 1 }, { hours: Infinity }],
  },
];

describe.each(TABLES)('$of', ({ schema, fine, wrong }) => {
  it.each(fine.map((value) => [value]))('is %j', (value) => {
    const result = schema.safeParse(value);
    expect(result.error?.issues).toBeUndefined();
  });
  it.each(wrong.map((value) => [value]))('is not %j', (value) => expect(takes(schema, value)).toBe(false));
});

describe('what is left out', () => {
  it('has its usual value', () => {
    expect(addRecipientsSchema.parse({ list: 'l1' })).toEqual({ list: 'l1', search: '' });
    expect(textPeriodSchema.parse({})).toEqual({ zone: 'UTC' });
    expect(auditQuerySchema.parse({})).toEqual({ q: '', who: '', what: '', target: '', from: '', until: '' });
    expect(importTableSchema.parse({ use: 'sample', title: ' S ' })).toEqual({
      use: 'sample',
      title: 'S',
      choices: {},
    });
  });
  it('of numbers in an address is read as numbers', () => {
    expect(auditQuerySchema.parse({ before: '40' }).before).toBe(40);
    for (const wrong of ['-1', '1.5', 'forty']) expect(takes(auditQuerySchema, { before: wrong })).toBe(false);
  });
});

describe('words around what is typed', () => {
  it('lose the white space at their ends', () => {
    expect(firstPersonSchema.parse({ name: ' Ann ', address: ' a@x.example ', password: ' spaces stay ' })).toEqual({
      ...{ name: 'Ann', address: 'a@x.example', password: ' spaces stay ' },
    });
    expect(becauseSchema.parse({ because: '  wrong day ' })).toEqual({ because: 'wrong day' });
  });
});

describe('a document beyond all bounds', () => {
  it('is refused before it is read, with a code of its own', () => {
    const content = Array.from({ length: 200_000 }, () => ({ type: 'paragraph' }));
    const result = saveTextSchema.safeParse({ document: { type: 'template', content }, revision: 1 });
    expect(result.error?.issues[0]).toMatchObject({ params: { status: 422, code: 'too-large' } });
  });
});

describe('the sender of a message', () => {
  it('is the profile, with own fields that never hide the usual ones, and without signatures', () => {
    const fields = senderFields({ ...EMPTY_PROFILE, name: 'Ann', own: { desk: '4', name: 'Bo' }, signature: 'yours' });
    expect(fields).toEqual({
      ...{ name: 'Ann', email: '', title: '', telephone: '', pronouns: '', booking_link: '', desk: '4' },
    });
  });
});
