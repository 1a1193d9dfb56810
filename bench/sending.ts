/**
 * 1,000 personal messages rendered and accepted by the stand-in, against `nodemailer` giving it 1,000 fixed messages of
 * the same length over one connection. As a ratio of the rates; both are kept by the stand-in in the same database.
 */
import { figure } from './figures.js';
import { createTransport } from 'nodemailer';
import { eq } from 'drizzle-orm';
import { schema } from '../server/src/db/database.js';
import { startStandIn } from '../server/src/mailroom/stand-in.js';
import { makePublished, start } from '../server/src/testing/start.js';

const MESSAGES = 1000;
const TEMPLATE = `---
vocabula: 1
kind: message
title: Visit
subject: "Your visit on {{visit_date.long}}"
to: "{{recipient.email}}"
variables:
  first_name: { type: text, from: recipient.first_name, required: true }
  visit_date: { type: date, from: recipient.visit_date, required: true }
  party: { type: number, from: recipient.party, required: true }
  large: { type: yes-no, value: "party >= 15" }
---
Dear {{first_name}},

We look forward to seeing your group of {{party}} on **{{visit_date.full}}**.

{{#large}}
The picnic lawn is yours from noon. Bring rugs; the geese have been spoken to, and have promised nothing.
{{/large}}

The garden is open daily from nine. Last entry is an hour before closing.
`;

export async function bench(): Promise<void> {
  const mail: { smtp?: string } = {};
  const server = await start(undefined, { smtp: () => mail.smtp, isStandIn: () => true });
  const standIn = await startStandIn(server.services.letters);
  mail.smtp = standIn.url;
  await makePublished(server, 'Visit', TEMPLATE);
  /** A mailing of which one has gone and the rest is ready. */
  const mailingOf = async (count: number): Promise<string> => {
    const { id: fill } = (await server.call.post('/api/fills').send({ text: 'visit' })).body;
    const id = (await server.call.post('/api/mailings').send({ fill, timezone: 'UTC' })).body.id as string;
    const people = Array.from(
      { length: count + 1 },
      (_, at) => `Person ${at},p${at}@x.example,2027-06-14,${(at % 40) + 1}`,
    );
    await server.call
      .post(`/api/mailings/${id}/recipients`)
      .send({ paste: ['First name,Email,Visit date,Party', ...people].join('\n') });
    await server.call.post(`/api/mailings/${id}/drive`).send({ act: 'first', count: count + 1 });
    await server.services.courier.run();
    return id;
  };
  const rest = async (id: string): Promise<void> => {
    await server.database.write((writer) =>
      writer.update(schema.mailings).set({ state: 'going' }).where(eq(schema.mailings.id, id)),
    );
    await server.services.courier.run();
  };
  // Both are measured warm.
  await rest(await mailingOf(MESSAGES / 2));
  const [first] = await server.database.read.select().from(schema.letters).limit(1);
  if (!first) throw new Error('the first message did not arrive');
  let round = 0;

  /** The rate at which fixed messages are taken, per second. */
  const fixed = async (): Promise<number> => {
    const transport = createTransport({ url: standIn.url, pool: true, maxConnections: 1 });
    const raw = Buffer.from(first.raw);
    round += 1;
    const begun = performance.now();
    for (let at = 0; at < MESSAGES; at += 1) {
      // Another mail each time: one that is given twice is kept once.
      const own = Buffer.from(
        raw.toString('latin1').replace(/^Message-ID: <.{6}/m, `Message-ID: <f${round}${String(at).padStart(4, '0')}`),
        'latin1',
      );
      await transport.sendMail({ envelope: { from: 'a@x.example', to: `f${at}@y.example` }, raw: own });
    }
    const rate = (MESSAGES / (performance.now() - begun)) * 1000;
    transport.close();
    return rate;
  };
  await fixed();
  const mailing = await mailingOf(MESSAGES);
  const before = await fixed();
  const begun = performance.now();
  await rest(mailing);
  const own = (MESSAGES / (performance.now() - begun)) * 1000;
  const { counts } = (await server.call.get(`/api/mailings/${mailing}/progress`)).body as { counts: { gone?: number } };
  if (counts.gone !== MESSAGES + 1) throw new Error(`${counts.gone} of ${MESSAGES + 1} went`);
  const after = await fixed();
  const ratio = own / ((before + after) / 2);
  figure('personal messages, of the rate of fixed ones', ratio, 0.9, 'more');
  console.log(
    `${MESSAGES} personal messages, against as many fixed ones by nodemailer before and after: ${ratio.toFixed(2)}× of their rate`,
  );
  await server.stop();
  await standIn.close();
}
