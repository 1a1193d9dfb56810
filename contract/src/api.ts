/** The interface for other programs, `/api/v1`: every endpoint with what it takes and gives. The OpenAPI document is made of this. */
import * as z from 'zod';
import { zoneSchema } from './zone.js';
import type { Scope } from './people.js';
import { nameSchema } from './texts.js';

const kind = z.enum(['message', 'block', 'signature']);
const fields = z.record(z.string().max(80), z.string().max(100_000));
const answers = z.record(z.string().max(80), z.json());
const finding = z.object({
  code: z.string().meta({ description: 'Stable; see the file format.' }),
  level: z.enum(['error', 'warning', 'note']),
  message: z.string(),
});
const text = z.object({
  name: nameSchema,
  kind,
  title: z.string(),
  subject: z.string(),
  call: z.string().optional().meta({ description: 'The call word.' }),
  folder: z.string().meta({ description: 'Titles from the top, with slashes between.' }),
  tags: z.array(z.string()),
  version: z.int().optional().meta({ description: 'The version that is used; none before the first.' }),
  offered: z.boolean().meta({ description: 'Whether it can be filled now.' }),
});
const filling = z.strictObject({
  recipient: fields.default({}).meta({ description: 'Fields of the recipient, by key.' }),
  answers: answers.default({}).meta({ description: 'Answers, in the form that the file format gives them.' }),
});
const name = z.object({ name: nameSchema });
const page = z.object({
  kind: kind.optional(),
  after: z.string().max(80).optional().meta({ description: 'The name that the page begins after.' }),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

export interface Endpoint {
  readonly id: string;
  readonly method: 'get' | 'post';
  /** Below `/api/v1`, with `{name}` for parameters. */
  readonly path: string;
  readonly summary: string;
  readonly scope: Scope;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly answer: z.ZodType;
}

export const API = {
  list: {
    id: 'list',
    method: 'get',
    path: '/texts',
    summary: 'The texts you may see, by name, a page at a time.',
    scope: 'read',
    query: page,
    answer: z.object({
      texts: z.array(text),
      next: z.string().optional().meta({ description: 'For `after`; none on the last page.' }),
    }),
  },
  search: {
    id: 'search',
    method: 'get',
    path: '/search',
    summary: 'Templates that hold all the words, best first; a word may be begun only, and have a slip.',
    scope: 'read',
    query: z.object({ q: z.string().min(1).max(200) }),
    answer: z.object({
      texts: z.array(
        text.pick({ name: true, kind: true, title: true, subject: true, call: true }).extend({ opening: z.string() }),
      ),
    }),
  },
  text: {
    id: 'text',
    method: 'get',
    path: '/texts/{name}',
    summary: 'A published text, as a file of the format.',
    scope: 'read',
    params: name,
    answer: text.extend({ file: z.string().meta({ description: 'YAML front matter, then Markdown.' }) }),
  },
  questions: {
    id: 'questions',
    method: 'post',
    path: '/texts/{name}/questions',
    summary: 'What a template asks now, in reading order; answers given may make and unmake questions.',
    scope: 'render',
    params: name,
    body: filling,
    answer: z.object({
      questions: z.array(
        z.object({
          key: z.string(),
          type: z.string(),
          label: z.string(),
          required: z.boolean(),
          options: z.array(z.object({ key: z.string(), label: z.string() })).optional(),
        }),
      ),
    }),
  },
  render: {
    id: 'render',
    method: 'post',
    path: '/texts/{name}/render',
    summary: 'The message that a published template makes. You are its sender. Nothing is kept.',
    scope: 'render',
    params: name,
    body: filling.extend({
      timezone: zoneSchema.default('UTC'),
      today: z.iso.date().optional().meta({ description: 'The day it is taken to be; else today.' }),
    }),
    answer: z.object({
      version: z.int(),
      ready: z.boolean().meta({ description: 'False where something is blank or wrong.' }),
      subject: z.string(),
      to: z.array(z.string()),
      cc: z.array(z.string()),
      bcc: z.array(z.string()),
      replyTo: z.array(z.string()),
      html: z.string(),
      text: z.string(),
      blanks: z.array(z.string()).meta({ description: 'Keys of required values that are missing.' }),
      findings: z.array(finding),
    }),
  },
  publish: {
    id: 'publish',
    method: 'post',
    path: '/texts/{name}/publish',
    summary: 'Publishes the working copy, if it is at that revision and has no errors.',
    scope: 'publish',
    params: name,
    body: z.strictObject({ revision: z.int().min(1), note: z.string().trim().min(1).max(2000) }),
    answer: z.object({ version: z.int() }),
  },
} as const satisfies Readonly<Record<string, Endpoint>>;
