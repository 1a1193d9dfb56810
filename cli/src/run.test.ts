import { cpSync, mkdtempSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import PostalMime from 'postal-mime';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { run } from './run.js';

const EXAMPLE = fileURLToPath(new URL('../../core/fixtures/example', import.meta.url));
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vocabula-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Runs a call and catches what it prints. */
async function call(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const spies = [
    vi.spyOn(process.stdout, 'write').mockImplementation((text) => ((out += String(text)), true)),
    vi.spyOn(process.stderr, 'write').mockImplementation((text) => ((err += String(text)), true)),
  ];
  try {
    return { code: await run(args), out, err };
  } finally {
    for (const spy of spies) spy.mockRestore();
  }
}
const put = (name: string, content: string): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const template = (body: string, variables = '  name: { type: text, required: true }\n'): string =>
  `---\nvocabula: 1\nkind: message\ntitle: T\nsubject: "S"\nvariables:\n${variables}---\n${body}\n`;
const exampleCall = (...more: string[]) =>
  call(
    'render',
    join(EXAMPLE, 'visit.md'),
    '--recipients',
    join(EXAMPLE, 'recipients.csv'),
    '--answers',
    join(EXAMPLE, 'answers.json'),
    ...more,
  );

describe('render', () => {
  it('renders the example as expected', async () => {
    const { code, out } = await exampleCall('--as', 'json');
    expect(code).toBe(0);
    const messages = JSON.parse(out) as { recipient: number; text: string; html: string }[];
    const expected = JSON.parse(readFileSync(join(EXAMPLE, 'expected.json'), 'utf8')) as {
      recipient: number;
      textStartsWith?: string;
      htmlContains?: string;
    }[];
    expect(messages).toHaveLength(expected.length);
    for (const { textStartsWith, htmlContains, ...rest } of expected) {
      const message = messages.find((each) => each.recipient === rest.recipient);
      expect(message).toMatchObject(rest);
      if (textStartsWith !== undefined) expect(message?.text.startsWith(textStartsWith)).toBe(true);
      if (htmlContains !== undefined) expect(message?.html).toContain(htmlContains);
    }
  });

  it('writes one file a recipient, and the same bytes each time', async () => {
    const [one, two] = [join(folder, 'one'), join(folder, 'two')];
    for (const out of [one, two])
      expect((await exampleCall('--as', 'eml', '--out', out, '--today', '2027-05-01')).code).toBe(0);
    const files = readdirSync(one);
    expect(files).toHaveLength(3);
    for (const file of files) expect(readFileSync(join(one, file))).toEqual(readFileSync(join(two, file)));
    const mail = await PostalMime.parse(readFileSync(join(one, files[0] as string)));
    expect(mail.to?.[0]?.address).toMatch(/\.example$/);
    expect(mail.html).toContain('<!doctype html>');
  });

  it('asks for a folder where there are several recipients', async () => {
    expect(await exampleCall()).toMatchObject({ code: 2, err: expect.stringContaining('--out') });
  });

  it('still prints what could be rendered of a template with errors', async () => {
    const file = put('a.md', template('Dear {{name}}{{nobody}}'));
    const answers = put('answers.json', '{"name":"Ann"}');
    const { code, out } = await call('render', file, '--answers', answers);
    expect([code, out]).toEqual([1, 'Dear Ann[Nobody]\n']);
  });
});

describe('a library', () => {
  it('brings its house and its assets', async () => {
    put('house.yaml', 'vocabula: 1\nfacts: { fee: { type: money, currency: EUR, value: 4.5 } }\n');
    mkdirSync(join(folder, 'assets'));
    put('assets/plan.txt', 'a plan');
    const front = (file: string) => `subject: "S"\nattachments: [{ file: ${file}, name: Plan }]`;
    const source = template('The fee is {{house.fee}}.').replace('subject: "S"', front('assets/plan.txt'));
    const file = put('a.md', source);
    expect(await call('render', file)).toMatchObject({ code: 0, out: 'The fee is €4.50.\n' });
    const { out } = await call('render', file, '--as', 'eml');
    expect((await PostalMime.parse(out)).attachments.map(({ filename }) => filename)).toEqual(['Plan.txt']);
    put('a.md', source.replace('plan.txt', '../secret.txt'));
    expect(await call('check', file)).toMatchObject({ code: 1, out: expect.stringContaining('is not in the library') });
    expect((await call('render', file, '--as', 'eml')).code).toBe(1);
    put('house.yaml', 'vocabula: 1\nfacts: { fee: { type: money, value: cheap } }\n');
    expect(await call('check', folder)).toMatchObject({
      code: 1,
      out: expect.stringContaining('house.yaml: line 2: error bad-value'),
    });
  });
});

describe('check', () => {
  it('finds nothing wrong with the example and exits 0', async () => {
    expect(await call('check', EXAMPLE)).toEqual({ code: 0, out: '', err: '' });
  });
  it('names file, line, level and code, as text and as JSON, and exits 1 for errors', async () => {
    const file = put('a.md', template('one\n\n{{nobody}} and TBC'));
    const text = await call('check', file);
    expect(text.code).toBe(1);
    expect(text.out).toContain(`${file}: line 11: error unknown-variable: `);
    const findings = JSON.parse((await call('check', folder, '--as', 'json')).out) as { code: string; where: string }[];
    expect(findings.map((finding) => finding.code).sort()).toEqual([
      'leftover-marker',
      'unknown-variable',
      'unused-variable',
    ]);
    expect(findings.find((finding) => finding.code === 'unknown-variable')?.where).toMatch(/^line 11/);
  });
  it('exits 0 for warnings alone', async () => {
    expect((await call('check', put('a.md', template('{{name}} is TBC')))).code).toBe(0);
  });
});

describe('format', () => {
  it('changes nothing the second time, and nothing that renders', async () => {
    cpSync(EXAMPLE, folder, { recursive: true });
    const file = join(folder, 'visit.md');
    const before = await call('render', file, '--answers', join(folder, 'answers.json'), '--today', '2027-05-01');
    await call('format', folder);
    const once = readFileSync(file, 'utf8');
    const again = await call('format', folder);
    expect([again.code, again.out, readFileSync(file, 'utf8')]).toEqual([0, '', once]);
    expect(await call('render', file, '--answers', join(folder, 'answers.json'), '--today', '2027-05-01')).toEqual(
      before,
    );
  });
  it('leaves a file with errors as it is and says so', async () => {
    const source = template('{{#name}}\nopen');
    const file = put('a.md', source);
    const { code, out } = await call('format', file);
    expect([code, readFileSync(file, 'utf8')]).toEqual([1, source]);
    expect(out).toMatch(/a\.md: error: /);
  });
  it('only looks with --check', async () => {
    const source = template('*  a\n*  b', '  name: {type: text}\n');
    const file = put('a.md', source);
    expect([(await call('format', '--check', file)).code, readFileSync(file, 'utf8')]).toEqual([1, source]);
  });
});

describe('questions', () => {
  it('lists them in the order of reading, as answered so far', async () => {
    const variables =
      '  late: { type: yes-no, required: true }\n  why: { type: text }\n  name: { type: text, required: true, label: Your name }\n';
    const file = put('a.md', template('Dear {{name}}\n\n{{#late}}\n{{why}}\n{{/late}}', variables));
    expect(JSON.parse((await call('questions', file, '--as', 'json')).out)).toEqual([
      { key: 'name', type: 'text', label: 'Your name', required: true },
      { key: 'late', type: 'yes-no', label: 'Late', required: true },
    ]);
    const answers = put('answers.json', '{"late":true}');
    const { out } = await call('questions', file, '--answers', answers, '--as', 'json');
    expect((JSON.parse(out) as { key: string }[]).map(({ key }) => key)).toEqual(['name', 'late', 'why']);
  });
});

describe('cover', () => {
  const file = (): string =>
    put(
      'a.md',
      template(
        '{{#late}}{{#why.rain}}wet{{/why.rain}}{{#sure}}!{{/sure}}{{/late}}{{#early}}x{{/early}}',
        '  late: { type: yes-no }\n  early: { type: yes-no }\n  sure: { type: yes-no }\n  why: { type: choice, required: true, options: { rain: {}, snow: {} } }\n',
      ),
    );
  it('gives factors, cases and the numbers of pairs, the same for the same seed', async () => {
    const { code, out } = await call('cover', file(), '--as', 'json', '--seed', '7');
    expect(code).toBe(0);
    const { factors, pairs, unreachable, notFound, cases } = JSON.parse(out) as {
      factors: Record<string, string[]>;
      pairs: number;
      unreachable: number;
      notFound: number;
      cases: Record<string, string>[];
    };
    expect(factors).toEqual({
      late: ['yes', 'no'],
      why: ['rain', 'snow'],
      sure: ['yes', 'no'],
      early: ['yes', 'no'],
    });
    // Every pair of four times two levels, less those of what is asked only when it is late.
    expect([pairs, unreachable, notFound]).toEqual([20, 4, 0]);
    const shown = new Set(
      cases.flatMap((each) =>
        Object.entries(each).flatMap(([a, x], at, all) => all.slice(at + 1).map(([b, y]) => `${a}=${x} ${b}=${y}`)),
      ),
    );
    expect(shown.size).toBe(20);
    expect((await call('cover', file(), '--as', 'json', '--seed', '7')).out).toBe(out);
  });
  it('says why pairs cannot happen', async () => {
    const { out } = await call('cover', file());
    expect(out).toMatch(/^\d+ messages show all 20 pairs; 4 cannot happen$/m);
    expect(out).toMatch(/cannot happen \(2\): “.*” does not come up when “Late” is no/);
  });
});

describe('a call that cannot be understood', () => {
  it.each([
    [[]],
    [['nonsense']],
    [['render']],
    [['render', 'nowhere.md']],
    [['render', 'a.md', 'b.md']],
    [['check', '.', '--as', 'xml']],
    [['check', '.', '--colour', 'red']],
    [['cover', join(EXAMPLE, 'visit.md'), '--strength', '4']],
    [['cover', join(EXAMPLE, 'visit.md'), '--seed', 'x']],
    [['render', join(EXAMPLE, 'visit.md'), '--today', '31 February']],
    [['render', join(EXAMPLE, 'visit.md'), '--answers', join(EXAMPLE, 'visit.md')]],
  ])('%j exits 2 with one line', async (args) => {
    const { code, out, err } = await call(...args);
    expect([code, out, err.split('\n').length]).toEqual([2, '', 2]);
  });
  it('names the line of a table that is none', async () => {
    mkdirSync(join(folder, 'lists'));
    const { code, err } = await call(
      'render',
      join(EXAMPLE, 'visit.md'),
      '--recipients',
      put('lists/a.csv', 'a,b\n1,2,3\n'),
    );
    expect([code, /line 2/.test(err)]).toEqual([2, true]);
  });
});

describe('derive', () => {
  const visit = (first: string, email: string, day: string, party: number, guide: boolean): string =>
    [
      `From: Maeve Aldous <maeve@larkmoor.example>`,
      `To: ${first} Test <${email}>`,
      `Subject: Your visit on ${day}`,
      'Date: Fri, 27 Nov 2026 10:00:00 +0000',
      'MIME-Version: 1.0',
      'Content-Type: text/html; charset=utf-8',
      '',
      `<p>Dear ${first},</p><p>We look forward to seeing your group of <b>${party}</b> on ${day}.${guide ? ' A guide will meet you at the gate.' : ''}</p><p>Kind regards<br>Maeve</p>`,
      '',
    ].join('\r\n');
  const MAILS = [
    visit('Ann', 'ann@x.example', '3 April 2027', 12, true),
    visit('Bo', 'bo@x.example', '14 May 2027', 30, false),
    visit('Una', 'una@x.example', '1 June 2027', 7, true),
    visit('Owen', 'owen@x.example', '22 April 2027', 18, false),
    visit('Priya', 'priya@x.example', '9 July 2027', 12, true),
  ];
  it('makes a template and a table that render each mail again, word for word', async () => {
    mkdirSync(join(folder, 'mails'));
    for (const [at, mail] of MAILS.entries()) put(`mails/${at + 1}.eml`, mail);
    const out = join(folder, 'out');
    const { code, out: printed } = await call(
      'derive',
      join(folder, 'mails'),
      '--out',
      out,
      '--locale',
      'en-IE',
      '--as',
      'json',
    );
    expect(code).toBe(0);
    const derived = JSON.parse(printed) as Record<string, never> & {
      exact: number;
      template: string;
      mails: { file: string; exact: boolean; differences: unknown[]; answers: object }[];
      variables: { key: string; type: string; distinct: number; places: number }[];
    };
    expect(Object.keys(derived)).toEqual(['template', 'mails', 'exact', 'variables', 'passages', 'oddities']);
    expect(derived.exact).toBe(5);
    expect(derived.mails.map(({ file, exact, differences }) => [file, exact, differences])).toEqual(
      MAILS.map((_, at) => [`${at + 1}.eml`, true, []]),
    );
    expect(derived.variables.map(({ type, distinct, places }) => [type, distinct, places])).toEqual([
      ['date', 5, 2],
      ['number', 4, 1],
      ['yes-no', 2, 1],
    ]);
    expect(readFileSync(join(out, 'template.md'), 'utf8')).toBe(derived.template);
    const again = await call(
      'render',
      join(out, 'template.md'),
      '--recipients',
      join(out, 'samples.csv'),
      '--as',
      'json',
    );
    expect([again.code, again.err]).toEqual([0, '']);
    const messages = JSON.parse(again.out) as { subject: string; text: string; to: string[] }[];
    expect(messages.map(({ subject }) => subject)).toEqual(MAILS.map((mail) => /Subject: (.*)\r/.exec(mail)?.[1]));
    expect(messages[1]?.text).toContain('We look forward to seeing your group of 30 on 14 May 2027.');
    expect(messages[1]?.text).not.toContain('guide');
    expect(messages.map(({ to }) => to)).toEqual(
      ['ann', 'bo', 'una', 'owen', 'priya'].map((name) => [`${name}@x.example`]),
    );
  });
  it('reads mailboxes, pages and words, and says how much comes out word for word', async () => {
    const box = put(
      'sent.mbox',
      MAILS.map(
        (mail) => `From maeve@larkmoor.example Fri Nov 27 10:00:00 2026\n${mail.replaceAll('\r\n', '\n')}\n`,
      ).join(''),
    );
    const text = put('one.txt', 'Dear Kofi,\n\nWe look forward to seeing your group of 9 on 2 May 2027.\n');
    const { code, out } = await call('derive', box, text, '--locale', 'en-IE');
    expect(code).toBe(0);
    expect(out).toMatch(/of 6 mails come out word for word/);
    expect(out).toContain('Dear {{');
  });
  it('of fewer than two mails says so', async () => {
    const { code, err } = await call('derive', put('one.eml', MAILS[0] ?? ''));
    expect(code).toBe(1);
    expect(err).toContain('1 of the files could be read as mails; two are needed');
    expect((await call('derive', join(folder, 'nowhere'))).code).toBe(2);
    expect(
      (await call('derive', put('a.eml', MAILS[0] ?? ''), put('b.eml', MAILS[1] ?? ''), '--locale', '??')).code,
    ).toBe(2);
  });
});
