/** The endpoints for other programs, `/api/v1`. The OpenAPI document is made of them. */
import * as z from 'zod';
import type { EndpointKey, KeyEndpoint } from './endpoint.js';
import { zoneSchema } from './zone.js';
import { nameSchema } from './texts.js';
import { kindSchema } from './shared-schemas.js';

const fields = z.record(z.string().max(80), z.string().max(100_000));
const answers = z.record(z.string().max(80), z.json());
const finding = z.object({
  code: z.string().meta({ description: 'Stable; see the file format.' }),
  level: z.enum(['error', 'warning', 'note']),
  message: z.string(),
});
const text = z.object({
  name: nameSchema,
  kind: kindSchema,
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
  kind: kindSchema.optional(),
  after: z.string().max(80).optional().meta({ description: 'The name that the page begins after.' }),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

/** The endpoints, by method and path. */
export const PROGRAM_ENDPOINTS = {
  'GET /v1/texts': {
    id: 'list',
    summary: 'The texts you may see, by name, a page at a time.',
    scope: 'read',
    query: page,
    answer: z.object({
      texts: z.array(text),
      next: z.string().optional().meta({ description: 'For `after`; none on the last page.' }),
    }),
  },
  'GET /v1/search': {
    id: 'search',
    summary: 'Templates that hold all the words, best first; a word may be begun only, and have a slip.',
    scope: 'read',
    query: z.object({ q: z.string().min(1).max(200) }),
    answer: z.object({
      texts: z.array(
        text.pick({ name: true, kind: true, title: true, subject: true, call: true }).extend({ opening: z.string() }),
      ),
    }),
  },
  'GET /v1/texts/{name}': {
    id: 'text',
    summary: 'A published text, as a file of the format.',
    scope: 'read',
    params: name,
    answer: text.extend({ file: z.string().meta({ description: 'YAML front matter, then Markdown.' }) }),
  },
  'POST /v1/texts/{name}/questions': {
    id: 'questions',
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
  'POST /v1/texts/{name}/render': {
    id: 'render',
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
  'POST /v1/texts/{name}/publish': {
    id: 'publish',
    summary: 'Publishes the working copy, if it is at that revision and has no errors.',
    scope: 'publish',
    params: name,
    body: z.strictObject({ revision: z.int().min(1), note: z.string().trim().min(1).max(2000) }),
    answer: z.object({ version: z.int() }),
  },
} as const satisfies Readonly<Record<EndpointKey, KeyEndpoint>>;
