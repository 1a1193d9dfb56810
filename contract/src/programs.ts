/** The endpoints for other programs, `/api/v1`. The OpenAPI document is made of them. */
import * as z from 'zod';
import type { EndpointKey, KeyEndpoint } from './endpoint.js';
import { MOST_STARTED, RUN_STATES, STEP_STATES } from './constants.js';
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

const moment = z.iso.datetime().optional().meta({ description: 'When it first did; none where it has not.' });
const run = z.object({
  id: z.string(),
  series: z.string(),
  recipient: z.string(),
  state: z.enum(RUN_STATES),
  why: z.string().meta({ description: 'Why it was stopped, in words.' }),
  steps: z.array(
    z.object({
      template: z.string(),
      state: z.enum(STEP_STATES),
      at: z.iso.datetime().optional().meta({ description: 'When it went, is due, or is foreseen to be.' }),
    }),
  ),
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
  'POST /v1/messages': {
    id: 'beginMessage',
    summary: 'Begins a message for a recipient, with answers. It stands in Fill, unfinished, until you hand it over.',
    scope: 'begin',
    status: 201,
    body: filling.extend({ template: nameSchema }),
    answer: z.object({
      id: z.string(),
      path: z.string().meta({ description: 'Where it stands, on this server.' }),
      version: z.int().optional(),
      notes: z.array(z.string()).meta({ description: 'Answers that nothing asks for.' }),
    }),
  },
  'GET /v1/messages': {
    id: 'messages',
    summary: 'Your messages that were handed over, the earliest first, with what became of them.',
    scope: 'read',
    query: z.object({
      since: z.iso.datetime().optional().meta({ description: 'Those handed over at this moment or later.' }),
      after: z.string().max(60).optional().meta({ description: 'The id that the page begins after.' }),
      limit: z.coerce.number().int().min(1).max(500).default(100),
    }),
    answer: z.object({
      messages: z.array(
        z.object({
          id: z.string(),
          template: z.string(),
          version: z.int().optional(),
          recipient: z.string().meta({ description: 'The address; empty where somebody was forgotten.' }),
          subject: z.string(),
          at: z.iso.datetime(),
          way: z.string(),
          opened: moment,
          followed: moment,
          answered: moment,
          bounced: moment,
        }),
      ),
      next: z.string().optional().meta({ description: 'For `after`; none on the last page.' }),
    }),
  },
  'GET /v1/lists': {
    id: 'lists',
    summary: 'The recipient lists that you may change.',
    scope: 'recipients',
    answer: z.object({ lists: z.array(z.object({ id: z.string(), title: z.string(), rows: z.int() })) }),
  },
  'PUT /v1/lists/{id}/recipients': {
    id: 'putRecipients',
    summary: 'Adds people to a recipient list, or changes those whose address is in it already. All or none.',
    scope: 'recipients',
    params: z.object({ id: z.string().max(60) }),
    body: z.strictObject({
      recipients: z
        .array(fields)
        .min(1)
        .max(1000)
        .meta({ description: 'By column key; each with an address under `email`.' }),
    }),
    answer: z.object({ added: z.int(), changed: z.int() }),
  },
  'POST /v1/series': {
    id: 'startSeries',
    summary: 'Starts a series for people, who get its messages from you. Nobody gets a series twice at a time.',
    scope: 'begin',
    status: 201,
    body: z.strictObject({
      series: nameSchema,
      recipients: z.array(fields).min(1).max(MOST_STARTED),
      answers: answers.default({}).meta({ description: 'By the ids of its questions.' }),
      timezone: zoneSchema.default('UTC'),
    }),
    answer: z.object({
      started: z.array(z.string()).meta({ description: 'Ids.' }),
      refused: z.array(z.string()).meta({ description: 'In words: who it was not started for, and why.' }),
    }),
  },
  'GET /v1/series/{id}': {
    id: 'series',
    summary: 'Where a series stands.',
    scope: 'read',
    params: z.object({ id: z.string().max(60) }),
    answer: run,
  },
  'POST /v1/series/{id}/stop': {
    id: 'stopSeries',
    summary: 'Stops a series: no more of its messages go.',
    scope: 'begin',
    params: z.object({ id: z.string().max(60) }),
    answer: run,
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
