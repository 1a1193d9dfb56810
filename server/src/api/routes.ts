/** `/api/v1`: for other programs, with a personal key. */
import { API, type Endpoint, type TextSummary } from '@vocabula/contract';
import {
  compileBundle,
  dayIn,
  labelOf,
  questions,
  render,
  signatureFor,
  writtenEnvelope,
  type Program,
} from '@vocabula/core';
import { writeText } from '@vocabula/core/markdown';
import { senderFields } from '@vocabula/contract';
import { Router, type Request } from 'express';
import type * as z from 'zod';
import { closure } from '../catalogue/visible-texts.js';
import type { SearchService } from '../catalogue/search.js';
import type { CatalogueService } from '../catalogue/service.js';
import type { Database } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import { json } from '../http/body.js';
import { notFound, parsed, RequestProblem } from '../http/problem.js';
import { keyRoute, openRoute } from '../http/route.js';
import type { Asker } from '../people/asker.js';
import type { KeyService } from '../people/keys.js';
import type { PeopleService } from '../people/service.js';
import type { FolderService } from '../rights/folders.js';
import type { Heavy } from '../workers/heavy.js';
import { openApi, openApiPage } from './openapi.js';

interface Parts {
  readonly database: Database;
  readonly keys: KeyService;
  readonly catalogue: CatalogueService;
  readonly search: SearchService;
  readonly people: PeopleService;
  readonly folders: FolderService;
  readonly heavy: Heavy;
}
type Given<E extends Endpoint> = {
  readonly params: E['params'] extends z.ZodObject ? z.output<E['params']> : Record<string, never>;
  readonly query: E['query'] extends z.ZodObject ? z.output<E['query']> : Record<string, never>;
  readonly body: E['body'] extends z.ZodType ? z.output<E['body']> : undefined;
};

export function apiRoutes(parts: Parts): Router {
  const { catalogue, search } = parts;
  const router = Router();
  router.get(
    '/',
    openRoute((_request, response) => void response.type('html').send(openApiPage())),
  );
  router.get(
    '/openapi.json',
    openRoute((_request, response) => void response.json(openApi())),
  );

  /** Serves an endpoint of the contract: the key is asked, what comes is parsed, what goes is what the schema says. */
  const serve = <E extends Endpoint>(
    endpoint: E,
    handler: (given: Given<E>, asker: Asker) => Promise<z.input<E['answer']>>,
  ): void => {
    const { method, path, scope, params, query, body, answer } = endpoint;
    router[method](
      path.replace(/\{(\w+)\}/g, ':$1'),
      keyRoute(
        (request) => keyHolder(parts.keys, request),
        async (request, response, asker) => {
          if (!asker.scopes?.includes(scope))
            throw new RequestProblem(403, 'not-allowed', `This key has not the scope “${scope}”.`);
          const given = {
            params: params ? parsed(params, request.params) : {},
            query: query ? parsed(query, request.query) : {},
            body: body ? parsed(body, request.body) : undefined,
          } as Given<E>;
          response.json(answer.parse(await handler(given, asker)));
        },
        json(1_000_000),
      ),
    );
  };

  serve(API.list, async ({ query: { kind, after = '', limit } }, asker) => {
    const folders = await pathsOf(parts.folders, asker);
    const all = (await catalogue.list(asker))
      .filter(
        (each) =>
          !each.binned && each.version !== undefined && (kind === undefined || each.kind === kind) && each.name > after,
      )
      .sort((a, b) => (a.name < b.name ? -1 : 1));
    const texts = all.slice(0, limit).map((each) => lineOf(each, folders));
    return { texts, ...(all.length > limit ? { next: texts.at(-1)?.name } : {}) };
  });
  serve(API.search, async ({ query: { q } }, asker) => ({
    texts: (await search.search(q, asker, { purpose: 'fill', limit: 50 })).map(
      ({ name, kind, title, subject, call, opening }) => ({ name, kind, title, subject, call, opening }),
    ),
  }));
  serve(API.text, async ({ params: { name } }, asker) => {
    const found = (await catalogue.list(asker)).find((each) => each.name === name && !each.binned);
    const [own] = await closure(parts.database.read, name, asker, 'fill');
    if (!found || !own) throw notFound('text');
    return { ...lineOf(found, await pathsOf(parts.folders, asker)), file: writeText(own.document) };
  });
  serve(API.questions, async ({ params: { name }, body: { recipient, answers } }, asker) => {
    const { program, sender } = await programFor(parts, name, asker);
    const asked = questions(program, { recipient, answers, sender, today: dayIn(new Date(), 'UTC') });
    return {
      questions: asked.map(({ key, label, required, variable: { type, options } }) => ({
        key,
        type,
        label,
        required,
        ...(options ? { options: options.map((option) => ({ key: option.key, label: labelOf(option) })) } : {}),
      })),
    };
  });
  serve(API.render, async ({ params: { name }, body: { recipient, answers, timezone, today } }, asker) => {
    const { program, sender, version } = await programFor(parts, name, asker);
    const day = today ?? dayIn(new Date(), timezone);
    const message = render(program, { recipient, answers, sender, today: day, zone: timezone });
    const { ready, subject, html, text, blanks, findings } = message;
    return {
      version,
      ready,
      subject,
      ...writtenEnvelope(message),
      html,
      text,
      blanks: [...blanks],
      findings: findings.map(({ code, level, message: words }) => ({ code, level, message: words })),
    };
  });
  serve(API.publish, async ({ params: { name }, body }, asker) => {
    const { version = 0 } = await parts.heavy.call('versions', 'publish', [name, body, asker], asker.id);
    return { version };
  });
  return router;
}

async function keyHolder(keys: KeyService, request: Request): Promise<Asker> {
  const [, key] = /^Bearer (\S{10,200})$/i.exec(request.get('authorization') ?? '') ?? [];
  const asker = key === undefined ? undefined : await keys.asker(key);
  if (!asker) throw new RequestProblem(401, 'no-key', 'Send a key that is in use: Authorization: Bearer KEY.');
  return asker;
}

async function programFor(
  { database, people }: Parts,
  name: string,
  asker: Asker,
): Promise<{ readonly program: Program; readonly sender: Record<string, string>; readonly version: number }> {
  const { read } = database;
  const profile = await people.profile(asker);
  const [first] = await closure(read, name, asker, 'fill');
  if (!first || first.document.attrs.front.kind !== 'message') throw notFound('template');
  const signature = signatureFor(first.document.attrs.front.purpose, profile);
  const texts = await closure(read, name, asker, 'fill', signature ? [signature] : []);
  const { house } = await currentHouse(read, 'fill');
  const program = compileBundle({ text: first, texts, house, signature });
  return { program, sender: senderFields(profile), version: first.version ?? 0 };
}

const lineOf = (
  { name, kind, title, subject, call, folder, tags, version, offered }: TextSummary,
  folders: ReadonlyMap<string, string>,
): z.input<(typeof API)['list']['answer']>['texts'][number] => ({
  name,
  kind,
  title,
  subject,
  call,
  folder: folders.get(folder) ?? '',
  tags: [...tags],
  version,
  offered,
});

async function pathsOf(folders: FolderService, asker: Asker): Promise<Map<string, string>> {
  const paths = new Map<string, string>();
  for (const { id, parent, title } of await folders.list(asker))
    paths.set(id, parent === undefined ? title : `${paths.get(parent) ?? ''}/${title}`);
  return paths;
}
