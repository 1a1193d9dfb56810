/** Past mails for tests and benches, rendered by the engine from known templates. */
import { compileBundle } from '../../bundle/bundle.js';
import { readHtml } from '../../formats/html/index.js';
import { readText } from '../../formats/markdown/index.js';
import { PLAIN_HOUSE } from '../../house/house.js';
import { random } from '../../random.js';
import { render } from '../../render/render.js';
import type { PastMail } from '../mail.js';

type Draw = () => number;

const oneOf = <T>(draw: Draw, all: readonly T[]): T => all[Math.floor(draw() * all.length)] as T;
const someDay = (draw: Draw): string =>
  new Date(Date.UTC(2027, 0, 5) + Math.floor(draw() * 350) * 86_400_000).toISOString().slice(0, 10);

const PEOPLE = [
  ['Siobhán', 'Ní Bhriain'],
  ['Bo', 'Li'],
  ['Tomás', 'Breen'],
  ['Anne-Marie', 'O’Toole'],
  ['Ngozi', 'Okafor'],
  ['Owen', 'Pugh'],
  ['Priya', 'Raghunathan'],
  ['Zdeněk', 'Dvořáček'],
  ['Ελένη', 'Παπαδάκη'],
] as const;

/** A kind of mail: its template, and random answers. */
export interface Corpus {
  readonly name: string;
  readonly locale: string;
  readonly source: string;
  readonly answer: (draw: Draw) => Readonly<Record<string, unknown>>;
}

/** Renders mails; the same seed gives the same mails. */
export function mailsOf({ source, answer }: Corpus, count: number, seed = 1): PastMail[] {
  const draw = random(seed).fraction;
  const { document } = readText(source);
  const text = { name: 'corpus', document };
  const program = compileBundle({ text, texts: [text], house: PLAIN_HOUSE });
  return Array.from({ length: count }, (_, at): PastMail => {
    const [first_name = '', last_name = ''] = oneOf(draw, PEOPLE);
    const email = `person${at}@quillmere.example`;
    const recipient = { first_name, last_name, email };
    const day = '2026-11-27';
    const { subject, html } = render(program, { recipient, answers: answer(draw), today: day });
    return {
      ...{ file: `mail-${String(at + 1).padStart(3, '0')}.eml`, subject, day },
      from: 'Maeve Aldous <maeve@larkmoor.example>',
      to: [`${first_name} ${last_name} <${email}>`],
      body: readHtml(html).blocks,
    };
  });
}

const head = (more: string, locale = 'en-IE'): string =>
  `---\nvocabula: 1\nkind: message\ntitle: Corpus\nlocale: ${locale}\n${more}\n---\n`;

/** Kinds of mail; `name` says what has to be recognised. */
export const CORPORA: Readonly<Record<'visits' | 'tickets' | 'replies' | 'plans' | 'fees' | 'german', Corpus>> = {
  visits: {
    name: 'dates in two views, a choice, an optional phrase',
    locale: 'en-IE',
    source: `${head(`subject: "Your visit on {{visit_date.day}} {{visit_date.month}}"
variables:
  first_name: { type: text, from: recipient.first_name }
  visit_date: { type: date }
  gate: { type: choice, options: { north: { wording: the north gate on Quarry Lane }, river: { wording: the river gate } } }
  guide: { type: yes-no }`)}
Dear {{first_name}},

We look forward to seeing you on **{{visit_date.full}}**. Please come to {{gate}}{{#guide}}, where your guide will meet you{{/guide}}.

Paths may be icy before ten. Bring boots, and leave the dog at home.

Kind regards, Maeve Aldous
`,
    answer: (draw) => ({
      visit_date: someDay(draw),
      gate: oneOf(draw, ['north', 'river']),
      guide: draw() < 0.5,
    }),
  },
  tickets: {
    name: 'a number with agreeing words',
    locale: 'en-IE',
    source: `${head(`subject: Your tickets
variables:
  tickets: { type: number, forms: { noun: { one: ticket, other: tickets }, verb: { one: is, other: are } } }
  seat: { type: text }`)}
Hello {{recipient.first_name}},

Your {{tickets}} {{tickets.noun}} {{tickets.verb}} at the desk, in the name of {{seat}}. We keep them until noon.
`,
    answer: (draw) => ({
      tickets: draw() < 0.4 ? 1 : 2 + Math.floor(draw() * 12),
      seat: `${oneOf(draw, ['Quill', 'Moor', 'Fern', 'Birch', 'Lark', 'Heron'])}${Math.floor(draw() * 900)}`,
    }),
  },
  replies: {
    name: 'alternatives and an optional paragraph that go together',
    locale: 'en-IE',
    source: `${head(`subject: About what you lost
variables:
  thing: { type: text }
  found: { type: choice, options: { yes: Yes, no: No } }
  fee: { type: yes-no }`)}
Dear {{recipient.first_name}},

{{#found.yes}}
We have found {{thing}} below a bench. It waits for you at the gate for four weeks.
{{/found.yes}}

{{#found.no}}
All benches were looked under and the pond was asked, without luck so far. Should it turn up, we write at once.
{{/found.no}}

Our opening hours stand at the gate.

{{#found.yes}}
Please bring this mail along when you come.
{{/found.yes}}

{{#fee}}
Sending it by post would cost six euros.
{{/fee}}
`,
    answer: (draw) => ({
      thing: `${oneOf(draw, ['a blue', 'a red', 'a green', 'an old'])} ${oneOf(draw, ['umbrella', 'scarf', 'hat', 'glove', 'bag'])}`,
      found: oneOf(draw, ['yes', 'no']),
      fee: draw() < 0.4,
    }),
  },
  plans: {
    name: 'rows that repeat',
    locale: 'en-IE',
    source: `${head(`subject: Your day with us
variables:
  day: { type: date }
  plan: { type: list, columns: { when: { type: text }, what: { type: text } } }`)}
Dear {{recipient.first_name}},

This is the plan for {{day.full}}:

| When | What |
| --- | --- |
{{#plan}}
| {{when}} | {{what}} |
{{/plan}}

Lunch may be eaten in the potting shed.
`,
    answer: (draw) => ({
      day: someDay(draw),
      plan: Array.from({ length: 2 + Math.floor(draw() * 3) }, (_, at) => ({
        when: `${9 + at * 2}:${oneOf(draw, ['00', '15', '30', '45'])}`,
        what: `${oneOf(draw, ['Ferns', 'Moss', 'The pond', 'The palm house', 'Seeds', 'Baskets'])} with ${oneOf(draw, ['Kofi', 'Inês', 'Petra', 'Hana', 'Bertil'])}`,
      })),
    }),
  },
  fees: {
    name: 'a passage by a threshold, a sum worked out, a day so many days before',
    locale: 'en-IE',
    source: `${head(`subject: Group visit
variables:
  party: { type: number }
  visit_date: { type: date }
  large: { type: yes-no, value: "party >= 15" }
  fee: { type: money, currency: EUR, value: "party * 4.5" }
  reply_by: { type: date, value: "addDays(visit_date, -7)" }`)}
Dear {{recipient.first_name}},

Your group of {{party}} is expected on {{visit_date.long}}.

{{#large}}
The picnic lawn is yours from noon; the geese have been spoken to.
{{/large}}

The entrance fee comes to {{fee}}. Please answer by {{reply_by.long}}.
`,
    answer: (draw) => ({ party: 2 + Math.floor(draw() * 38), visit_date: someDay(draw) }),
  },
  german: {
    name: 'another language',
    locale: 'de-DE',
    source: `${head(
      `subject: Ihr Besuch
variables:
  tag: { type: date }
  betrag: { type: money, currency: EUR }
  bahn: { type: yes-no }`,
      'de-DE',
    )}
Guten Tag {{recipient.first_name}} {{recipient.last_name}},

wir erwarten Sie am {{tag.full}}. Der Eintritt kostet zusammen {{betrag}}.

{{#bahn}}
Vom Bahnhof sind es zehn Minuten zu Fuß; am Fluss entlang ist es schöner.
{{/bahn}}

Mit freundlichen Grüßen
`,
    answer: (draw) => ({ tag: someDay(draw), betrag: Math.round(draw() * 20_000) / 100, bahn: draw() < 0.5 }),
  },
};
