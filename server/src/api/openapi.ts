/** The OpenAPI 3.1 document of `/api/v1`, made from the contract's schemas, and a page to read it. */
import { PROGRAM_ENDPOINTS, problemSchema, type KeyEndpoint } from '@vocabula/contract';
import { escapeHtml } from '@vocabula/core';
import * as z from 'zod';

type Json = Readonly<Record<string, unknown>>;

const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): Json => {
  const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, { io, target: 'draft-2020-12' });
  return rest;
};

/** Each with its method, and its path below `/api/v1`. */
const OPERATIONS: readonly (KeyEndpoint & { readonly method: string; readonly path: string })[] = Object.entries(
  PROGRAM_ENDPOINTS,
).map(([name, endpoint]) => {
  const [method = '', path = ''] = name.split(' /v1');
  return { ...endpoint, method, path };
});

/** The document. Schemas are in place, since none is used twice as a whole. */
export function openApi(): Json {
  const paths: Record<string, Record<string, Json>> = {};
  for (const each of OPERATIONS) (paths[each.path] ??= {})[each.method.toLowerCase()] = operation(each);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Vocabula',
      version: '1',
      description: 'Find, fill and publish reusable wording. Everything is as the person sees it whose key is used.',
    },
    servers: [{ url: '/api/v1' }],
    security: [{ key: [] }],
    paths,
    components: {
      securitySchemes: {
        key: {
          type: 'http',
          scheme: 'bearer',
          description: 'A personal key from Settings, in the Authorization header.',
        },
      },
      schemas: { Problem: schemaOf(problemSchema, 'output') },
    },
  };
}

function operation({ id, summary, scope, params, query, body, answer }: KeyEndpoint): Json {
  const parameters = [...parametersOf(params, 'path'), ...parametersOf(query, 'query')];
  const problem = (description: string): Json => ({
    description,
    content: { 'application/json': { schema: { $ref: '#/components/schemas/Problem' } } },
  });
  return {
    operationId: id,
    summary,
    description: `The key needs the scope \`${scope}\`.`,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(body
      ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(body, 'input') } } } }
      : {}),
    responses: {
      200: { description: 'Done.', content: { 'application/json': { schema: schemaOf(answer, 'output') } } },
      400: problem('The request is not understood.'),
      401: problem('There is no key, or it has ended.'),
      403: problem('The key, or its person, may not do this.'),
      404: problem('There is nothing of that name for you.'),
      422: problem('It cannot be done as things are; the problem says why.'),
    },
  };
}

function parametersOf(object: z.ZodObject | undefined, where: 'path' | 'query'): Json[] {
  if (!object) return [];
  const { properties = {}, required = [] } = schemaOf(object, 'input') as {
    properties?: Record<string, Json>;
    required?: readonly string[];
  };
  return Object.entries(properties).map(([name, { description, ...schema }]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    ...(description === undefined ? {} : { description }),
    schema,
  }));
}

/** The document as a page, for people: plain HTML without scripts. */
export function openApiPage(): string {
  const code = (value: unknown): string => `<pre>${escapeHtml(JSON.stringify(value, undefined, 2))}</pre>`;
  const sections = OPERATIONS.map(({ id, method, path, summary, scope, params, query, body, answer }) => {
    const rows = [...parametersOf(params, 'path'), ...parametersOf(query, 'query')].map(
      (each) =>
        `<tr><th scope="row"><code>${escapeHtml(String(each.name))}</code></th><td>${String(each.in)}${each.required ? ', required' : ''}</td><td>${escapeHtml(String(each.description ?? ''))}</td></tr>`,
    );
    return [
      `<section id="${id}"><h2><code>${method} /api/v1${escapeHtml(path)}</code></h2>`,
      `<p>${escapeHtml(summary)} Scope: <code>${scope}</code>.</p>`,
      rows.length > 0 ? `<table><tbody>${rows.join('')}</tbody></table>` : '',
      body ? `<details><summary>What it takes</summary>${code(schemaOf(body, 'input'))}</details>` : '',
      `<details><summary>What it gives</summary>${code(schemaOf(answer, 'output'))}</details></section>`,
    ].join('');
  });
  const index = OPERATIONS.map(({ id, method, path }) => `<li><a href="#${id}">${method} ${escapeHtml(path)}</a></li>`);
  return `<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>For other programs · Vocabula</title><style>${STYLE}</style><main><h1>For other programs</h1>
<p>Everything below <code>/api/v1</code> is called with a personal key, made in Settings and shown once, in the header <code>Authorization: Bearer KEY</code>. A key sees what its person sees, and may do what its scopes say. Problems come as <code>{ code, message, details }</code>.</p>
<p>The same as an OpenAPI 3.1 document: <a href="/api/v1/openapi.json">openapi.json</a>.</p><nav aria-label="Endpoints"><ul>${index.join('')}</ul></nav>${sections.join('')}</main></html>`;
}

const STYLE = `body{background:#F4F1EA;color:#20262E;font:16px/26px Georgia,serif;margin:0}main{max-width:720px;margin:32px auto;background:#FFFDF8;padding:32px 40px;box-shadow:0 8px 24px -16px rgb(32 38 46/.25)}h1{font-size:24px;line-height:32px;font-weight:500}h2{font-size:16px;margin:32px 0 4px;border-top:1px solid #D9D3C7;padding-top:16px}code,pre{font:13px/20px ui-monospace,monospace}pre{overflow:auto;background:#F4F1EA;padding:12px}a{color:#1E6E66}table{border-collapse:collapse;font-size:14px}th,td{text-align:left;padding:2px 16px 2px 0;vertical-align:top;font-weight:400}summary{cursor:pointer;color:#1E6E66}`;
