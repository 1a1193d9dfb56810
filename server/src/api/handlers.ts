/** `/api/v1`: for other programs, with a personal key. */
import { senderFields, type Answered, type Endpoints, type TextSummary } from '@vocabula/contract';
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
import { closure } from '../catalogue/visible-texts.js';
import { currentHouse } from '../house/house-state.js';
import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';
import type { FolderService } from '../rights/folders.js';
import type { Services } from '../services.js';
import { openApi, openApiPage } from './openapi.js';
import { writingHandlers, type WritingParts } from './writing.js';

type Parts = Pick<Services, 'database' | 'catalogue' | 'search' | 'people' | 'folders' | 'heavy'>;

// eslint-disable-next-line max-lines-per-function -- a table of handlers
export const programHandlers = (parts: Parts & WritingParts): HandlersOf<'v1'> => {
  const { catalogue, search } = parts;
  return {
    ...writingHandlers(parts),
    'GET /v1': () => new FileAnswer({ type: 'html', content: openApiPage() }),
    'GET /v1/openapi.json': () => openApi(),
    'GET /v1/texts': async ({ query: { kind, after = '', limit }, user }) => {
      const folders = await pathsOf(parts.folders, user);
      const all = (await catalogue.list(user))
        .filter(
          (each) =>
            !each.binned &&
            each.version !== undefined &&
            (kind === undefined || each.kind === kind) &&
            each.name > after,
        )
        .sort((a, b) => (a.name < b.name ? -1 : 1));
      const texts = all.slice(0, limit).map((each) => lineOf(each, folders));
      return { texts, ...(all.length > limit ? { next: texts.at(-1)?.name } : {}) };
    },
    'GET /v1/search': async ({ query: { q }, user }) => ({
      texts: (await search.search(q, user, { purpose: 'fill', limit: 50 })).map(
        ({ name, kind, title, subject, call, opening }) => ({ name, kind, title, subject, call, opening }),
      ),
    }),
    'GET /v1/texts/{name}': async ({ params: { name }, user }) => {
      const found = (await catalogue.list(user)).find((each) => each.name === name && !each.binned);
      const [own] = await closure(parts.database.read, name, user, 'fill');
      if (!found || !own) throw notFound('text');
      return { ...lineOf(found, await pathsOf(parts.folders, user)), file: writeText(own.document) };
    },
    'POST /v1/texts/{name}/questions': async ({ params: { name }, body: { recipient, answers }, user }) => {
      const { program, sender } = await programFor(parts, name, user);
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
    },
    'POST /v1/texts/{name}/render': async ({
      params: { name },
      body: { recipient, answers, timezone, today },
      user,
    }) => {
      const { program, sender, version } = await programFor(parts, name, user);
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
    },
    'POST /v1/texts/{name}/publish': async ({ params: { name }, body, user }) => {
      const { version = 0 } = await parts.heavy.call('versions', 'publish', [name, body, user], user.id);
      return { version };
    },
  };
};

async function programFor(
  { database, people }: Parts,
  name: string,
  user: User,
): Promise<{ readonly program: Program; readonly sender: Record<string, string>; readonly version: number }> {
  const { read } = database;
  const profile = await people.profile(user);
  const [first] = await closure(read, name, user, 'fill');
  if (!first || first.document.attrs.front.kind !== 'message') throw notFound('template');
  const signature = signatureFor(first.document.attrs.front.purpose, profile);
  const texts = await closure(read, name, user, 'fill', signature ? [signature] : []);
  const { house } = await currentHouse(read, 'fill');
  const program = compileBundle({ text: first, texts, house, signature });
  return { program, sender: senderFields(profile), version: first.version ?? 0 };
}

const lineOf = (
  { name, kind, title, subject, call, folder, tags, version, offered }: TextSummary,
  folders: ReadonlyMap<string, string>,
): Answered<Endpoints['GET /v1/texts']>['texts'][number] => ({
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

async function pathsOf(folders: FolderService, user: User): Promise<Map<string, string>> {
  const paths = new Map<string, string>();
  for (const { id, parent, title } of await folders.list(user))
    paths.set(id, parent === undefined ? title : `${paths.get(parent) ?? ''}/${title}`);
  return paths;
}
