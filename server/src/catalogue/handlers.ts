import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

/** How many texts a search gives. */
const LIMIT = { fill: 12, write: 200 } as const;

/** Bytes up to which a text is saved in the thread that answers: tens of milliseconds at most, whatever they hold. */
const SMALL = 30_000;

/** Texts from which listing them takes tens of milliseconds, so that a worker thread does it. */
const MANY = 500;

export const catalogueHandlers = ({
  catalogue,
  search,
  uses,
  heavy,
  findings,
}: Pick<Services, 'catalogue' | 'search' | 'uses' | 'heavy' | 'findings'>): HandlersOf<'texts'> => ({
  'GET /texts': async ({ user }) =>
    (await catalogue.size()) > MANY ? heavy.json('catalogue', 'list', [user], user.id) : catalogue.list(user),
  'POST /texts': ({ body, user }) => heavy.json('catalogue', 'create', [body, user], user.id),
  'GET /texts/search': ({ query: { q, for: purpose, to }, user }) =>
    search.search(q, user, { purpose, limit: LIMIT[purpose], to }),
  'GET /texts/alike': ({ user }) => heavy.json('alike', 'groups', [user], user.id),
  'GET /texts/neighbours': ({ query, user }) => uses.neighbours(query.of, user),
  'POST /texts/import': ({ body, user }) => heavy.json('files', 'import', [body, user], user.id),
  'POST /texts/many': ({ body, user }) => catalogue.many(body, user),
  'GET /texts/{name}': ({ params: { name }, user }) => catalogue.get(name, user),
  'PUT /texts/{name}': async ({ params: { name }, body, bytes, user }) => {
    // The way to a thread and back costs more than saving a text of usual size.
    const saved =
      bytes <= SMALL
        ? await catalogue.save(name, body, user)
        : await heavy.json('catalogue', 'save', [name, body, user], user.id);
    findings.later(name, user);
    return saved;
  },
  'DELETE /texts/{name}': ({ params: { name }, user }) => catalogue.bin(name, true, user),
  'POST /texts/{name}/restore': ({ params: { name }, user }) => catalogue.bin(name, false, user),
  'GET /texts/{name}/closure': ({ params: { name }, query, user }) =>
    query.for === 'fill' ? catalogue.closureToFill(name, user) : catalogue.closure(name, user, query.for),
  'GET /texts/{name}/file': async ({ params: { name }, user }) =>
    new FileAnswer({
      name: `${name}.md`,
      type: 'text/markdown; charset=utf-8',
      content: await catalogue.file(name, user),
    }),
});
