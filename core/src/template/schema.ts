/** Checks unknown JSON against the document's types. Used where documents come in: the server, imports, tests. */
import * as z from 'zod';
import { KINDS, MAX_INDENT, type TextDocument } from './document.js';
import { isClock, MOST_DAYS, MOST_STEPS, ON_ANSWER } from './steps.js';
import { TYPE_NAMES } from './variable.js';

// Compiling schemas to code would need `eval`, which the content policy forbids.
z.config({ jitless: true });

const MAX_TEXT = 200_000;
const name = z.string().max(200);

/** The schema of a condition that comes in. */
export const conditionSchema = z.strictObject({
  of: name,
  is: z.array(name).max(200),
  not: z.boolean(),
  run: z.int().min(0),
});
const when = z.array(conditionSchema).max(20);

const phrase = z.strictObject({ type: z.literal('phrase'), attrs: conditionSchema });
const mark = z.union([
  z.strictObject({ type: z.enum(['bold', 'italic', 'underline', 'strike', 'code']) }),
  z.strictObject({ type: z.literal('link'), attrs: z.strictObject({ href: z.string().max(4000) }) }),
  z.strictObject({ type: z.enum(['colour', 'highlight']), attrs: z.strictObject({ name: z.string().max(40) }) }),
  z.strictObject({ type: z.literal('language'), attrs: z.strictObject({ lang: z.string().max(40) }) }),
  phrase,
]);
const marksOf = (each: z.ZodType) => z.array(each).max(30).optional();

const textShape = { type: z.literal('text'), text: z.string().min(1).max(MAX_TEXT) };
/** The nodes that stand in lines and in rich text alike; only the marks they may carry differ. */
const common = (marks: z.ZodType) =>
  [
    z.strictObject({ ...textShape, marks }),
    z.strictObject({
      type: z.literal('placeholder'),
      attrs: z.strictObject({ name, view: z.string().max(60) }),
      marks,
    }),
    z.strictObject({
      type: z.literal('inlineComment'),
      attrs: z.strictObject({ text: z.string().max(MAX_TEXT) }),
      marks,
    }),
  ] as const;

/** A line of text: no other form than passages. */
export const lineSchema = z.array(z.discriminatedUnion('type', common(marksOf(phrase))));

const marks = marksOf(mark);
/** Inline content of rich text. */
export const inlineSchema = z.array(
  z.discriminatedUnion('type', [
    ...common(marks),
    z.strictObject({ type: z.literal('hardBreak'), marks }),
    z.strictObject({ type: z.literal('inlineInclusion'), attrs: z.strictObject({ name }), marks }),
    z.strictObject({
      type: z.literal('image'),
      attrs: z.strictObject({
        src: z.string().max(4000),
        alt: lineSchema,
        title: z.string().max(1000),
        width: z.int().min(1).max(4000).nullable().optional(),
      }),
      marks,
    }),
  ]),
);

const align = z.enum(['left', 'center', 'right']).nullable();
const layout = { align: align.optional(), indent: z.int().min(0).max(MAX_INDENT).optional() };
const paragraph = z.strictObject({
  type: z.literal('paragraph'),
  attrs: z.strictObject(layout).optional(),
  content: inlineSchema.optional(),
});
const span = z.int().min(1).max(200);
const cell = z.strictObject({
  type: z.enum(['tableCell', 'tableHeader']),
  attrs: z.strictObject({
    align,
    colspan: span,
    rowspan: span,
    colwidth: z.null(),
  }),
  content: z.array(paragraph).length(1),
});
const row = z.strictObject({
  type: z.literal('tableRow'),
  attrs: z.strictObject({ when }),
  content: z.array(cell).min(1),
});

const block: z.ZodType = z.lazy(() => blockUnion);
const blocks = z.array(block).min(1);
const item = z.strictObject({ type: z.literal('listItem'), attrs: z.strictObject({ when }), content: blocks });
const blockUnion = z.discriminatedUnion('type', [
  paragraph,
  z.strictObject({
    type: z.literal('heading'),
    attrs: z.strictObject({ level: z.union([z.literal(1), z.literal(2), z.literal(3)]), ...layout }),
    content: inlineSchema.optional(),
  }),
  z.strictObject({
    type: z.literal('button'),
    attrs: z.strictObject({ href: z.string().max(4000), align: align.optional() }),
    content: lineSchema.optional(),
  }),
  z.strictObject({
    type: z.literal('panel'),
    attrs: z.strictObject({ colour: z.string().max(40) }),
    content: blocks,
  }),
  z.strictObject({
    type: z.literal('codeBlock'),
    attrs: z.strictObject({ language: z.string().nullable() }),
    content: z.array(z.strictObject(textShape)).optional(),
  }),
  z.strictObject({ type: z.literal('horizontalRule') }),
  z.strictObject({ type: z.literal('blockquote'), content: blocks }),
  z.strictObject({ type: z.literal('bulletList'), content: z.array(item).min(1) }),
  z.strictObject({
    type: z.literal('orderedList'),
    attrs: z.strictObject({ start: z.int().min(0) }),
    content: z.array(item).min(1),
  }),
  z.strictObject({ type: z.literal('table'), content: z.array(row).min(1) }),
  z.strictObject({ type: z.literal('passage'), attrs: conditionSchema, content: blocks }),
  z.strictObject({ type: z.literal('inclusion'), attrs: z.strictObject({ name }) }),
  z.strictObject({ type: z.literal('comment'), attrs: z.strictObject({ text: z.string().max(MAX_TEXT) }) }),
]);

const strings = z.record(z.string(), z.string());
const variableShape = {
  key: z.string().max(80),
  type: z.enum(TYPE_NAMES),
  label: z.string().max(500).optional(),
  help: z.string().max(4000).optional(),
  example: z.string().max(4000).optional(),
  required: z.boolean().optional(),
  from: z.string().max(200).optional(),
  remember: z.boolean().optional(),
  default: z.union([z.string().max(MAX_TEXT), z.array(z.string()), z.array(strings)]).optional(),
  value: z.string().max(4000).optional(),
  min_length: z.number().optional(),
  max_length: z.number().optional(),
  pattern: z.string().max(1000).optional(),
  fallback: z.string().max(MAX_TEXT).optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  step: z.number().optional(),
  decimals: z.int().min(0).max(10).optional(),
  unit: z.string().max(60).optional(),
  grouping: z.boolean().optional(),
  plural: strings.optional(),
  forms: z.record(z.string(), strings).optional(),
  currency: z.string().max(10).optional(),
  earliest: z.string().max(40).optional(),
  latest: z.string().max(40).optional(),
  weekdays: z.array(z.string()).optional(),
  zone: z.string().max(80).optional(),
  words: z.strictObject({ yes: z.string().optional(), no: z.string().optional() }).optional(),
  options: z
    .array(z.strictObject({ key: z.string().max(80), label: z.string().optional(), wording: inlineSchema.optional() }))
    .max(2000)
    .optional(),
  other: z.boolean().optional(),
  least: z.number().optional(),
  most: z.number().optional(),
  domains: z.array(z.string()).optional(),
  max_width: z.number().optional(),
};
/** The schema of a variable that comes in. */
export const variableSchema = z.strictObject({
  ...variableShape,
  columns: z.array(z.strictObject(variableShape)).max(200).optional(),
});

/** The schema of what the front matter says, as it comes in. */
export const frontSchema = z.strictObject({
  kind: z.enum(KINDS),
  title: z.string().max(500),
  description: z.string().max(4000).optional(),
  call: z.string().max(60).optional(),
  locale: z.string().max(60).optional(),
  timezone: z.string().max(80).optional(),
  purpose: z.enum(['new', 'reply', 'invitation']).optional(),
  signature: z.string().max(80).optional(),
  owner: z.string().max(200).optional(),
  review_by: z.string().max(40).optional(),
  valid_from: z.string().max(40).optional(),
  valid_until: z.string().max(40).optional(),
  fixed: z.array(z.string()).optional(),
  translation_of: z.string().max(80).optional(),
  on_answer: z.enum(ON_ANSWER).optional(),
  remarks: strings.optional(),
});

const key = z.string().max(80);
/** The schema of a step that comes in. */
const stepSchema = z
  .strictObject({
    text: z.string().max(80),
    days: z.int().min(0).max(MOST_DAYS).optional(),
    working: z.literal(true).optional(),
    before: key.optional(),
    after: key.optional(),
    at: z.string().refine(isClock, { error: 'A time of day is written as 09:30.' }).optional(),
    when: z.string().max(4000).optional(),
    look: z.literal(true).optional(),
    later: z.array(key).max(100).optional(),
  })
  .refine(({ before, after }) => before === undefined || after === undefined, {
    error: 'A step is counted from one day.',
  });

const line = lineSchema.optional();
const addresses = z.array(z.strictObject({ type: z.literal('address'), content: line })).min(1);
const lineNode = <T extends string>(type: T) => z.strictObject({ type: z.literal(type), content: line });
const addressesNode = <T extends string>(type: T) => z.strictObject({ type: z.literal(type), content: addresses });

/** A whole document. Deeper nesting than people write is refused, so that nothing later can run out of stack. */
export const documentSchema = z
  .unknown()
  .refine((value) => depth(value, MAX_DEPTH) <= MAX_DEPTH, { error: 'The text is nested too deep.' })
  .pipe(
    z.strictObject({
      type: z.literal('template'),
      attrs: z.strictObject({
        front: frontSchema,
        variables: z.array(variableSchema).max(500),
        steps: z.array(stepSchema).max(MOST_STEPS).optional(),
      }),
      content: z.tuple([
        lineNode('subject'),
        addressesNode('to'),
        addressesNode('cc'),
        addressesNode('bcc'),
        addressesNode('reply_to'),
        z.strictObject({
          type: z.literal('attachments'),
          content: z
            .array(
              z.strictObject({
                type: z.literal('attachment'),
                attrs: z.strictObject({ file: z.string().max(500) }),
                content: line,
              }),
            )
            .optional(),
        }),
        lineNode('start'),
        lineNode('length'),
        lineNode('place'),
        z.strictObject({ type: z.literal('body'), content: blocks }),
      ]),
    }),
  );

const MAX_DEPTH = 240;

function depth(value: unknown, limit: number): number {
  if (limit < 0 || typeof value !== 'object' || value === null) return 0;
  let deepest = 0;
  for (const child of Object.values(value)) deepest = Math.max(deepest, depth(child, limit - 1));
  return deepest + 1;
}

/**
 * Checks a document.
 * @returns the document, or words that say where it is wrong
 */
export function parseDocument(value: unknown): { document: TextDocument } | { message: string } {
  const result = documentSchema.safeParse(value);
  if (result.success) return { document: result.data as TextDocument };
  const issue = result.error.issues[0];
  return { message: `${issue?.path.join('.') || 'document'}: ${issue?.message ?? 'not a document'}` };
}
