/** Made-up documents for properties. Used by tests only. */
import fc from 'fast-check';
import { condition, type Condition } from '../template/condition.js';
import {
  PARTS,
  type Align,
  isAddresses,
  type Block,
  type Inline,
  type ListItem,
  type Mark,
  type Part,
  type Row,
  type TextDocument,
} from '../template/document.js';
import { normalise } from '../template/normalise.js';
import type { Variable } from '../template/variable.js';

/** What the documents may name. */
export const VARIABLES: readonly Variable[] = [
  { key: 'name', type: 'text', label: 'Name', required: true },
  { key: 'remark', type: 'paragraphs' },
  { key: 'party', type: 'number', min: 1, max: 60 },
  { key: 'fee', type: 'money', currency: 'EUR', value: 'party * 4.5' },
  { key: 'day', type: 'date' },
  { key: 'guide', type: 'yes-no', default: 'false' },
  { key: 'rain', type: 'yes-no' },
  {
    key: 'gate',
    type: 'choice',
    options: [
      { key: 'north', label: 'North' },
      {
        key: 'river',
        wording: [
          { type: 'text', text: 'the river gate for ' },
          { type: 'placeholder', attrs: { name: 'name', view: '' } },
        ],
      },
    ],
  },
  { key: 'hour', type: 'time' },
  { key: 'start', type: 'datetime', zone: 'Europe/Dublin' },
  { key: 'photo', type: 'image', max_width: 300 },
  { key: 'extras', type: 'choices', options: [{ key: 'tea' }, { key: 'tour' }, { key: 'boat' }] },
  {
    key: 'tickets',
    type: 'list',
    columns: [
      { key: 'item', type: 'text' },
      { key: 'price', type: 'money', currency: 'EUR' },
    ],
  },
];

/** Text that means something to Markdown, to tags, to HTML or to nobody. */
export const words: fc.Arbitrary<string> = fc
  .array(
    fc.constantFrom(
      'a',
      'Dear ',
      ' ',
      '  ',
      'word',
      '*',
      '**',
      '_',
      '`',
      '[',
      ']',
      '(x)',
      '<b>',
      '&amp;',
      '&',
      '\\',
      '{{',
      '#',
      '# ',
      '- ',
      '1. ',
      '+',
      '>',
      '|',
      '~~',
      '!',
      ':',
      '.',
      ',',
      '\u00A0',
      'é',
      '漢字',
      '👩‍🌾',
      '---',
      '===',
      'http://x.example',
      '_a_',
      '<',
      '"',
      "'",
      '\t',
      '\u2028',
      '<br>',
      '<p></p>',
      '-',
      '=',
      '~',
    ),
    { minLength: 1, maxLength: 5 },
  )
  .map((parts) => parts.join(''));

/** Any condition on some variables. */
export const conditions: fc.Arbitrary<Condition> = fc.oneof(
  fc.record({ of: fc.constantFrom('guide', 'rain'), not: fc.boolean() }).map(({ of, not }) => condition(of, [], not)),
  fc
    .record({ is: fc.constantFrom(['north'], ['river'], ['north', 'river']), not: fc.boolean() })
    .map(({ is, not }) => condition('gate', is, not)),
  fc.constantFrom(['tea'], ['tour', 'boat']).map((is) => condition('extras', is)),
  fc.constant(condition('tickets', [], true)),
);
const repeats: fc.Arbitrary<Condition> = fc.constant(condition('tickets', [], false, 1));

const form: fc.Arbitrary<Mark> = fc.oneof(
  fc.constantFrom<Mark>(
    { type: 'bold' },
    { type: 'italic' },
    { type: 'strike' },
    { type: 'underline' },
    { type: 'code' },
  ),
  fc
    .constantFrom(
      'https://larkmoor.example/a_b',
      'https://larkmoor.example/?q={{name}}',
      'mailto:{{recipient.email}}',
      'https://x.example/(a) b',
    )
    .map((href): Mark => ({ type: 'link', attrs: { href } })),
  fc.constantFrom('moss', 'brick', 'nowhere').map((name): Mark => ({ type: 'colour', attrs: { name } })),
  fc.constantFrom('ochre', 'slate').map((name): Mark => ({ type: 'highlight', attrs: { name } })),
  fc.constantFrom('ga', 'pt-BR').map((lang): Mark => ({ type: 'language', attrs: { lang } })),
);
const phrase: fc.Arbitrary<Mark> = conditions.map((attrs): Mark => ({ type: 'phrase', attrs }));
const placeholder = fc.constantFrom(
  ['name', ''],
  ['name', 'upper'],
  ['party', ''],
  ['day', 'full'],
  ['fee', ''],
  ['gate', ''],
  ['gate', 'label'],
  ['extras', ''],
  ['remark', ''],
  ['recipient.email', ''],
  ['tickets', 'item'],
  ['tickets', 'count'],
  ['hour', 'long'],
  ['start', ''],
  ['start', 'iso'],
  ['photo', ''],
  ['house.opening', ''],
);
const layout = fc.record(
  { align: fc.constantFrom<Align>('left', 'center', 'right', null), indent: fc.integer({ min: 0, max: 3 }) },
  { requiredKeys: [] },
);

function inlines(rich: boolean): fc.Arbitrary<Inline[]> {
  const marks = fc.uniqueArray(rich ? fc.oneof(form, phrase) : phrase, {
    maxLength: 3,
    selector: (mark) => (mark.type === 'phrase' ? JSON.stringify(mark.attrs) : mark.type),
  });
  const node: fc.Arbitrary<Inline> = fc.oneof(
    {
      weight: 5,
      arbitrary: words.map((text): Inline => ({ type: 'text', text: text.replace(/[\t\u2028]/g, rich ? '$&' : ' ') })),
    },
    {
      weight: 3,
      arbitrary: placeholder.map(([name = '', view = '']): Inline => ({ type: 'placeholder', attrs: { name, view } })),
    },
    ...(rich
      ? [
          { weight: 1, arbitrary: fc.constant<Inline>({ type: 'hardBreak' }) },
          { weight: 1, arbitrary: fc.constant<Inline>({ type: 'inlineComment', attrs: { text: 'a note' } }) },
          {
            weight: 1,
            arbitrary: fc
              .tuple(fc.constantFrom(undefined, 240), fc.constantFrom('', 'The "old" <map> & key'), fc.boolean())
              .map(([width, title, varies]): Inline => ({
                type: 'image',
                attrs: {
                  src: 'assets/map.png',
                  alt: [
                    { type: 'text', text: 'Map of "x" & ' },
                    ...(varies ? [{ type: 'placeholder', attrs: { name: 'name', view: '' } } as const] : []),
                  ],
                  title,
                  ...(width ? { width } : {}),
                },
              })),
          },
        ]
      : []),
  );
  return fc.array(
    fc.tuple(node, marks).map(([each, all]): Inline => ({ ...each, marks: all })),
    { maxLength: 5 },
  );
}

/** Any line with marks and placeholders. */
export const richLine = inlines(true);
/** Any line without marks. */
export const plainLine = inlines(false);

const paragraph = fc.oneof(
  { weight: 5, arbitrary: richLine.map((content): Block => ({ type: 'paragraph', content })) },
  {
    weight: 1,
    arbitrary: fc.tuple(layout, richLine).map(([attrs, content]): Block => ({ type: 'paragraph', attrs, content })),
  },
);

const block: fc.Memo<Block> = fc.memo((depth) => {
  const leaf: fc.Arbitrary<Block> = fc.oneof(
    { weight: 6, arbitrary: paragraph },
    {
      weight: 1,
      arbitrary: fc
        .tuple(fc.constantFrom(1 as const, 2 as const, 3 as const), fc.option(layout), richLine)
        .map(([level, where, content]): Block => ({ type: 'heading', attrs: { level, ...where }, content })),
    },
    {
      weight: 1,
      arbitrary: fc
        .tuple(
          fc.constantFrom('https://larkmoor.example/book?a=1&b="{{name}}"', 'mailto:{{recipient.email}}'),
          fc.constantFrom<Align>(null, 'center'),
          plainLine,
        )
        .map(([href, align, content]): Block => ({ type: 'button', attrs: { href, align }, content })),
    },
    {
      weight: 1,
      arbitrary: fc.constantFrom<Block>(
        { type: 'horizontalRule' },
        { type: 'comment', attrs: { text: 'for colleagues' } },
        { type: 'codeBlock', attrs: { language: null }, content: [{ type: 'text', text: 'a {{b}}\n\n```\nc' }] },
      ),
    },
    { weight: 1, arbitrary: table },
  );
  if (depth <= 1) return leaf;
  const inner = fc.array(block(depth - 1), { minLength: 1, maxLength: 3 });
  const items = fc.array(
    fc
      .tuple(
        fc.oneof(
          { weight: 3, arbitrary: fc.constant<Condition[]>([]) },
          { weight: 1, arbitrary: fc.array(conditions, { maxLength: 2 }) },
          { weight: 1, arbitrary: repeats.map((each) => [each]) },
        ),
        inner,
      )
      .map(([when, content]): ListItem => ({ type: 'listItem', attrs: { when }, content })),
    { minLength: 1, maxLength: 3 },
  );
  return fc.oneof(
    { weight: 4, arbitrary: leaf },
    { weight: 1, arbitrary: inner.map((content): Block => ({ type: 'blockquote', content })) },
    {
      weight: 1,
      arbitrary: fc
        .tuple(fc.constantFrom('moss', ''), inner)
        .map(([colour, content]): Block => ({ type: 'panel', attrs: { colour }, content })),
    },
    {
      weight: 2,
      arbitrary: fc
        .tuple(fc.oneof(conditions, repeats), inner)
        .map(([attrs, content]): Block => ({ type: 'passage', attrs: { ...attrs, run: 0 }, content })),
    },
    { weight: 1, arbitrary: items.map((content): Block => ({ type: 'bulletList', content })) },
    { weight: 1, arbitrary: items.map((content): Block => ({ type: 'orderedList', attrs: { start: 3 }, content })) },
  );
});

const table: fc.Arbitrary<Block> = fc.integer({ min: 1, max: 3 }).chain((columns) => {
  const span = fc.oneof({ weight: 6, arbitrary: fc.constant(1) }, { weight: 1, arbitrary: fc.constantFrom(2, 3) });
  const row = (type: 'tableCell' | 'tableHeader', when: readonly Condition[]): fc.Arbitrary<Row> =>
    fc
      .array(fc.tuple(richLine, span, span, fc.constantFrom<Align>(null, 'right')), {
        minLength: columns,
        maxLength: columns,
      })
      .map((cells): Row => ({
        type: 'tableRow',
        attrs: { when },
        content: cells.map(([content, colspan, rowspan, align]) => ({
          type,
          attrs: { align, colspan, rowspan, colwidth: null },
          content: [{ type: 'paragraph', content }],
        })),
      }));
  const body = fc.array(
    fc
      .oneof(fc.constant<Condition[]>([]), fc.array(conditions, { maxLength: 2 }))
      .chain((when) => row('tableCell', when)),
    { minLength: 1, maxLength: 4 },
  );
  return fc
    .tuple(row('tableHeader', []), body)
    .map(([head, rows]): Block => ({ type: 'table', content: [head, ...rows] }));
});

/** Documents in normal form. */
export const documents: fc.Arbitrary<TextDocument> = fc
  .record({ subject: plainLine, to: plainLine, body: fc.array(block(3), { minLength: 1, maxLength: 4 }) })
  .map(({ subject, to, body }) =>
    normalise({
      type: 'template',
      attrs: {
        front: { kind: 'message', title: 'Made up: a title, “quoted” #1', locale: 'en-IE' },
        variables: VARIABLES,
      },
      content: PARTS.map((name): Part => {
        if (name === 'body') return { type: 'body', content: body };
        if (name === 'subject') return { type: 'subject', content: subject };
        if (name === 'to') return { type: 'to', content: [{ type: 'address', content: to }] };
        if (name === 'attachments') return { type: 'attachments' };
        return isAddresses(name) ? { type: name, content: [{ type: 'address' }] } : ({ type: name } as Part);
      }),
    }),
  );

/** Answers that fit, that do not, and none. */
export const answers: fc.Arbitrary<Record<string, unknown>> = fc.record(
  {
    name: fc.oneof(fc.constantFrom('Róisín', '<b>Ann</b>', '{{party}}', '*x*', 'a\nb', '\u202Eabc', ''), fc.string()),
    remark: fc.oneof(fc.constantFrom('one\ntwo', ''), fc.string()),
    party: fc.oneof(fc.integer({ min: -5, max: 80 }), fc.constantFrom('abc', 12.5, null)),
    day: fc.constantFrom('2027-05-11', '2027-02-31', ''),
    hour: fc.constantFrom('14:30', '25:00'),
    start: fc.constantFrom('2027-05-11T14:30', '2027-05-11T14:30:00Z', 'soon'),
    photo: fc.constantFrom('assets/a.png A & "b"', { src: 'https://x.example/b.png', alt: '<b>' }, 'javascript:1'),
    guide: fc.boolean(),
    rain: fc.constantFrom(true, false, 'perhaps'),
    gate: fc.constantFrom('north', 'river', 'south'),
    extras: fc.constantFrom([], ['tea'], ['boat', 'tea', 'tour'], 'tea'),
    tickets: fc.constantFrom([], [{ item: 'Ann', price: 4.5 }], [{ item: 'a' }, { price: 2 }, {}], [{ nope: 1 }]),
  },
  { requiredKeys: [] },
);
