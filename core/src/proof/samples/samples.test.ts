import { describe, expect, it } from 'vitest';
import { render } from '../../render/render.js';
import { program } from '../../testing/build.js';
import { withComputed } from './computed.js';
import { disguised, madeUpSet, tellsWho } from './made-up.js';
import { fillingOfRow, needs } from './needs.js';

const TODAY = '2026-11-24';
const compiled = program({
  body: '{{#gate.north}}x{{/gate.north}} {{first}} {{recipient.town}} {{#big}}{{extras}}{{/big}} {{sender.name}} {{guide}}',
  variables: [
    'first: { type: text, from: recipient.first_name, required: true }',
    'gate: { type: choice, required: true, options: { north: { label: North gate }, river: {} } }',
    'party: { type: number, min: 1, max: 60, required: true }',
    'big: { type: yes-no, value: "party > 15.0 && recipient.kind == \'school\'" }',
    'extras: { type: choices, options: { tea: { label: Tea }, tour: { label: Tour } } }',
    'guide: { type: yes-no }',
  ].join('\n'),
});

describe('what a template needs', () => {
  it('are fields and answers in reading order, also those that conditions read', () => {
    expect(needs(compiled).map(({ column, as, type }) => `${as} ${column} ${type}`)).toEqual([
      'answer gate choice',
      'field first_name text',
      'field town text',
      'answer party number',
      'field kind text',
      'answer extras choices',
      'answer guide yes-no',
    ]);
  });
  it('come from the cells of a row: options by key or label', () => {
    const row = {
      first_name: 'Ann',
      gate: 'north gate',
      party: '20',
      kind: 'school',
      extras: 'tea, Tour',
      guide: 'no',
    };
    const filling = fillingOfRow(compiled, row);
    expect(filling.answers).toEqual({ gate: 'north', party: '20', extras: ['tea', 'tour'], guide: false });
    expect(render(compiled, { ...filling, today: TODAY }).text).toBe('x Ann Tea and Tour no\n');
  });
  it('refuse a cell that is no option, rather than guess', () => {
    const { answers } = fillingOfRow(compiled, { gate: 'south' });
    expect(render(compiled, { answers, today: TODAY }).findings.map(({ code }) => code)).toContain('bad-value');
  });
});

describe('a made-up set', () => {
  const set = madeUpSet(needs(compiled), 40, TODAY);
  it('has a column for everything that is needed, and every row gives a message with nothing blank or refused', () => {
    expect(set.columns.map(({ key }) => key)).toEqual([
      'gate',
      'first_name',
      'town',
      'party',
      'kind',
      'extras',
      'guide',
    ]);
    for (const row of set.rows) {
      const message = render(compiled, { ...fillingOfRow(compiled, row), today: TODAY });
      expect([message.blanks, message.findings]).toEqual([[], []]);
    }
  });
  it('shows every option, both answers and some empty cells', () => {
    const cells = (key: string): Set<string | undefined> => new Set(set.rows.map((row) => row[key]));
    expect([...cells('gate')].sort()).toEqual(['north', 'river']);
    expect(cells('guide')).toEqual(new Set(['true', 'false']));
    expect(cells('town').has('')).toBe(true);
    expect(cells('first_name').has('')).toBe(false);
    expect(cells('first_name').size).toBeGreaterThan(12);
  });
});

describe('disguise', () => {
  const columns = [
    { key: 'first_name', name: 'First name', type: 'text' },
    { key: 'email', name: 'Email', type: 'email' },
    { key: 'company', name: 'Company', type: 'text' },
    { key: 'party', name: 'Party', type: 'number' },
    { key: 'phone', name: 'Phone', type: 'phone' },
  ] as const;
  const rows = [
    { first_name: 'Realname', email: 'real@firm.test', company: 'Firm', party: '4', phone: '+353 1 555 1234' },
    { first_name: '', email: 'other@firm.test', company: 'Firm', party: '9', phone: '' },
  ];
  it('reaches text in which a name or an address occurs', () => {
    const columns = [
      { key: 'first_name', name: 'First name', type: 'text' as const },
      { key: 'email', name: 'Email', type: 'email' as const },
      { key: 'note', name: 'Note', type: 'text' as const },
    ];
    const [row] = disguised(columns, [
      { first_name: 'Gwendolen', email: 'gwen@firm.test', note: 'Ask Gwendolen (gwen@firm.test) again.' },
    ]);
    expect(row?.note).toBe(`Ask ${row?.first_name} (${row?.email}) again.`);
    expect(row?.first_name).not.toBe('Gwendolen');
  });
  it('replaces what says who somebody is, keeps the rest, and leaves what is empty empty', () => {
    const made = disguised(columns, rows);
    expect(JSON.stringify(made)).not.toMatch(/Realname|firm|555/i);
    expect(made.map(({ party }) => party)).toEqual(['4', '9']);
    expect([made[1]?.first_name, made[1]?.phone]).toEqual(['', '']);
    expect(made[0]?.company).toBe(made[1]?.company);
    expect(made[0]?.email).not.toBe(made[1]?.email);
    for (const { email } of made) expect(email).toMatch(/\.example$/);
    expect(columns.filter((column) => tellsWho(column)).map(({ key }) => key)).toEqual([
      'first_name',
      'email',
      'company',
      'phone',
    ]);
  });
});

describe('columns that are worked out', () => {
  const columns = [
    { key: 'party', name: 'Party', type: 'number' },
    { key: 'visit_date', name: 'Visit date', type: 'date' },
    { key: 'fee', name: 'Fee', type: 'number', value: 'party * 4.5' },
    { key: 'soon', name: 'Soon', type: 'yes-no', value: 'daysBetween(today(), visit_date) < 7.0' },
    { key: 'twice', name: 'Twice', type: 'number', value: 'fee * 2' },
  ] as const;
  it('follow the others of their row, in whatever order they need each other', () => {
    const { rows, problems } = withComputed(
      columns,
      [
        { party: '2', visit_date: '2026-11-26' },
        { party: '', visit_date: '2027-11-26', fee: 'old' },
      ],
      TODAY,
    );
    expect(problems).toEqual({});
    expect(rows).toEqual([
      { party: '2', visit_date: '2026-11-26', fee: '9', soon: 'true', twice: '18' },
      { party: '', visit_date: '2027-11-26', fee: '', soon: 'false', twice: '' },
    ]);
  });
  it('say what is wrong with an expression', () => {
    const { rows, problems } = withComputed(
      [{ key: 'a', name: 'A', type: 'number', value: 'nobody + 1' }],
      [{}],
      TODAY,
    );
    expect(Object.keys(problems)).toEqual(['a']);
    expect(rows).toEqual([{ a: '' }]);
  });
});
