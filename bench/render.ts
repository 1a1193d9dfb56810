/**
 * Rendering one message: 20 text placeholders, 10 optional passages, 5 list rows, precompiled. Ours against four
 * general-purpose template engines that produce the same HTML, asserted for every recipient before anything is timed;
 * then everything we make of a message against its HTML alone.
 */
import { figure } from './figures.js';
import assert from 'node:assert/strict';
import { compile, darkRules, frameTags, htmlStyles, PLAIN_HOUSE, render, renderHtml } from '@vocabula/core';
import { readText } from '@vocabula/core/markdown';
import { Eta } from 'eta';
import Handlebars from 'handlebars';
import { Liquid } from 'liquidjs';
import Mustache from 'mustache';
import { printRatios, race, type Contestant } from './timing.js';

const PASSAGES = Array.from({ length: 10 }, (_, at) => `with${at}`);
const TEXTS = Array.from({ length: 18 }, (_, at) => `text${at}`);
const RECIPIENTS = 200;

interface Data {
  readonly [key: string]: string | boolean | readonly { readonly item: string; readonly price: string }[];
}

/** Made-up answers, some with characters that must be escaped. */
const made = Array.from({ length: RECIPIENTS }, (_, at) => ({
  ...Object.fromEntries(
    TEXTS.map((key, index) => [key, (index + at) % 7 === 0 ? `Fern & <Moss> ${at}` : `words ${index} of ${at}`]),
  ),
  ...Object.fromEntries(PASSAGES.map((key, index) => [key, ((at * 2654435761) >>> (index + 3)) % 2 === 0])),
  rows: Array.from({ length: 5 }, (_, row) => ({ item: `Bed ${row + at}`, price: `${row}.50 & tea` })),
}));
/** As everybody gets them: out of JSON. */
const data = JSON.parse(JSON.stringify(made)) as Data[];

/** The same message in any language: its fixed words and, between them, what varies. */
interface Dialect {
  value(key: string): string;
  when(key: string, inner: string): string;
  each(inner: string): string;
  column(key: string): string;
}

const styles = htmlStyles(PLAIN_HOUSE.style);
const dark = darkRules(PLAIN_HOUSE.style, []);
const [frame, endOfFrame] = frameTags(PLAIN_HOUSE.style);
const subject = (dialect: Dialect): string => `About ${dialect.value('text0')}`;

/** The words of each passage: sentences around one or two placeholders. */
const passage = (dialect: Dialect, at: number): string =>
  `The garden keeps ${dialect.value(TEXTS[at + 1] as string)} for you, as we said when you wrote to us last week` +
  (at < 7 ? `, and ${dialect.value(TEXTS[at + 11] as string)} besides.` : '.');

function htmlTemplate(dialect: Dialect): string {
  const paragraphs = PASSAGES.map((key, at) =>
    dialect.when(key, `<p style="${styles.p}">${passage(dialect, at)}</p>`),
  ).join('');
  const items = dialect.each(
    `<li style="${styles.item}">${dialect.column('item')}, at ${dialect.column('price')} each</li>`,
  );
  return (
    `<!doctype html><html lang="en-GB" dir="ltr"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">` +
    `<meta name="color-scheme" content="light dark"><style>@media (prefers-color-scheme:dark){${dark}}</style>` +
    `<title>${subject(dialect)}</title></head><body style="${styles.body}">${frame}` +
    `<p style="${styles.p}">Dear friend of the garden,</p>${paragraphs}<ul style="${styles.list}">${items}</ul>` +
    `<p style="${styles.p}">With kind regards</p>${endOfFrame}</body></html>`
  );
}

const ours: Dialect = {
  value: (key) => `{{${key}}}`,
  when: (key, inner) => `{{#${key}}}\n${inner}\n{{/${key}}}`,
  each: (inner) => `{{#rows}}\n${inner}\n{{/rows}}`,
  column: (key) => `{{${key}}}`,
};

function ourFile(): string {
  return `---
vocabula: 1
kind: message
title: Rendering
subject: "${subject(ours)}"
signature: none
variables:
${TEXTS.map((key) => `  ${key}: { type: text, required: true }`).join('\n')}
${PASSAGES.map((key) => `  ${key}: { type: yes-no }`).join('\n')}
  rows:
    type: list
    columns:
      item: { type: text }
      price: { type: text }
---
Dear friend of the garden,

${PASSAGES.map((key, at) => ours.when(key, passage(ours, at))).join('\n\n')}

${ours.each(`- ${ours.column('item')}, at ${ours.column('price')} each`)}

With kind regards
`;
}

const { document, findings } = readText(ourFile());
const program = compile({ name: 'rendering', document }, { library: { get: () => undefined } });
assert.deepEqual([...findings, ...program.findings], []);
const input = data.map((answers) => ({ recipient: {}, sender: {}, answers, today: '2026-11-24' }));
const html: Contestant = { name: 'Vocabula, HTML only', run: (at) => renderHtml(program, input[at] as never) };
const everything: Contestant = {
  name: 'Vocabula, everything',
  run: (at) => render(program, input[at] as never).html,
};

function others(): Contestant[] {
  const eta = new Eta({ useWith: false });
  const etaTemplate = eta.compile(
    htmlTemplate({
      value: (key) => `<%= it.${key} %>`,
      when: (key, inner) => `<% if (it.${key}) { %>${inner}<% } %>`,
      each: (inner) => `<% for (const row of it.rows) { %>${inner}<% } %>`,
      column: (key) => `<%= row.${key} %>`,
    }),
  );
  const mustaches: Dialect = {
    value: (key) => `{{${key}}}`,
    when: (key, inner) => `{{#${key}}}${inner}{{/${key}}}`,
    each: (inner) => `{{#rows}}${inner}{{/rows}}`,
    column: (key) => `{{${key}}}`,
  };
  const handlebars = Handlebars.compile(
    htmlTemplate({
      ...mustaches,
      when: (key, inner) => `{{#if ${key}}}${inner}{{/if}}`,
      each: (inner) => `{{#each rows}}${inner}{{/each}}`,
    }),
    { knownHelpersOnly: true },
  );
  const mustacheSource = htmlTemplate(mustaches);
  const mustache = new Mustache.Writer();
  const tokens = mustache.parse(mustacheSource);
  const liquid = new Liquid({ outputEscape: 'escape' });
  const liquidTemplate = liquid.parse(
    htmlTemplate({
      value: (key) => `{{ ${key} }}`,
      when: (key, inner) => `{% if ${key} %}${inner}{% endif %}`,
      each: (inner) => `{% for row in rows %}${inner}{% endfor %}`,
      column: (key) => `{{ row.${key} }}`,
    }),
  );
  return [
    { name: 'Eta', run: (at) => eta.render(etaTemplate, data[at] as object) },
    { name: 'Handlebars', run: (at) => handlebars(data[at]) },
    {
      name: 'Mustache',
      run: (at) => mustache.renderTokens(tokens, new Mustache.Context(data[at]), undefined, mustacheSource),
    },
    { name: 'LiquidJS', run: (at) => liquid.renderSync(liquidTemplate, data[at] as object) as string },
  ];
}

/** Compares, and prints both tables. */
export function bench(): void {
  const engines = others();
  for (let at = 0; at < RECIPIENTS; at += 1) {
    const wanted = html.run(at);
    for (const engine of [...engines, everything])
      assert.equal(engine.run(at), wanted, `${engine.name} renders recipient ${at} differently`);
  }
  const results = race([html, ...engines, everything], RECIPIENTS, 150);
  const find = (name: string) => results.find((each) => each.name === name) as (typeof results)[number];
  const names = new Set(engines.map(({ name }) => name));
  const fastest = results.filter(({ name }) => names.has(name)).sort((a, b) => a.median - b.median)[0];
  if (!fastest) throw new Error('No engine ran.');
  printRatios(
    `HTML only: the same ${RECIPIENTS} messages, as multiples of the fastest of the four (${fastest.name})`,
    results.filter(({ name }) => name !== everything.name),
    fastest,
  );
  figure('HTML alone, of the fastest of four engines', find(html.name).median / fastest.median, 0.9);
  figure('everything, of HTML alone', find(everything.name).median / find(html.name).median, 3);
  printRatios(
    'Everything (envelope, HTML, text, blanks, findings), as a multiple of our HTML only',
    [find(html.name), find(everything.name)],
    find(html.name),
  );
}
