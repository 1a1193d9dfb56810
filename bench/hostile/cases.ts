/** What is sent to hurt: each case is one act of somebody who is signed in, or of nobody. */
import * as made from './payloads.js';

export interface Target {
  readonly base: string;
  /** Sends as an author, or as nobody. Undefined where there was no answer in time. */
  send(
    method: string,
    path: string,
    body?: unknown,
    options?: { readonly nobody?: boolean; readonly type?: string },
  ): Promise<Answer>;
}
export interface Answer {
  readonly status: number;
  readonly body: unknown;
}
export interface Case {
  readonly name: string;
  /** Bytes that go up with the act that is measured. */
  readonly bytes: number;
  /** What must be there before; not measured. */
  readonly prepare?: (target: Target) => Promise<unknown>;
  readonly act: (target: Target, prepared: unknown) => Promise<Answer>;
}

const KB = 1000;
const MB = 1_000_000;

const raw = (name: string, method: string, path: string, bytes: Uint8Array): Case => ({
  name,
  bytes: bytes.length,
  act: (target) => target.send(method, path, bytes, { type: 'application/octet-stream' }),
});
const read = (name: string, bytes: Uint8Array): Case => raw(`read a mail: ${name}`, 'POST', '/api/fills/read', bytes);
const convert = (file: string, name: string, bytes: Uint8Array): Case =>
  raw(`start from ${file.split('.')[1]}: ${name}`, 'POST', `/api/convert?name=${file}`, bytes);

/** Saves a document as the working copy of a text. */
function save(name: string, document: unknown): Case {
  const bytes = JSON.stringify(document).length;
  return {
    name: `save: ${name}`,
    bytes,
    prepare: (target) => text(target),
    act: (target, prepared) => {
      const { name: text_, revision } = prepared as { name: string; revision: number };
      return target.send('PUT', `/api/texts/${text_}`, { document, revision });
    },
  };
}

let titles = 0;
async function text(target: Target, source?: string): Promise<{ name: string; revision: number }> {
  titles += 1;
  const document = made.documentOf(source);
  const { status, body } = await target.send('POST', '/api/texts', {
    kind: 'message',
    title: `Hostile ${titles}`,
    document,
  });
  if (status !== 201) throw new Error(`no text was made: ${status} ${JSON.stringify(body)}`);
  return body as { name: string; revision: number };
}
async function fill(target: Target, source?: string): Promise<{ id: string; text: string }> {
  const { name, revision } = await text(target, source);
  await target.send('POST', `/api/versions/${name}/publish`, { revision, note: 'x' });
  const { body, status } = await target.send('POST', '/api/fills', { text: name });
  if (status !== 201) throw new Error(`no message was begun: ${status} ${JSON.stringify(body)}`);
  return { id: (body as { id: string }).id, text: name };
}

const dropped = (name: string, bytes: Uint8Array): readonly Case[] => [
  raw(`drop a mail: ${name}`, 'POST', '/api/mailroom/drop', bytes),
  { name: `list the inbox after ${name}`, bytes: 0, act: (target) => target.send('GET', '/api/mailroom/inbox') },
  {
    name: `open the letter of ${name}`,
    bytes: 0,
    prepare: async (target) => (await target.send('GET', '/api/mailroom/inbox')).body,
    act: (target, letters) =>
      target.send('GET', `/api/mailroom/letters/${(letters as { id: string }[] | undefined)?.[0]?.id ?? 'none'}`),
  },
];

export const CASES: readonly Case[] = [
  raw('import: a cell at XFD1048576', 'POST', '/api/tables?use=sample&title=x', made.farCell()),
  raw('import: rows that unpack to 150 MB', 'POST', '/api/tables?use=sample&title=x', made.packedWorkbook(150)),
  convert('a.docx', 'paragraphs that unpack to 55 MB', made.packedDocument(55)),
  save('6,000 cells that span 200 × 200', made.tableOf(100, 60, 200)),
  // So small that it is saved in the thread that answers.
  save('160 cells that span 200 × 200', made.tableOf(40, 4, 200)),
  save('50 tables of cells that span', made.spanningTables(50)),
  save('10,000 words to fold', made.words('ß '.repeat(10_000))),
  save('10,000 cells', made.tableOf(200, 50, 1)),
  save('40,000 runs', made.runs(40_000)),
  save('50,000 paragraphs', made.paragraphs(50_000)),
  save('[NAME] many times', made.words('[NAME] '.repeat((200 * KB) / 7))),
  save('spaces', made.words(' '.repeat(200 * KB))),
  save('one word', made.words('a'.repeat(200 * KB))),
  save('[ many times', made.words('['.repeat(200 * KB))),
  save('quotation marks', made.words('“'.repeat(60 * KB))),
  save('a a a', made.words('a '.repeat(100 * KB))),
  read('[', made.repeated('[', 200 * KB)),
  read('a long word and @', Buffer.from(`${'a'.repeat(200 * KB)}@`)),
  read('a@ in 2.5 kB', made.repeated('a@', 2.5 * KB)),
  read('a@ in 5 kB', made.repeated('a@', 5 * KB)),
  read('a@ in 200 kB', made.repeated('a@', 200 * KB)),
  read('a@b. in 200 kB', made.repeated('a@b.', 200 * KB)),
  read('header lines', Buffer.from(`From: ${'<'.repeat(200 * KB)}`)),
  ...[
    '{{',
    '{{#a}}',
    '[[]',
    '**a*',
    '~~a',
    ':::',
    '<!--',
    '[a](b) ',
    '[',
    '![',
    '`a',
    '_a*',
    '<a',
    '&',
    '> ',
    '- ',
  ].map((unit) => convert('a.md', `${unit} many times`, made.repeated(unit, 200 * KB))),
  convert('a.md', '::: on lines of its own', made.repeated(':::\n', 200 * KB)),
  convert(
    'a.md',
    'lists that nest',
    Buffer.from(Array.from({ length: 600 }, (_, at) => `${'  '.repeat(at)}- a`).join('\n')),
  ),
  ...['[', '<', '{{', '* ', '[a](', '`', '**a', '\t\n'].map((unit) =>
    convert('a.txt', `${unit.trim() || 'tabs'} many times`, made.repeated(unit, 200 * KB)),
  ),
  ...[
    '<title',
    '<p',
    '<b>',
    '<table><tr><td>',
    '<a href=x>',
    '<!--',
    '<li>',
    '&lt',
    '<img src="data:image/png;base64,',
  ].map((unit) => convert('a.html', `${unit} many times`, made.repeated(unit, 200 * KB))),
  convert('a.eml', '40,000 images', made.mail('<img '.repeat(40_000))),
  ...dropped('40,000 images', made.mail('<img '.repeat(40_000))),
  ...dropped('20,000 parts', made.manyParts(20_000)),
  ...dropped('25 MB', made.mail('Some words in a line of this mail.\r\n'.repeat((25 * MB) / 36), 'text/plain')),
  raw('drop a mailbox of 29 MB', 'POST', '/api/mailroom/drop', made.mailbox(29 * MB)),
  { name: 'list the inbox after a mailbox', bytes: 0, act: (target) => target.send('GET', '/api/mailroom/inbox') },
  raw('recognise a CSV of 50 MB', 'POST', '/api/tables/recognise', made.csv(50 * MB)),
  raw('import a CSV of 5 MB', 'POST', '/api/tables?use=sample&title=big', made.csv(5 * MB)),
  raw('look into a library of 2,000 texts', 'POST', '/api/library/look', made.libraryOf(2000)),
  {
    name: 'take a library of 2,000 texts',
    bytes: made.libraryOf(2000).length,
    act: (target) => {
      const form = new FormData();
      form.set('file', new Blob([made.libraryOf(2000) as Uint8Array<ArrayBuffer>]), 'library.zip');
      form.set('choices', JSON.stringify({ choices: {}, into: 'root' }));
      return target.send('POST', '/api/library/take', form);
    },
  },
  { name: 'near-duplicates of what is there', bytes: 0, act: (target) => target.send('GET', '/api/texts/alike') },
  {
    name: 'hand over a line reworded to 80 kB of spaces',
    bytes: 80 * KB,
    prepare: async (target) => {
      const { id, text: name } = await fill(target);
      const words = [{ type: 'text', text: 'Words' }];
      const document = made.documentOf();
      const path = [document.content.findIndex(({ type }) => type === 'body'), 0];
      const { status, body } = await target.send('PUT', `/api/fills/${id}`, {
        recipient: { email: 'ann@x.example' },
        answers: {},
        changes: {
          parts: [],
          reworded: [
            { text: name, path, before: words, after: [{ type: 'text', text: ` ${' '.repeat(80 * KB)}x` }], over: {} },
          ],
        },
      });
      if (status !== 200) return { id, refused: JSON.stringify(body) };
      return { id };
    },
    act: (target, prepared) =>
      target.send('POST', `/api/fills/${(prepared as { id: string }).id}/hand-over`, { way: 'copy' }),
  },
  {
    name: 'hand over 20 calculated values of lists in lists',
    bytes: 0,
    prepare: async (target) => {
      const { id } = await fill(target, made.calculated(20));
      await target.send('PUT', `/api/fills/${id}`, {
        recipient: { email: 'ann@x.example' },
        answers: { rows: Array.from({ length: 1000 }, (_, at) => ({ n: at })) },
      });
      return { id };
    },
    act: (target, prepared) =>
      target.send('POST', `/api/fills/${(prepared as { id: string }).id}/hand-over`, { way: 'copy' }),
  },
  {
    name: 'paste 10,000 people into a mailing',
    bytes: 300 * KB,
    prepare: async (target) => {
      const { id } = await fill(target);
      return (await target.send('POST', '/api/mailings', { fill: id })).body;
    },
    act: (target, prepared) =>
      target.send('POST', `/api/mailings/${(prepared as { id: string }).id}/recipients`, {
        paste: Array.from({ length: 10_000 }, (_, at) => `Ann Lee <p${at}@x.example>`).join('\n'),
      }),
  },
  {
    name: 'sign in with 6 MB of [, as nobody',
    bytes: 6 * MB,
    act: (target) =>
      target.send('POST', '/api/door/sign-in', Buffer.from('['.repeat(5.9 * MB)), {
        nobody: true,
        type: 'application/json',
      }),
  },
  {
    name: 'a JSON body of 5 MB that nests, as nobody',
    bytes: 5 * MB,
    act: (target) =>
      target.send('POST', '/api/door/sign-in', Buffer.from('[[[[[],[],[]],1],'.repeat((5 * MB) / 17)), {
        nobody: true,
        type: 'application/json',
      }),
  },
  {
    name: '12 uploads of 95 MB, as nobody',
    bytes: 95 * MB,
    act: async (target) => {
      const body = Buffer.alloc(95 * MB);
      const answers = await Promise.all(
        Array.from({ length: 12 }, () =>
          target.send('POST', '/api/library/look', body, { nobody: true, type: 'application/octet-stream' }),
        ),
      );
      return answers[0] as Answer;
    },
  },
];
