/** Mail of a real mailbox, read from a real IMAP server into the mailroom. */
import { hasDovecot, makeDovecot, type Dovecot } from '@vocabula/mail/testing/dovecot';
import { eq } from 'drizzle-orm';
import { pino } from 'pino';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { Database, schema } from '../db/database.js';
import { addOutgoing } from '../sending/store.js';
import { start, type Started } from '../testing/start.js';
import { MailboxReader } from './mailbox-reader.js';
import { LetterService } from './service.js';

const LOG = pino({ level: 'silent' });
const eventually = (holds: () => Promise<void>): Promise<void> => vi.waitFor(holds, { timeout: 40_000, interval: 50 });

describe.skipIf(!hasDovecot)('a real mailbox', () => {
  let imap: Dovecot;
  let server: Started;
  let reader: MailboxReader | undefined;
  beforeAll(async () => {
    imap = await makeDovecot();
    await imap.start();
  });
  afterAll(() => imap.end());
  beforeEach(async () => {
    server = await start();
  });
  afterEach(async () => {
    await reader?.stop();
    reader = undefined;
    await server.stop();
  });

  const mailboxNow = async () => (await server.call.get('/api/outgoing/service')).body.mailbox;
  const begin = (url = imap.url(), at = server.services.letters, database = server.database): MailboxReader => {
    const made = new MailboxReader(database, at, LOG, [100, 200]);
    made.start(url);
    return made;
  };
  async function reading(): Promise<void> {
    reader = begin();
    await eventually(async () => expect(await mailboxNow()).toEqual({ reading: true, why: '' }));
  }
  let count = 0;
  function mail(fields: Readonly<Record<string, string>> = {}): string {
    count += 1;
    const all = {
      From: 'Ann Lee <ann@x.example>',
      To: server.user.address,
      Subject: 'A question',
      'Message-ID': `<${count}@x.example>`,
      ...fields,
    };
    const head = Object.entries(all)
      .filter(([, value]) => value !== '')
      .map(([name, value]) => `${name}: ${value}`);
    return `${head.join('\r\n')}\r\n\r\nDear Maeve\r\n`;
  }
  const subjects = async (): Promise<string[]> =>
    ((await server.call.get('/api/mailroom/inbox')).body as { subject: string }[]).map(({ subject }) => subject);

  it('brings mail into the mailroom of whom it names, as something to answer', async () => {
    await reading();
    imap.deliver(mail({ Subject: 'For the administrator' }));
    await eventually(async () => expect(await subjects()).toEqual(['For the administrator']));
    const [letter] = (await server.call.get('/api/mailroom/inbox')).body;
    expect(letter).toMatchObject({ from: 'Ann Lee <ann@x.example>', opening: 'Dear Maeve', done: false });
    const colleague = await server.as('colleague');
    imap.deliver(mail({ To: `other@x.example, ${colleague.user.address}`, Subject: 'For a colleague' }));
    await eventually(async () => expect((await colleague.get('/api/mailroom/inbox')).body).toHaveLength(1));
    expect(await subjects()).toEqual(['For the administrator']);
    // Nobody's mind is made up for people who are real.
    expect(await server.database.read.select().from(schema.intentions)).toEqual([]);
  });

  it('knows an answer by its thread, and a report that a message came back', async () => {
    const at = new Date(Date.now() - 3_600_000).toISOString();
    const row = (id: string) => ({
      ...{
        id,
        person: server.user.id,
        address: `${id}@x.example`,
        name: '',
        subject: 'Your visit',
        state: 'gone' as const,
      },
      ...{ due: at, createdAt: at, goneAt: at, messageId: `<${id}@larkmoor.example>` },
    });
    await server.database.write((writer) => addOutgoing(writer, [row('one'), row('two')]));
    await reading();
    imap.deliver(mail({ 'In-Reply-To': '<one@larkmoor.example>', To: 'visits@larkmoor.example' }));
    imap.deliver(
      'From: mailer-daemon@x.example\r\nTo: maeve@larkmoor.example\r\nSubject: Undelivered\r\nMessage-ID: <report@x.example>\r\nMIME-Version: 1.0\r\nContent-Type: multipart/report; report-type=delivery-status; boundary=b\r\n\r\n--b\r\n\r\nNot delivered.\r\n--b\r\nContent-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; mx.x.example\r\n\r\nFinal-Recipient: rfc822; two@x.example\r\nAction: failed\r\nStatus: 5.1.1\r\n\r\n--b\r\nContent-Type: text/rfc822-headers\r\n\r\nMessage-ID: <two@larkmoor.example>\r\nSubject: Your visit\r\n\r\n--b--\r\n',
    );
    await eventually(async () => {
      const counted = await server.database.read.select().from(schema.counts);
      expect(counted.map(({ outgoing, what }) => `${outgoing} ${what}`).sort()).toEqual([
        'one answered',
        'two bounced',
      ]);
    });
  });

  it('goes on where it stopped, and takes nothing twice, also where two servers read it at once', async () => {
    await reading();
    await reader?.stop();
    imap.deliver(mail({ Subject: 'While nobody read' }));
    imap.deliver(mail({ Subject: 'Without an id', 'Message-ID': '' }));
    const second = await Database.open(server.url);
    const letters = new LetterService(second, server.services.workers);
    reader = begin();
    const other = begin(imap.url(), letters, second);
    await eventually(async () => expect((await subjects()).sort()).toEqual(['While nobody read', 'Without an id']));
    imap.deliver(mail({ Subject: 'To both' }));
    await eventually(async () => expect(await subjects()).toHaveLength(3));
    // Both have had the time to take it.
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(await subjects()).toHaveLength(3);
    await other.stop();
    await second.close();
  });

  it('says what is wrong, and goes on as soon as nothing is', async () => {
    reader = begin(imap.url('wrong'));
    await eventually(async () =>
      expect(await mailboxNow()).toEqual({
        reading: false,
        why: expect.stringContaining('refuses the user or the password'),
      }),
    );
    await reader.stop();
    await reading();
    await imap.stop();
    await eventually(async () => expect((await mailboxNow()).reading).toBe(false));
    imap.deliver(mail({ Subject: 'After the fall' }));
    await imap.start();
    await eventually(async () => expect(await subjects()).toEqual(['After the fall']));
    expect(await mailboxNow()).toEqual({ reading: true, why: '' });
  });

  it('keeps no place where the mail could not be kept', async () => {
    await reading();
    await reader?.stop();
    imap.deliver(mail({ Subject: 'Kept in the end' }));
    const takeReal = server.services.letters.takeReal.bind(server.services.letters);
    let failures = 0;
    server.services.letters.takeReal = (...given) => {
      failures += 1;
      return failures < 3 ? Promise.reject(new Error('the disk is full')) : takeReal(...given);
    };
    reader = begin();
    await eventually(async () => expect(await subjects()).toEqual(['Kept in the end']));
    expect(failures).toBe(3);
  });

  it('is none where none is named, and says so where the name is none', async () => {
    reader = begin('imap.example');
    await eventually(async () => expect((await mailboxNow()).why).toBe('IMAP_URL is no address of a mailbox.'));
    await reader.stop();
    const none = new MailboxReader(server.database, server.services.letters, LOG);
    none.start(undefined);
    await none.stop();
    await eventually(async () => expect(await mailboxNow()).toBeUndefined());
    const [row] = await server.database.read.select().from(schema.workspace).where(eq(schema.workspace.key, 'mailbox'));
    expect(row?.value).toBe(false);
  });
});
