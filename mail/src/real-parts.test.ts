/** What leaves, read and carried by programs that are not ours. */
import { createHash } from 'node:crypto';
import PostalMime from 'postal-mime';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toIcs } from './invitation.js';
import { toEml, type MailMessage } from './message.js';
import { MailService } from './send.js';
import { hasAgent, hasCalendars, hasPython, readWith, startAgent, type Agent } from './testing/real.js';

const LONG = 'A line that goes on and on, as a paragraph does that nobody breaks. '.repeat(40).trim();
const POINT = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAwAAAAMCAIAAADZF8uwAAAAFUlEQVR42mOQy0sjiBhGFY0qwq8IAMvFFVEqBgeSAAAAAElFTkSuQmCC',
  'base64',
);
const EVERY_BYTE = Buffer.from(Array.from({ length: 1024 }, (_, at) => at % 256));
const assets = (path: string) =>
  path.endsWith('.png')
    ? { content: POINT, type: 'image/png' }
    : { content: EVERY_BYTE, type: 'application/octet-stream' };

const message: MailMessage = {
  subject: 'Fáilte, 歓迎: your visit on Tuesday 11 May, with the map that you asked for and the times of the bus',
  to: [
    { name: 'Siobhán Ní Bhriain', address: 'siobhan@people.example' },
    { name: '山田 花子', address: 'hanako@people.example' },
  ],
  cc: [{ name: 'Visits; groups, "large"', address: 'visits@larkmoor.example' }],
  bcc: [],
  replyTo: [],
  text: `Dear Siobhán,\n\n.\n..two dots\nFrom here on\n\n${LONG}\n\n歓迎\n`,
  html: `<!doctype html><html><body><p>Dear Siobhán,<br>.<br>歓迎</p><p>${LONG}</p><img src="assets/point.png" alt="point"></body></html>`,
  width: 640,
  attachments: [
    { file: 'assets/plan.bin', name: 'Plan für Ann – 図' },
    { file: 'assets/other.bin', name: 'Say "é" \\ twice; =?utf-8?q?x?=' },
    { file: 'assets/point.png', name: 'point.png' },
  ],
};
const options = {
  from: { name: 'Maeve Aldous', address: 'maeve@larkmoor.example' },
  date: new Date('2027-05-11T09:30:00Z'),
  assets,
};
const digest = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

describe.skipIf(!hasPython)('a draft, read by another program', () => {
  const READ = `
import sys, json, hashlib, email
from email import policy
mail = email.message_from_bytes(sys.stdin.buffer.read(), policy=policy.default)
parts = list(mail.walk())
defects = [str(d) for p in parts for d in p.defects] + [str(d) for p in parts for v in p.values() for d in getattr(v, 'defects', ())]
people = lambda name: [[a.display_name, a.addr_spec] for a in mail[name].addresses]
print(json.dumps({
  'defects': defects, 'subject': mail['subject'], 'to': people('to'), 'cc': people('cc'), 'from': people('from'),
  'automatic': mail['auto-submitted'], 'answers': mail['in-reply-to'], 'thread': mail['references'],
  'date': mail['date'].datetime.isoformat(), 'unsent': mail['x-unsent'],
  'text': mail.get_body(('plain',)).get_content(), 'html': mail.get_body(('html',)).get_content(),
  'files': [[p.get_filename(), p.get_content_type(), p.get_content_disposition(), hashlib.sha256(p.get_payload(decode=True)).hexdigest()] for p in parts if p.get_filename()],
}))`;
  it('has no defects, and says what was said', async () => {
    const eml = await toEml(message, { ...options, draft: true });
    const read = readWith(READ, eml) as Record<string, unknown>;
    expect(read.defects).toEqual([]);
    expect(read).toMatchObject({
      subject: message.subject,
      to: message.to.map(({ name, address }) => [name, address]),
      cc: message.cc.map(({ name, address }) => [name, address]),
      from: [['Maeve Aldous', 'maeve@larkmoor.example']],
      date: '2027-05-11T09:30:00+00:00',
      unsent: '1',
    });
    expect(String(read.text).replace(/\r\n/g, '\n').trimEnd()).toBe(message.text.trimEnd());
    expect(String(read.html).trimEnd()).toBe(
      message.html.replace(
        '<img src="assets/point.png"',
        `<img width="12" src="cid:${digest(POINT).slice(0, 24)}@vocabula.example"`,
      ),
    );
    expect([read.automatic, read.answers, read.thread]).toEqual([null, null, null]);
    expect(read.files).toEqual(
      expect.arrayContaining([
        ['point.png', 'image/png', 'inline', digest(POINT)],
        ['Plan für Ann – 図.bin', 'application/octet-stream', 'attachment', digest(EVERY_BYTE)],
        ['Say "é" \\ twice; =?utf-8?q?x?=.bin', 'application/octet-stream', 'attachment', digest(EVERY_BYTE)],
      ]),
    );
    expect((await PostalMime.parse(eml)).subject).toBe(message.subject);
  });

  it('says that a program answers, and whose thread goes on', async () => {
    const answers = {
      messageId: '<third@people.example>',
      references: '<first@people.example> <second@people.example>',
    };
    const eml = await toEml(message, { ...options, automatic: true, answers });
    expect(readWith(READ, eml)).toMatchObject({
      defects: [],
      unsent: null,
      automatic: 'auto-replied',
      answers: '<third@people.example>',
      thread: '<first@people.example> <second@people.example> <third@people.example>',
    });
  });
});

describe.skipIf(!hasCalendars)('an invitation, read by another program', () => {
  const READ = `
import sys, json
from datetime import timezone
from icalendar import Calendar
calendar = Calendar.from_ical(sys.stdin.buffer.read())
event = calendar.walk('VEVENT')[0]
utc = lambda name: event.decoded(name).astimezone(timezone.utc).isoformat()
print(json.dumps({
  'errors': [str(e) for e in event.errors], 'method': str(calendar['method']), 'summary': str(event['summary']),
  'start': utc('dtstart'), 'end': utc('dtend'), 'location': str(event['location']), 'description': str(event['description']),
  'organizer': [str(event['organizer']), event['organizer'].params.get('CN')],
  'attendees': [[str(a), a.params.get('CN')] for a in event['attendee']],
}))`;
  it('has no errors, and stands at the right hour', () => {
    const place = 'The glasshouse; beds 3, 4\\5';
    const ics = toIcs(
      { ...message, invitation: { start: '2027-05-11T14:30', zone: 'Europe/Dublin', minutes: 90, place } },
      options,
    );
    expect(readWith(READ, Buffer.from(ics))).toEqual({
      errors: [],
      method: 'REQUEST',
      summary: message.subject,
      // Summer time in Dublin is an hour ahead.
      start: '2027-05-11T13:30:00+00:00',
      end: '2027-05-11T15:00:00+00:00',
      location: place,
      description: message.text.trim(),
      organizer: ['mailto:maeve@larkmoor.example', 'Maeve Aldous'],
      attendees: [...message.to, ...message.cc].map(({ name, address }) => [
        `mailto:${address}`,
        // A quotation mark cannot stand in a parameter (RFC 5545, 3.2).
        name.replace(/"/g, ''),
      ]),
    });
  });
});

describe.skipIf(!hasAgent)('a message through a mail transfer agent', () => {
  let agent: Agent;
  beforeAll(async () => {
    agent = await startAgent();
  }, 30_000);
  afterAll(() => agent.stop());

  it('arrives byte for byte', async () => {
    const eml = await toEml(message, { ...options, goes: true });
    const service = new MailService(agent.url);
    expect(await service.send({ from: options.from.address, to: ['siobhan@people.example'], eml })).toEqual([]);
    service.close();
    const [arrived = Buffer.alloc(0)] = await agent.delivered(1);
    // A maildir ends its lines as files do; what the agent adds stands before the message.
    const sent = Buffer.from(eml).toString('latin1').replace(/\r\n/g, '\n');
    expect(arrived.toString('latin1').trimEnd().endsWith(sent.trimEnd())).toBe(true);
    const mail = await PostalMime.parse(arrived);
    expect(mail.subject).toBe(message.subject);
    expect(mail.to).toEqual(message.to);
    expect(mail.text?.trimEnd()).toBe(message.text.trimEnd());
    expect(
      mail.attachments.map(({ filename, content }) => [filename, digest(new Uint8Array(content as ArrayBuffer))]),
    ).toEqual(
      expect.arrayContaining([
        ['Plan für Ann – 図.bin', digest(EVERY_BYTE)],
        ['point.png', digest(POINT)],
      ]),
    );
  }, 60_000);
});
