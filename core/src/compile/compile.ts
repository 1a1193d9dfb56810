/** Compiles a template with everything it includes. Compile once, render many. */
import { distinct, error, type Finding } from '../findings/finding.js';
import { bodyOf, part, type Inline, type NamedDocument, type TextDocument } from '../template/document.js';
import { marked } from '../values/mailbox.js';
import { Binder } from './bind.js';
import { BodyCompiler } from './body.js';
import { PLAIN_HOUSE } from '../house/house.js';
import { factValues } from '../house/facts.js';
import { LineCompiler } from './line.js';
import { link } from './link.js';
import { compileSteps } from './steps.js';
import type { BlockUnit, Governed, Line, Program } from './program.js';
import type { CompileOptions } from './options.js';
import type { Site } from './site.js';
import { bindExpressions, makeSlots } from './slots.js';
import type { TextUnit } from './texts.js';

export type { CompileOptions } from './options.js';

/** Stands in where only the form of relative limits matters. */
const SOME_DAY = '2000-01-01';

/** Compiles a template. Never throws for what a template holds; everything wrong is among `findings`. */
export function compile(named: NamedDocument, options: CompileOptions): Program {
  const findings: Finding[] = [];
  const house = options.house ?? PLAIN_HOUSE;
  const today = options.today ?? SOME_DAY;
  const linked = link(named, options, house, today, findings);
  const { own, before, after } = linked;
  const { slots, units } = makeSlots(linked.declarations, findings);
  const facts = new Map(
    Object.entries(house.facts).map(([key, fact]) => [key, factValues(fact, { today, locale: house.locale })]),
  );
  const binder = new Binder(slots, house, facts, findings);
  bindExpressions(slots, units, (key) => binder.slotRead(key), findings);
  const compiler = new BodyCompiler(linked, slots.length, binder, house, findings);

  const { document } = named;
  const { front } = document.attrs;
  const purpose = front.purpose ?? 'new';
  const series =
    front.kind === 'series' ? compileSteps(named, options, (each) => compile(each, options), findings) : undefined;
  const around = (texts: readonly TextUnit[]): Governed<BlockUnit>[] =>
    texts.flatMap(({ name }) => compiler.include(name, [], { ...siteOf(document, own, 'body'), path: [] }));
  const envelope = envelopeOf(document, own, compiler);
  const blocks = compiler.blocks(bodyOf(document), siteOf(document, own, 'body'));
  const body = [...around(before), ...blocks, ...around(after)];
  compiler.judgeSignatures();
  if (front.kind === 'message' && purpose !== 'reply' && envelope.subject.leaves.length === 0) {
    const place = { path: siteOf(document, own, 'subject').path, attribute: 'subject' };
    findings.push(error({ code: 'no-subject' }, place));
  }
  return {
    name: own.name,
    title: front.title,
    locale: own.locale,
    purpose,
    house,
    facts,
    // Every part is compiled before the slots and findings are read: compiling adds to both.
    ...envelope,
    body,
    slots: [...slots, ...compiler.rowSlots],
    colours: compiler.colours,
    findings: distinct(findings),
    texts: [...linked.units.keys(), ...(series?.texts ?? [])],
    missing: [...linked.missing, ...(series?.missing ?? [])],
    ...(series ? { series: series.program } : {}),
    today,
  };
}

/** Where the content of a part of the text's own document stands. */
const siteOf = (document: TextDocument, unit: TextUnit, name: PartName): Site => ({
  unit,
  scope: undefined,
  path: [document.content.findIndex((node) => node.type === name)],
  blocks: [],
  conditions: [],
  tests: [],
  wordings: [],
});

/** The lines of the envelope. */
function envelopeOf(document: TextDocument, own: TextUnit, compiler: BodyCompiler): Envelope {
  const site = (name: PartName): Site => siteOf(document, own, name);
  const line = (name: 'subject' | 'start' | 'length' | 'place'): Line =>
    new LineCompiler(compiler, site(name)).compile(part(document, name).content);
  const addresses = (name: 'to' | 'cc' | 'bcc' | 'reply_to'): Line[] =>
    part(document, name).content.flatMap((address, index) =>
      address.content?.length
        ? [new LineCompiler(compiler, site(name)).compile(bracketsMarked(address.content), [...site(name).path, index])]
        : [],
    );
  return {
    subject: line('subject'),
    to: addresses('to'),
    cc: addresses('cc'),
    bcc: addresses('bcc'),
    replyTo: addresses('reply_to'),
    attachments: (part(document, 'attachments').content ?? []).map((file, index) => ({
      file: file.attrs.file,
      name: new LineCompiler(compiler, site('attachments')).compile(file.content, [...site('attachments').path, index]),
    })),
    start: line('start'),
    length: line('length'),
    place: line('place'),
  };
}

type PartName = Parameters<typeof part>[1];
type Envelope = Pick<
  Program,
  'subject' | 'to' | 'cc' | 'bcc' | 'replyTo' | 'attachments' | 'start' | 'length' | 'place'
>;

/** An address line whose own brackets can be told from those in values. */
const bracketsMarked = (content: readonly Inline[]): Inline[] =>
  content.map((node) => (node.type === 'text' ? { ...node, text: marked(node.text) } : node));
