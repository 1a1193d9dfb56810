/** What mail that comes in does to what we know of messages that went. */
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schema } from '../db/database.js';
import { addOutgoing } from '../sending/store.js';
import { start, type Started } from '../testing/start.js';

let server: Started;
beforeEach(async () => {
  server = await start();
});
afterEach(() => server.stop());

/** A message of ours that has gone. */
async function sent(id: string, to = 'ann@x.example', subject = 'Your visit', days = 1): Promise<string> {
  const at = new Date(Date.now() - days * 86_400_000).toISOString();
  const messageId = `<${id}@larkmoor.example>`;
  const row = {
    id,
    person: server.user.id,
    address: to,
    name: '',
    subject,
    state: 'gone' as const,
    due: at,
    createdAt: at,
    goneAt: at,
    messageId,
  };
  await server.database.write((writer) => addOutgoing(writer, [row]));
  return messageId;
}
const head = (fields: Readonly<Record<string, string>>): string =>
  Object.entries(fields)
    .map(([name, value]) => `${name}: ${value}\r\n`)
    .join('');
let mails = 0;
async function comes(fields: Readonly<Record<string, string>>, body = 'Thank you.'): Promise<void> {
  mails += 1;
  const usual = {
    From: 'Ann Lee <ann@x.example>',
    To: server.user.address,
    'Message-ID': `<in-${mails}@x.example>`,
    Subject: 'Re: Your visit',
  };
  const raw = new TextEncoder().encode(`${head({ ...usual, ...fields })}\r\n${body}\r\n`);
  await server.services.letters.take('ann@x.example', [server.user.address], raw);
}
const counted = async (): Promise<string[]> =>
  (await server.database.read.select().from(schema.counts)).map(({ outgoing, what }) => `${outgoing} ${what}`);

describe('an answer', () => {
  it('is known by its thread, whatever its subject and sender, and counted once', async () => {
    const id = await sent('one');
    await sent('two');
    await comes({ 'In-Reply-To': id, Subject: 'Something else', From: 'bo@y.example' });
    await comes({ References: `<older@x.example> ${id}` });
    expect(await counted()).toEqual(['one answered']);
  });

  it('is known by sender and subject within fourteen days, reply marks of several languages aside', async () => {
    await sent('old', 'ann@x.example', 'Your visit', 15);
    await comes({ Subject: 'Re: Your visit' });
    expect(await counted()).toEqual([]);
    await sent('one', 'ann@x.example', 'Your visit', 13);
    await comes({ Subject: 'AW: Re: your visit' });
    await comes({ Subject: 'Another thing' });
    expect(await counted()).toEqual(['one answered']);
  });

  it.each([
    ['Auto-Submitted', 'auto-replied'],
    ['Precedence', 'bulk'],
    ['List-Id', '<moor.x.example>'],
    ['Subject', 'Out of office: Your visit'],
  ])('is none where a program wrote it: %s', async (name, value) => {
    const id = await sent('one');
    await comes({ 'In-Reply-To': id, [name]: value });
    expect(await counted()).toEqual([]);
  });

  it('is none for what goes from here to somebody outside', async () => {
    const id = await sent('one');
    const raw = new TextEncoder().encode(
      `${head({ From: server.user.address, To: 'ann@x.example', 'In-Reply-To': id, Subject: 'Again' })}\r\nHello\r\n`,
    );
    await server.services.letters.take(server.user.address, ['ann@x.example'], raw);
    expect(await counted()).toEqual([]);
  });
});

describe('a delivery report', () => {
  /** In the form of the examples of RFC 3464, appendix E. */
  const report = (status: string, about: string): string =>
    [
      '--b',
      '',
      'Your message could not be delivered.',
      '--b',
      'Content-Type: message/delivery-status',
      '',
      'Reporting-MTA: dns; mx.x.example',
      'Arrival-Date: Sat, 28 Nov 2026 09:00:00 +0000',
      '',
      'Original-Recipient: rfc822;ann@x.example',
      'Final-Recipient: rfc822;ann@x.example',
      'Action: failed',
      `Status: ${status}`,
      'Diagnostic-Code: smtp; 550 no such mailbox',
      '',
      '--b',
      'Content-Type: message/rfc822',
      '',
      about,
      '',
      '--b--',
    ].join('\r\n');
  const FIELDS = {
    From: 'Mail Delivery <mailer-daemon@x.example>',
    Subject: 'Undelivered mail',
    'Auto-Submitted': 'auto-replied',
    'MIME-Version': '1.0',
    'Content-Type': 'multipart/report; report-type=delivery-status; boundary=b',
  };

  it('says that the message it encloses came back for good', async () => {
    const id = await sent('one');
    await sent('two');
    await comes(FIELDS, report('5.1.1', `Message-ID: ${id}\r\nSubject: Your visit\r\n\r\nDear Ann`));
    expect(await counted()).toEqual(['one bounced']);
  });

  it('says nothing yet where it will be tried again', async () => {
    const id = await sent('one');
    await comes(FIELDS, report('4.2.2', `Message-ID: ${id}\r\n\r\nDear Ann`));
    expect(await counted()).toEqual([]);
  });

  it('is about the last message to the address, where it encloses none', async () => {
    await sent('early', 'ann@x.example', 'Your visit', 3);
    await sent('late', 'ann@x.example', 'Your visit', 1);
    await comes(FIELDS, report('5.1.1', 'Subject: Your visit\r\n\r\nDear Ann'));
    expect(await counted()).toEqual(['late bounced']);
  });
});

it('a broken mail, and one of many parts, are taken and answer nothing', async () => {
  const id = await sent('one');
  await comes({ 'Content-Type': 'multipart/report; boundary=""', 'In-Reply-To': `${id} <<>>` }, '\u0000--\r\n--');
  await comes({ References: `${'<a@b.example> '.repeat(3000)}` });
  const [row] = await server.database.read.select().from(schema.outgoing).where(eq(schema.outgoing.id, 'one'));
  expect(row?.state).toBe('gone');
  expect((await counted()).length).toBeLessThanOrEqual(1);
});
