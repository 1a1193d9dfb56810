import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTable, TableProblem, writeCsv } from './index.js';

const bytes = (text: string, encoding: BufferEncoding = 'utf8'): Uint8Array => Buffer.from(text, encoding);
const types = (...cells: readonly string[]): string =>
  readTable(bytes(`x\n${cells.map((cell) => JSON.stringify(cell)).join('\n')}\n`)).columns[0]?.type ?? '';
const cells = (...given: readonly string[]): (string | undefined)[] =>
  readTable(bytes(`x\n${given.map((cell) => JSON.stringify(cell)).join('\n')}\n`)).rows.map((row) => row.x);
function problem(input: string | Uint8Array): TableProblem {
  try {
    readTable(typeof input === 'string' ? bytes(input) : input);
  } catch (error) {
    if (error instanceof TableProblem) return error;
    throw error;
  }
  throw new Error('it was read');
}

describe('a table', () => {
  it.each<[string, Uint8Array, string, string]>([
    ['commas', bytes('a,b\nZoë,2\n'), 'comma', 'UTF-8'],
    ['semicolons with commas inside', bytes('a;b\n1,5;2,5\n'), 'semicolon', 'UTF-8'],
    ['tabs', bytes('a\tb\nx, y; z\t2\n'), 'tab', 'UTF-8'],
    ['a byte order mark', bytes('\uFEFFa,b\nZoë,2\n'), 'comma', 'UTF-8'],
    ['UTF-16 with a mark', bytes('\uFEFFa,b\nZoë,2\n', 'utf16le'), 'comma', 'UTF-16LE'],
    ['UTF-16 without', bytes('a,b\nZoë,2\nAnn,3\n', 'utf16le'), 'comma', 'UTF-16LE'],
    ['Windows-1252', bytes('a,b\nZoë,2\n', 'latin1'), 'comma', 'Windows-1252'],
  ])('is recognised with %s', (_what, input, separator, encoding) => {
    const table = readTable(input);
    expect(table.recognised).toEqual({ format: 'CSV', separator, encoding });
    expect(table.columns.map((column) => column.key)).toEqual(['a', 'b']);
  });

  it('keeps quoted separators, quotes and line breaks, and skips blank lines', () => {
    const { rows } = readTable(bytes('\na,b\r\n"x, ""y""\nz",2\r\n\r\n,\r\n3,4\r\n'));
    expect(rows).toEqual([
      { a: 'x, "y"\nz', b: '2' },
      { a: '3', b: '4' },
    ]);
  });

  it('makes keys of headers', () => {
    const head = ['First name', 'Größe', '2nd', '', 'list', 'First-Name', '漢字', '  E-mail  '];
    const { columns } = readTable(bytes(`${head.join(',')}\n${head.map((_, at) => `v${at}`).join(',')}\n`));
    expect(columns.map((column) => column.key)).toEqual([
      'first_name',
      'gro_e',
      'c_2nd',
      'column_4',
      'list_',
      'first_name_2',
      'column_7',
      'e_mail',
    ]);
  });

  it('reads JSON as it reads CSV', () => {
    const table = readTable(bytes('[{"Name":"Ann","n":1},{"Name":null,"more":{"a":[1]}}]'));
    expect(table.columns.map((column) => column.key)).toEqual(['name', 'n', 'more']);
    expect(table.rows[1]).toEqual({ name: '', n: '', more: '{"a":[1]}' });
  });
});

describe('a column', () => {
  it.each<[type: string, cells: readonly string[]]>([
    ['date', ['2027-05-11', '', '2027-02-28']],
    ['date', ['13/05/2027', '1/6/2027']],
    ['text', ['11/05/2027', '1/6/2027']],
    ['text', ['2027-02-31']],
    ['number', ['1', '-2', '3.5']],
    ['number', ['1,234.50', '2']],
    ['number', ['1.234,50', '2,5']],
    ['text', ['1,234', '2,500']],
    ['text', ['007', '12']],
    ['text', ['123456789012345678']],
    ['yes-no', ['yes', 'NO', 'true']],
    ['email', ['ann@x.example', ' bob@x.example ']],
    ['text', ['ann@x.example', 'nobody']],
    ['phone', ['+353 20 910 0110']],
    ['text', ['0209100110']],
    ['link', ['https://x.example/a', 'tel:+3531234567']],
    ['text', ['javascript:alert(1)']],
    ['text', ['']],
  ])('is %s: %j', (type, given) => {
    expect(types(...given)).toBe(type);
  });

  it('is rewritten into the form of answers', () => {
    expect(cells('13/05/2027', '1/6/2027')).toEqual(['2027-05-13', '2027-06-01']);
    expect(cells('05/13/2027', '6/1/2027')).toEqual(['2027-05-13', '2027-06-01']);
    expect(cells('1.234,50', '2,5')).toEqual(['1234.50', '2.5']);
    expect(cells('yes', 'NO')).toEqual(['true', 'false']);
  });
});

describe('what is no table', () => {
  it.each<[string | Uint8Array, RegExp, number | undefined]>([
    ['', /empty/, undefined],
    [' \n\t\n', /empty/, undefined],
    [new Uint8Array([0x50, 0x4b, 3, 4]), /spreadsheet/, undefined],
    [new Uint8Array([0xd0, 0xcf, 0x11, 0xe0]), /spreadsheet/, undefined],
    ['a,b\n1,2\n1\n', /1 cells.*2/, 3],
    ['a,b\n"x\ny",2\n1,2,3\n', /3 cells.*2/, 4],
    ['a,b\n1,2,3\n1\n', /1 more row/, 2],
    ['a,b\n1,\0\n', /NUL/, 2],
    ['a,b\n1,2\n"open,3\n', /quotation/, 3],
    ['[1, 2]', /list of objects/, undefined],
    ['[{"a": }]', /not JSON/, undefined],
    ['[]', /no columns/, undefined],
    [`${Array.from({ length: 501 }, (_, at) => `c${at}`).join(',')}\n`, /501 columns/, undefined],
    [`a\n${'x'.repeat(100_001)}\n`, /100000 characters/, 2],
  ])('%#', (input, words, line) => {
    const found = problem(input);
    expect(found.message).toMatch(words);
    expect(found.line).toBe(line);
  });

  it('is never anything but a table or a problem', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (input) => {
        try {
          const { columns, rows } = readTable(input);
          for (const row of rows) expect(Object.keys(row)).toEqual(columns.map((column) => column.key));
        } catch (error) {
          expect(error).toBeInstanceOf(TableProblem);
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('writing', () => {
  const columns = [
    { key: 'a', name: 'A' },
    { key: 'b', name: 'B' },
  ];
  it('reads back the same', () => {
    const cell = fc.string({ unit: 'grapheme', maxLength: 12 }).map((text) => `x${text.replace(/[\0\r]/g, '')}`);
    fc.assert(
      fc.property(fc.array(fc.record({ a: cell, b: cell }), { minLength: 1, maxLength: 5 }), (rows) => {
        const back = readTable(bytes(writeCsv(columns, rows)));
        expect(back.rows.map((row) => [row.a, row.b])).toEqual(rows.map((row) => [row.a, row.b]));
      }),
    );
  });
  it('lets no spreadsheet run a cell, and leaves numbers alone', () => {
    const written = (text: string): string => writeCsv(columns, [{ a: text, b: '' }]).split('\r\n')[1] ?? '';
    for (const formula of ['=1+1', '@SUM(A1)', '+A1', '-A1', '\t=1']) expect(written(formula)).toMatch(/^"?'/);
    for (const number of ['-12', '+3.5', '12,5']) expect(written(number)).not.toContain("'");
  });
});
