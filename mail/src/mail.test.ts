import ICAL from 'ical.js';
import PostalMime from 'postal-mime';
import { SMTPServer } from 'smtp-server';
import { afterEach, describe, expect, it } from 'vitest';
import type { AddressInfo } from 'node:net';
import { isMbox, mailsOf, MailService, readEml, SendProblem, toEml, toIcs } from './index.js';

const DATE = new Date('2026-11-24T10:00:00Z');
const invited = {
  subject: 'Grafting, an afternoon',
  to: [{ name: 'Ann Lee', address: 'ann@x.example' }],
  cc: [],
  bcc: [{ name: '', address: 'hidden@x.example' }],
  replyTo: [],
  html: '<p>Come.</p>',
  text: 'Come.\n',
  invitation: { start: '2027-05-11T14:30', zone: 'Europe/Dublin', minutes: 90, place: 'The glasshouse, Larkmoor' },
};

describe('invitations', () => {
  const event = (zone: string, start = '2027-05-11T14:30', ...minutes: [number | undefined] | []) => {
    const ics = toIcs(
      { ...invited, invitation: { ...invited.invitation, zone, start, minutes: minutes.length > 0 ? minutes[0] : 90 } },
      { date: DATE, from: { name: 'Maeve Aldous', address: 'maeve@larkmoor.example' } },
    );
    const calendar = new ICAL.Component(ICAL.parse(ics));
    for (const each of calendar.getAllSubcomponents('vtimezone'))
      ICAL.TimezoneService.register(new ICAL.Timezone(each));
    return { ics, calendar, event: new ICAL.Event(calendar.getFirstSubcomponent('vevent') as ICAL.Component) };
  };
  it.each([
    ['Europe/Dublin', '2027-05-11T13:30:00.000Z'],
    ['America/New_York', '2027-05-11T18:30:00.000Z'],
    ['Asia/Kolkata', '2027-05-11T09:00:00.000Z'],
    ['UTC', '2027-05-11T14:30:00.000Z'],
  ])('stand at the right hour in %s', (zone, instant) => {
    const { event: made } = event(zone);
    expect(made.startDate.toJSDate().toISOString()).toBe(instant);
    expect(made.duration.toSeconds()).toBe(90 * 60);
  });
  it('in winter too, where the clock is another one', () => {
    expect(event('Europe/Dublin', '2027-01-11T14:30').event.startDate.toJSDate().toISOString()).toBe(
      '2027-01-11T14:30:00.000Z',
    );
  });
  it('fold their lines, escape their words, and name who is asked', () => {
    const { ics, calendar } = event('Europe/Dublin');
    for (const line of ics.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(ics).toContain('LOCATION:The glasshouse\\, Larkmoor');
    const attendee = calendar.getFirstSubcomponent('vevent')?.getFirstProperty('attendee');
    expect([attendee?.getParameter('cn'), attendee?.getFirstValue()]).toEqual(['Ann Lee', 'mailto:ann@x.example']);
  });
  it('take whole days as days', () => {
    const { event: made } = event('Europe/Dublin', '2027-05-11', undefined);
    expect([made.startDate.isDate, made.endDate.toString()]).toEqual([true, '2027-05-12']);
  });
  it('come with their mail', async () => {
    const mail = await PostalMime.parse(
      await toEml(invited, { date: DATE, from: { name: '', address: 'maeve@larkmoor.example' } }),
    );
    expect(mail.attachments.some(({ mimeType, method }) => mimeType === 'text/calendar' && method === 'REQUEST')).toBe(
      true,
    );
  });
});

describe('replies and drafts', () => {
  it('stand in their thread, and keep blind copies only while they are drafts', async () => {
    const answers = { messageId: '<b@x.example>', references: '<a@x.example>' };
    const read = async (draft: boolean) =>
      PostalMime.parse(
        await toEml(invited, {
          date: DATE,
          ...(draft ? { draft } : { goes: true }),
          answers,
          messageId: '<c@x.example>',
        }),
      );
    const [sent, draft] = [await read(false), await read(true)];
    expect([sent.messageId, sent.inReplyTo, sent.references]).toEqual([
      '<c@x.example>',
      '<b@x.example>',
      '<a@x.example> <b@x.example>',
    ]);
    expect([sent.bcc, draft.bcc?.[0]?.address]).toEqual([undefined, 'hidden@x.example']);
  });
});

describe('mailboxes', () => {
  const box =
    'From a@x.example Thu Jan  1 00:00:00 2026\nSubject: One\n\n>From here on\n\nFrom b@x.example Thu Jan  1 00:00:00 2026\nSubject: Zwei\n\nGrüße\n';
  it('are taken apart', async () => {
    const bytes = Buffer.from(box);
    expect(isMbox(bytes)).toBe(true);
    const mails = await Promise.all(mailsOf(bytes).map(readEml));
    expect(mails.map(({ subject, text }) => [subject, text?.trim()])).toEqual([
      ['One', 'From here on'],
      ['Zwei', 'Grüße'],
    ]);
    expect(isMbox(Buffer.from('Subject: One\n\nx'))).toBe(false);
  });
});

describe('a mail service', () => {
  let server: SMTPServer | undefined;
  afterEach(() => {
    // Without waiting: some of them never answer.
    server?.close();
    server = undefined;
  });
  const serve = (options: ConstructorParameters<typeof SMTPServer>[0]): Promise<string> =>
    new Promise((resolve) => {
      server = new SMTPServer({ authOptional: true, disabledCommands: ['AUTH', 'STARTTLS'], ...options });
      server.on('error', () => undefined);
      server.listen(0, '127.0.0.1', () =>
        resolve(`smtp://127.0.0.1:${(server?.server.address() as AddressInfo).port}`),
      );
    });
  const mail = { from: 'a@x.example', to: ['b@x.example'], eml: Buffer.from('Subject: Hello\r\n\r\nDear Ann\r\n') };
  const kindOf = async (url: string): Promise<string> => {
    const service = new MailService(url, { connectionTimeout: 1000, greetingTimeout: 1000, socketTimeout: 1000 });
    try {
      await service.send(mail);
      return 'taken';
    } catch (problem) {
      expect(problem).toBeInstanceOf(SendProblem);
      expect((problem as SendProblem).message).toMatch(/^The mail service/);
      return (problem as SendProblem).kind;
    } finally {
      service.close();
    }
  };
  const say = (code: number) => Object.assign(new Error('not today'), { responseCode: code });

  it('takes mail', async () =>
    expect(
      await kindOf(await serve({ onData: (stream, _session, done) => void stream.resume().on('end', () => done()) })),
    ).toBe('taken'));
  it('is down', async () => expect(await kindOf('smtp://127.0.0.1:9')).toBe('service'));
  it('says of a sender, or before that, nothing about the message', async () => {
    expect(await kindOf(await serve({ onMailFrom: (_from, _session, done) => done(say(550)) }))).toBe('sender');
    server?.close();
    expect(await kindOf(await serve({ onConnect: (_session, done) => done(say(554)) }))).toBe('service');
    server?.close();
    expect(await kindOf(await serve({ onRcptTo: (_to, _session, done) => done(say(421)) }))).toBe('service');
  });
  it('refuses a recipient, for good or for now', async () => {
    expect(await kindOf(await serve({ onRcptTo: (_to, _session, done) => done(say(550)) }))).toBe('refused');
    server?.close();
    expect(await kindOf(await serve({ onRcptTo: (_to, _session, done) => done(say(451)) }))).toBe('later');
  });
  it('is lost in mid-message: nobody knows, and it is not given again by itself', async () => {
    let times = 0;
    const url = await serve({
      onData: (stream, session) => {
        times += 1;
        stream.resume();
        const { connections } = server as unknown as { connections: Set<{ id: string; _socket: { destroy(): void } }> };
        setTimeout(
          () => [...connections].filter(({ id }) => id === session.id).forEach((each) => each._socket.destroy()),
          20,
        );
      },
    });
    expect(await kindOf(url)).toBe('unknown');
    expect(times).toBe(1);
  });
  it('is too slow', async () => expect(await kindOf(await serve({ onMailFrom: () => undefined }))).toBe('service'));
});
