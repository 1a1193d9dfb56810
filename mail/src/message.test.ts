import PostalMime from 'postal-mime';
import fc from 'fast-check';
import addressparser from 'nodemailer/lib/addressparser/index.js';
import { describe, expect, it } from 'vitest';
import { inlined } from './assets.js';
import { toEml } from './message.js';

const message = {
  subject: 'Your visit',
  to: [{ name: '', address: 'ann@x.example' }],
  cc: [],
  bcc: [{ name: '', address: 'log@x.example' }],
  replyTo: [{ name: 'Bookings', address: 'bookings@larkmoor.example' }],
  html: '<!doctype html><html><body><p>Dear Ann</p></body></html>',
  text: 'Dear Ann\n',
};
const date = new Date('2027-05-11T09:30:00Z');
const header = (mail: Awaited<ReturnType<typeof PostalMime.parse>>, key: string) =>
  mail.headers.find((each) => each.key === key)?.value;

describe('a message as a file', () => {
  it('is the same bytes for the same message, and others for another', async () => {
    const [one, two] = [await toEml(message, { date }), await toEml(message, { date })];
    expect(Buffer.from(one).equals(Buffer.from(two))).toBe(true);
    const other = await toEml({ ...message, text: 'Dear Bob\n' }, { date });
    expect(Buffer.from(one).equals(Buffer.from(other))).toBe(false);
  });

  it('keeps addresses, date, blind copies and what marks a draft', async () => {
    const mail = await PostalMime.parse(
      await toEml(message, { date, draft: true, from: { name: 'Maeve, L.', address: 'm@x.example' } }),
    );
    expect(mail.from).toEqual({ address: 'm@x.example', name: 'Maeve, L.' });
    expect(mail.replyTo).toEqual([{ address: 'bookings@larkmoor.example', name: 'Bookings' }]);
    expect(mail.bcc?.[0]?.address).toBe('log@x.example');
    expect(mail.date && new Date(mail.date)).toEqual(date);
    expect(header(mail, 'x-unsent')).toBe('1');
    expect(header(await PostalMime.parse(await toEml(message, { date })), 'x-unsent')).toBeUndefined();
  });

  const assets = (path: string) =>
    path.startsWith('assets/') ? { content: new Uint8Array([0, 1, 2, 250, 13, 10]), type: 'image/png' } : undefined;

  it('brings attachments as they were, under the names they are given', async () => {
    const attachments = [{ file: 'assets/plan.png', name: 'Plan für Ann' }];
    const mail = await PostalMime.parse(await toEml({ ...message, attachments }, { date, assets }));
    expect(mail.attachments.map(({ filename }) => filename)).toEqual(['Plan für Ann.png']);
    expect(new Uint8Array(mail.attachments[0]?.content as ArrayBuffer)).toEqual(new Uint8Array([0, 1, 2, 250, 13, 10]));
    const missing = { ...message, attachments: [{ file: 'plans/no.pdf', name: 'No' }] };
    await expect(toEml(missing, { date, assets })).rejects.toThrow(/plans\/no\.pdf/);
  });

  it('brings the images that it shows, each once', async () => {
    const html =
      '<p><img src="assets/a.png" alt=""><img alt="" src="assets/a.png"><img src="https://x.example/b.png"></p>';
    const mail = await PostalMime.parse(await toEml({ ...message, html }, { date, assets }));
    const [image, ...others] = mail.attachments;
    expect(others).toEqual([]);
    expect(image?.related).toBe(true);
    const cid = image?.contentId?.replace(/[<>]/g, '') ?? '';
    expect(mail.html?.split(`src="cid:${cid}"`)).toHaveLength(3);
    expect(mail.html).toContain('https://x.example/b.png');
    expect(inlined(html, assets)).toContain('src="data:image/png;base64,AAEC+g0K"');
  });

  it('says how wide an image is, for engines that look at nothing else', () => {
    /** The head of a PNG image (ISO/IEC 15948, 11.2.2) of that width. */
    const png = (width: number): Uint8Array => {
      const head = Buffer.from('89504e470d0a1a0a0000000d49484452000000000000000a0806000000', 'hex');
      head.writeUInt32BE(width, 16);
      return head;
    };
    const of = (path: string) => ({ content: png(path === 'assets/wide.png' ? 3000 : 120), type: 'image/png' });
    expect(inlined('<img src="assets/a.png" alt="">', of, 640)).toContain('<img width="120"');
    expect(inlined('<img src="assets/wide.png" alt="">', of, 500)).toContain('<img width="500"');
    expect(inlined('<img src="assets/wide.png" alt="" style="max-width:min(100%, 200px)">', of, 500)).toContain(
      '<img width="200"',
    );
    expect(inlined('<img src="assets/a.png" alt="" width="40">', of, 640)).not.toContain('120');
    // Mail that came in is shown as it came.
    expect(inlined('<img src="assets/a.png" alt="">', of)).not.toContain('width');
  });

  it('says what it was given, whatever the words, and lets no header in', async () => {
    const words = fc.string({ unit: 'grapheme', maxLength: 60 }).map((text) => text.replace(/[\p{Cc}\p{Cs}]/gu, ' '));
    await fc.assert(
      fc.asyncProperty(words, words, async (subject, body) => {
        const text = `${body}\n`;
        const html = `<p>${body.replace(/[&<>]/g, ' ')}</p>`;
        const mail = await PostalMime.parse(await toEml({ ...message, subject: subject.trim(), text, html }, { date }));
        expect(mail.text?.trimEnd()).toBe(text.trimEnd());
        expect(mail.html?.trim()).toBe(html.trim());
        expect((mail.subject ?? '').replace(/\s+/g, ' ')).toBe(subject.trim().replace(/\s+/g, ' '));
      }),
      { numRuns: 150 },
    );
    const mail = await PostalMime.parse(await toEml({ ...message, subject: 'a\r\nBcc: evil@x.example' }, { date }));
    expect(mail.bcc?.map((each) => each.address)).toEqual(['log@x.example']);
    expect(mail.headers.filter((each) => each.key === 'bcc')).toHaveLength(1);
  });
});

describe('a name', () => {
  const AWKWARD = [
    'x@y.example, z@w.example',
    'a"',
    'Team: Visits',
    'Lee, Ann',
    '<eve@x.example>',
    'a;b',
    '\\',
    '王 Ł',
    '"',
  ];
  const name = fc.oneof(
    fc.constantFrom(...AWKWARD),
    fc.string({ maxLength: 40 }),
    fc.string({ unit: 'grapheme', maxLength: 20 }),
  );
  it('never becomes an address, whatever it holds, as two other readers see it', async () => {
    await fc.assert(
      fc.asyncProperty(name, name, async (to, from) => {
        const one = { ...message, to: [{ name: to, address: 'ann@x.example' }], bcc: [], replyTo: [] };
        const eml = await toEml(one, { date, from: { name: from, address: 'maeve@larkmoor.example' } });
        const read = await PostalMime.parse(eml);
        expect(read.to?.map(({ address }) => address)).toEqual(['ann@x.example']);
        expect(read.from?.address).toBe('maeve@larkmoor.example');
        const headers =
          Buffer.from(eml)
            .toString('latin1')
            .split('\r\n\r\n')[0]
            ?.replace(/\r\n[ \t]/g, ' ') ?? '';
        const line = /^To: (.*)$/m.exec(headers)?.[1] ?? '';
        expect(addressparser(line, { flatten: true }).map(({ address }) => address)).toEqual(['ann@x.example']);
        expect(headers.match(/^(?:To|Cc|Bcc|From):/gm)).toHaveLength(2);
      }),
      { numRuns: 200 },
    );
  });
});
