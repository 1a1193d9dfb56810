import fc from 'fast-check';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type MimeNode from 'nodemailer/lib/mime-node/index.js';
import { describe, expect, it } from 'vitest';
import { writtenTree } from './write-tree.js';

type Options = ConstructorParameters<typeof MailComposer>[0];

/** The tree of a mail, made anew each time, since writing one adds to its headers. */
const tree = (options: Options): MimeNode =>
  new MailComposer({
    from: { name: 'Maeve Ní Bhriain', address: 'maeve@larkmoor.example' },
    to: 'ann@x.example',
    date: new Date('2027-05-11T09:30:00Z'),
    messageId: '<one@larkmoor.example>',
    baseBoundary: 'boundary',
    ...options,
  } as Options).compile() as unknown as MimeNode;

async function expectSame(options: Options): Promise<void> {
  const library = await tree(options).build();
  expect(writtenTree(tree(options))?.toString('latin1')).toBe(library.toString('latin1'));
}

const word = fc.oneof(
  fc.constantFrom(
    'Grüße',
    '–',
    'a',
    'the',
    'garden',
    '=3D',
    '.',
    '😀',
    '山本',
    '\t',
    ' ',
    '\n',
    '\r\n',
    '\r',
    '',
    '--boundary',
  ),
  fc.string({ maxLength: 12 }),
  fc.string({ unit: 'grapheme', maxLength: 12 }),
);
const text = fc
  .tuple(fc.array(word, { maxLength: 60 }), fc.constantFrom(1, 1, 20))
  .map(([words, times]) => words.join(' ').repeat(times));

describe('a written tree', () => {
  it('has the bytes that the mail library gives, whatever its words', async () => {
    await fc.assert(
      fc.asyncProperty(text, text, text, (subject, plain, html) => expectSame({ subject, text: plain, html })),
      { numRuns: 300 },
    );
  });

  it('also with attachments, images, invitations and parts of one kind', async () => {
    const bytes = fc.uint8Array({ maxLength: 400 }).map((each) => Buffer.from(each));
    await fc.assert(
      fc.asyncProperty(text, bytes, fc.boolean(), async (words, content, isInvitation) =>
        expectSame({
          text: words,
          html: `<p>${words}</p><img src="cid:one">`,
          attachments: [
            { content, contentType: 'image/png', cid: 'one', filename: 'one.png' },
            { content, contentType: 'text/csv', filename: 'rows.csv' },
          ],
          ...(isInvitation ? { icalEvent: { method: 'REQUEST', content: `BEGIN:VCALENDAR\r\n${words}` } } : {}),
        }),
      ),
      { numRuns: 60 },
    );
    await expectSame({ text: 'alone' });
    await expectSame({ html: '<p>alone</p>' });
    await expectSame({ subject: 'nothing' });
    for (const end of ['\r', '\n', '\r\n', ' \r', '\t']) await expectSame({ html: `x${end}` });
    await expectSame({ html: '\r' });
  });

  it('leaves large parts to the library', async () => {
    const long = 'Grüße aus dem Garten. '.repeat(4000);
    expect(writtenTree(tree({ text: long }))).toBeUndefined();
    const attachments = [{ content: Buffer.alloc(100_000, 7), contentType: 'image/png', filename: 'large.png' }];
    expect(writtenTree(tree({ text: 'short', attachments }))).toBeUndefined();
    await expectSame({ text: 'Grüße aus dem Garten. '.repeat(1000) });
  });
});
