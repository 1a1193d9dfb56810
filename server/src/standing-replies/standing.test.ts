/** Standing replies: tried on the past, switched on, and what they do with mail that comes, on one server and on two. */
import type { StandingDecisionLine, StandingReply, StandingRule, TriedStanding } from '@vocabula/contract';
import { readEml } from '@vocabula/mail';
import { eq, ne } from 'drizzle-orm';
import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Database, schema } from '../db/database.js';
import { startStandIn, type StandIn } from '../mailroom/stand-in.js';
import { makeServices } from '../services.js';
import { makePublished, start, type Started } from '../testing/start.js';

interface Place {
  readonly server: Started;
  readonly standIn: StandIn;
}
const places: Place[] = [];
let home: Place;
/** A server whose mail goes to its own stand-in, or where `to` says. */
async function open(to?: () => string | undefined): Promise<Place> {
  const place: { standIn?: StandIn } = {};
  const server = await start(undefined, {
    smtp: () => (to ? to() : place.standIn?.url),
    isStandIn: () => to === undefined,
    log: pino({ level: 'silent' }),
  });
  const standIn = (place.standIn = await startStandIn(server.services.letters));
  const made = { server, standIn };
  places.push(made);
  await makePublished(server, 'Opening hours', TEMPLATE);
  return made;
}
beforeEach(async () => {
  home = await open();
});
afterEach(async () => {
  // A stand-in ends when nobody is connected to it any more.
  for (const { server } of places) await server.services.courier.stop();
  for (const { server, standIn } of places.splice(0)) {
    await server.stop();
    await standIn.close();
  }
});

const TEMPLATE = `---
vocabula: 1
kind: message
purpose: reply
title: Opening hours
variables:
  day: { type: date, required: true }
  name: { type: text, from: recipient.first_name, required: true }
---
Dear {{name}}, on {{day}} we open at ten.
`;
const RULE: StandingRule = {
  title: 'Opening hours',
  when: 'words.contains("open") || subject.contains("hours")',
  text: 'opening-hours',
  values: { day: { from: 'found', nth: 1 } },
  does: 'send',
  everyDays: 7,
  hours: false,
  mostADay: 5,
  timezone: 'Europe/Dublin',
};

let mails = 0;
interface Mail {
  readonly from?: string;
  readonly to?: string;
  readonly subject?: string;
  readonly body?: string;
  readonly headers?: string;
  readonly at?: Date;
  /** What the server was told that it comes from, where that is not what it says. */
  readonly sender?: string;
}
/** A mail comes to the user of a server. */
async function comes(
  {
    from = 'Ann Lee <ann@x.invalid>',
    to,
    subject = 'Hours',
    body = 'When do you open on 3 May 2027?',
    headers = '',
    at = new Date(),
    sender = /<([^>]+)>/.exec(from)?.[1] ?? from,
  }: Mail = {},
  { server }: Place = home,
): Promise<void> {
  mails += 1;
  const raw = `From: ${from}\r\nTo: ${to ?? server.user.address}\r\nSubject: ${subject}\r\nMessage-ID: <m${mails}@x.invalid>\r\n${headers}\r\n${body}\r\n`;
  await server.services.letters.take(sender, [server.user.address], Buffer.from(raw), at);
}
const make = async (more: Partial<StandingRule> = {}, { server }: Place = home): Promise<StandingReply> =>
  (await server.call.post('/api/standing').send({ ...RULE, ...more })).body;
const attempt = async (id: string, wrong: readonly string[] = [], { server }: Place = home): Promise<TriedStanding> =>
  (await server.call.post(`/api/standing/${id}/try`).send({ wrong })).body;
const drive = (id: string, act: string, { server }: Place = home) =>
  server.call.patch(`/api/standing/${id}`).send({ act });
const get = async (id: string): Promise<StandingReply> => (await home.server.call.get(`/api/standing/${id}`)).body;
async function on(more: Partial<StandingRule> = {}, place: Place = home): Promise<string> {
  const { id } = await make(more, place);
  await attempt(id, [], place);
  expect((await drive(id, 'on', place)).body).toMatchObject({ on: true });
  return id;
}
const tick = ({ server }: Place = home): Promise<number> => server.services.standing.runner.tick();
const decisions = async ({ server }: Place = home): Promise<StandingDecisionLine[]> =>
  (await server.call.get('/api/standing/decisions')).body;
const said = async (place: Place = home): Promise<string[]> =>
  (await decisions(place)).map(({ what, why }) => (why === '' ? what : `${what}: ${why}`)).toReversed();
/** As if the time to take back were over. */
async function carry({ server }: Place = home): Promise<void> {
  const { outgoing } = schema;
  await server.database.write((writer) =>
    writer.update(outgoing).set({ due: new Date().toISOString() }).where(eq(outgoing.state, 'waiting')),
  );
  await server.services.courier.run();
}
/** Mails that went out. */
async function went({ server }: Place = home): Promise<Awaited<ReturnType<typeof readEml>>[]> {
  const rows = await server.database.read
    .select({ raw: schema.letters.raw })
    .from(schema.letters)
    .where(eq(schema.letters.sender, server.user.address));
  return Promise.all(rows.map(({ raw }) => readEml(raw)));
}
const ago = (days: number): Date => new Date(Date.now() - days * 86_400_000);

describe('a rule tried on the past', () => {
  it('says which mails it would have answered, and why others not', async () => {
    await comes({ at: ago(30), body: 'Are you open on 1 May 2027?' });
    await comes({ at: ago(28), body: 'And are you open on 2 May 2027?' });
    await comes({ at: ago(20), subject: 'Something else', body: 'A goose bit me.' });
    await comes({ at: ago(10), body: 'Do you open at all?' });
    await comes({ at: ago(5), headers: 'List-Id: <all.x.invalid>\r\n' });
    await comes({ at: ago(200), body: 'Were you open on 1 May 2026?' });
    const { id } = await make();
    const { standing, mails: found } = await attempt(id);
    expect(standing.trial).toMatchObject({ looked: 5, answered: 2, held: 1, current: true, stillWrong: 0 });
    expect(found.map(({ what, why }) => `${what} ${why}`)).toEqual([
      'suggest Still blank: Day.',
      expect.stringMatching(/^nothing its sender got a standing reply on /),
      'send ',
    ]);
  });

  it('shows each reply as it would read', async () => {
    await comes({ body: 'When do you open on 3 May 2027?\n\n> On 1 May we were closed.' });
    const { id } = await make();
    const [mail] = (await attempt(id)).mails;
    const { body } = await home.server.call.get(`/api/standing/${id}/replies/${mail?.letter ?? ''}`);
    expect(body).toMatchObject({ subject: 'Re: Hours', blanks: [] });
    expect(body.text).toMatch(/^Dear Ann, on 3 May 2027 we open at ten\./);
    expect((await home.server.call.get(`/api/standing/${id}/replies/none`)).status).toBe(404);
  });

  it('keeps what was marked as wrong, and is not switched on until that is mended', async () => {
    await comes({ subject: 'Opening a jar', body: 'Do you open jars on 4 May 2027?' });
    const { id } = await make();
    const [wrong] = (await attempt(id)).mails;
    const letter = wrong?.letter ?? '';
    expect((await attempt(id, [letter])).standing.trial).toMatchObject({ wrong: [letter], stillWrong: 1 });
    expect((await drive(id, 'on')).body.message).toContain('you marked as wrong');
    await home.server.call.put(`/api/standing/${id}`).send({ ...RULE, when: 'subject.contains("hours")' });
    expect((await drive(id, 'on')).body.message).toContain('Try it on the past');
    expect((await attempt(id, [letter])).standing.trial).toMatchObject({ answered: 0, stillWrong: 0, current: true });
    expect((await drive(id, 'on')).status).toBe(200);
  });

  it('needs a condition and a template', async () => {
    const { id } = await make({ when: 'nothing(' });
    expect((await get(id)).problem).not.toBe('');
    expect((await home.server.call.post(`/api/standing/${id}/try`).send({ wrong: [] })).status).toBe(422);
    const other = await make({ text: '' });
    expect((await home.server.call.post(`/api/standing/${other.id}/try`).send({ wrong: [] })).body.code).toBe(
      'no-template',
    );
    const none = await make({ text: 'no-such-template' });
    await comes();
    expect((await home.server.call.post(`/api/standing/${none.id}/try`).send({ wrong: [] })).status).toBe(404);
  });
});

describe('a rule that is on', () => {
  it('sends an answer that says what it is, in the thread, once', async () => {
    await on();
    await comes({ headers: 'References: <first@x.invalid>\r\n' });
    expect(await tick()).toBe(1);
    expect(await tick()).toBe(0);
    await carry();
    const [answer, ...others] = await went();
    expect(others).toEqual([]);
    expect(answer?.headers).toMatchObject({ 'auto-submitted': 'auto-replied' });
    expect(answer?.subject).toBe('Auto: Re: Hours');
    expect(answer?.to).toEqual(['Ann Lee <ann@x.invalid>']);
    expect(answer?.inReplyTo).toBe(`<m${mails}@x.invalid>`);
    expect(answer?.references).toBe(`<first@x.invalid> <m${mails}@x.invalid>`);
    expect(answer?.text).toContain('Dear Ann, on 3 May 2027 we open at ten.');
    expect(await said()).toEqual(['send']);
    const inbox = (await home.server.call.get('/api/mailroom/inbox')).body as { done: boolean }[];
    expect(inbox.every(({ done }) => done)).toBe(true);
  });

  it('answers nothing that came before, and one sender once in its period', async () => {
    await comes({ at: ago(1) });
    await on();
    await comes();
    await comes({ subject: 'Hours again' });
    await comes({ from: 'bo@y.invalid' });
    await tick();
    expect(await said()).toEqual([
      'send',
      expect.stringMatching(/^nothing: its sender got a standing reply on/),
      'suggest: Still blank: Name.',
    ]);
  });

  it('counts its period on the clock that counts, so that nothing is decided on again and again', async () => {
    await on();
    await comes();
    await tick();
    await home.server.call.post('/api/mailroom/clock').send({ hours: 8 * 24 });
    await comes({ subject: 'Hours again', at: new Date(Date.now() + 8 * 86_400_000) });
    expect(await tick()).toBe(1);
    expect(await tick()).toBe(0);
    expect(await said()).toEqual(['send', 'send']);
  });

  it('writes down the reason wherever it does not answer', async () => {
    await on();
    await home.server.call.put('/api/recipients/do-not-write').send({ address: 'never@x.invalid', because: 'asked' });
    await comes({ subject: 'Geese', body: 'They bite.' });
    await comes({ headers: 'Auto-Submitted: auto-replied\r\n' });
    await comes({ headers: 'Precedence: bulk\r\n' });
    await comes({ from: home.server.user.address });
    await comes({ from: 'Never <never@x.invalid>' });
    await comes({ to: 'all@larkmoor.invalid' });
    await comes({ headers: 'Reply-To: office@x.invalid\r\n' });
    await comes({ sender: '' });
    await comes({ sender: 'elsewhere@x.invalid' });
    await tick();
    expect(await said()).toEqual([
      'nothing: no condition holds',
      'nothing: a program or a mailing list sent it',
      'nothing: a program or a mailing list sent it',
      'nothing: you wrote it yourself',
      'nothing: its sender is on the do-not-write list',
      'suggest: it does not name you among its recipients',
      'suggest: it wants its answer at another address',
      'nothing: a program or a mailing list sent it',
      'suggest: it came from another address than it says',
    ]);
    expect(await home.server.database.read.select().from(schema.outgoing)).toEqual([]);
  });

  it('leaves a draft where it is to, which says nothing of programs', async () => {
    await on({ does: 'draft' });
    await comes();
    await tick();
    const [draft] = (await home.server.call.get('/api/outgoing')).body as {
      id: string;
      state: string;
      subject: string;
    }[];
    expect(draft).toMatchObject({ state: 'draft', subject: 'Re: Hours' });
    await home.server.call.patch(`/api/outgoing/${draft?.id ?? ''}`).send({ act: 'now' });
    await home.server.services.courier.run();
    expect((await went())[0]?.headers['auto-submitted']).toBeUndefined();
  });

  it('offers its template where it is to, filled with what the mail says', async () => {
    const id = await on({ does: 'suggest' });
    await comes();
    await tick();
    const [{ letter } = { letter: '' }] = await decisions();
    const read = (await home.server.call.get(`/api/fills/read/${letter}`)).body;
    expect(read.likely[0]).toMatchObject({ name: 'opening-hours', standing: id });
    const fill = await home.server.call.post('/api/fills').send({ text: 'opening-hours', letter, standing: id });
    expect(fill.body.answers).toEqual({ day: '2027-05-03' });
    expect(fill.body.notes).toEqual([]);
  });

  it('is switched off by the most it may send a day, and says so', async () => {
    const id = await on({ mostADay: 2 });
    for (const who of ['a', 'b', 'c', 'd']) await comes({ from: `${who} <${who}@x.invalid>` });
    await tick();
    expect(await said()).toEqual(['send', 'send', ...Array(2).fill('nothing: it has sent 2 that day, its most')]);
    expect(await get(id)).toMatchObject({ on: false, why: expect.stringContaining('2 replies') });
    await comes({ from: 'e <e@x.invalid>' });
    expect(await tick()).toBe(0);
  });

  it('waits for working hours where it is to', async () => {
    const never = { from: '09:00', to: '17:00', days: [((new Date().getUTCDay() + 2) % 7) + 1] };
    const usual = { signs: false, order: 'together', look: 'house', images: true, tried: true };
    expect((await home.server.call.put('/api/me/ways').send({ ...usual, ...never })).status).toBeLessThan(300);
    await on({ hours: true });
    await comes();
    await tick();
    const [row] = await home.server.database.read.select().from(schema.outgoing);
    expect(Date.parse(row?.due ?? '')).toBeGreaterThan(Date.now() + 3_600_000);
  });

  it('goes off when it is changed, and stays on when it is only called otherwise', async () => {
    const id = await on();
    const save = (more: object) => home.server.call.put(`/api/standing/${id}`).send({ ...RULE, ...more });
    expect((await save({ title: 'Hours' })).body).toMatchObject({ on: true });
    expect((await save({ everyDays: 1 })).body).toMatchObject({ on: false, why: expect.stringContaining('changed') });
  });

  it('offers what it cannot send, where its template was withdrawn', async () => {
    await on();
    expect((await home.server.call.put('/api/versions/opening-hours/retired').send({})).status).toBeLessThan(300);
    await comes();
    await tick();
    expect(await said()).toEqual([expect.stringMatching(/^suggest: .*retired/)]);
  });

  it('of several, the first decides; they change places, and are put away and taken back', async () => {
    const first = await on({ title: 'First', does: 'suggest' });
    const second = await on({ title: 'Second', does: 'suggest' });
    const order = async () =>
      ((await home.server.call.get('/api/standing')).body as StandingReply[]).map(({ id }) => id);
    await drive(second, 'up');
    expect(await order()).toEqual([second, first]);
    await comes();
    await tick();
    expect((await decisions())[0]).toMatchObject({ title: 'Second' });
    await drive(second, 'bin');
    expect(await order()).toEqual([first]);
    expect((await drive(second, 'restore')).body).toMatchObject({ on: false });
  });
});

describe('whatever happens', () => {
  it('two processes that look at one moment answer once', async () => {
    await on();
    await comes();
    const other = await Database.open(home.server.database.url);
    const services = makeServices(other, { smtp: () => home.standIn.url, isStandIn: () => true });
    await Promise.all([tick(), services.standing.runner.tick()]);
    await Promise.all([tick(), services.standing.runner.tick()]);
    await carry();
    expect(await went()).toHaveLength(1);
    await services.workers.close();
    await other.close();
  });

  it('without a mail service it offers what it cannot send', async () => {
    const place = await open(() => undefined);
    await on({}, place);
    await comes({}, place);
    await tick(place);
    expect(await said(place)).toEqual(['suggest: No mail service is set up: SMTP_URL is empty.']);
  });

  it('somebody who is forgotten is in no decision', async () => {
    await on();
    await comes();
    await tick();
    await carry();
    expect((await home.server.call.post('/api/recipients/forget').send({ address: 'ann@x.invalid' })).status).toBe(200);
    const rows = await home.server.database.read.select().from(schema.standingDecisions);
    expect(rows).toHaveLength(1);
    expect(JSON.stringify(rows)).not.toContain('ann@x');
    expect(await decisions()).toMatchObject([{ from: '', subject: '' }]);
  });

  it('a mail of a hundred thousand words and one that is none are decided on', async () => {
    await on();
    await comes({ body: 'When do you open on 3 May 2027? '.repeat(20_000) });
    await home.server.services.letters.take('', [home.server.user.address], Buffer.from('no mail at all'));
    expect(await tick()).toBe(2);
    expect(await said()).toEqual(['send', 'nothing: it does not say who wrote it']);
  });

  it('mails of many megabytes are read one after the other, with the small ones between them', async () => {
    await on({ when: 'files > 0' });
    const part = (name: string, bytes: number): string =>
      `--x\r\nContent-Type: application/pdf; name="${name}"\r\nContent-Disposition: attachment; filename="${name}"\r\nContent-Transfer-Encoding: base64\r\n\r\n${'QUJD'.repeat(bytes / 4)}\r\n`;
    for (const [at, bytes] of [9_000_000, 100, 9_000_000, 100].entries())
      await comes({
        from: `Ann Lee <ann${at}@x.invalid>`,
        headers: 'Content-Type: multipart/mixed; boundary=x\r\n',
        body: `--x\r\nContent-Type: text/plain\r\n\r\nDay: 3 May 2027\r\n${part('plan.pdf', bytes)}--x--`,
      });
    await tick();
    expect(await said()).toEqual(['send', 'send', 'send', 'send']);
  });

  it('what somebody else has is theirs', async () => {
    const id = await on();
    const other = await home.server.as('colleague');
    expect((await other.get('/api/standing')).body).toEqual([]);
    for (const act of ['on', 'bin']) expect((await other.patch(`/api/standing/${id}`).send({ act })).status).toBe(404);
  });
});

describe('two servers that answer each other', () => {
  /** Mail as a relay would hand it on that keeps no header it does not know. */
  async function strip(place: Place): Promise<void> {
    const { letters } = schema;
    const rows = await place.server.database.read
      .select()
      .from(letters)
      .where(ne(letters.raw, Buffer.alloc(0)));
    await place.server.database.write(async (writer) => {
      for (const { id, raw } of rows) {
        const plain = raw.toString('latin1').replace(/^Auto-Submitted:.*\r\n/im, '');
        await writer
          .update(letters)
          .set({ raw: Buffer.from(plain, 'latin1') })
          .where(eq(letters.id, id));
      }
    });
  }
  async function exchange(stripped: boolean): Promise<number[]> {
    const [here, there]: Place[] = [
      await open(() => places.at(-1)?.standIn.url),
      await open(() => places.at(-2)?.standIn.url),
    ];
    if (!here || !there) throw new Error('no servers');
    const rule = { when: 'words.contains("open")', values: { day: { from: 'fixed' as const, value: '2027-05-03' } } };
    await on({ ...rule }, here);
    await on({ ...rule }, there);
    const name = (place: Place): string => `Ann Lee <${place.server.user.address}>`;
    await comes({ from: name(there), body: 'Do you open?' }, here);
    for (let round = 0; round < 6; round += 1)
      for (const place of [here, there]) {
        if (stripped) await strip(place);
        await tick(place);
        await carry(place);
      }
    const sent = async (place: Place): Promise<number> =>
      (await place.server.database.read.select().from(schema.outgoing)).length;
    return [await sent(here), await sent(there)];
  }
  it('stop after one', async () => {
    expect(await exchange(false)).toEqual([1, 0]);
  });
  it('stop after one each, even where every sign that a program wrote is lost on the way', async () => {
    expect(await exchange(true)).toEqual([1, 1]);
  });
});
