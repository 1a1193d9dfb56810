import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

/** How many texts a search gives. */
const LIMIT = { fill: 12, write: 200 } as const;

export const catalogueHandlers = ({
  catalogue,
  search,
  uses,
  heavy,
}: Pick<Services, 'catalogue' | 'search' | 'uses' | 'heavy'>): HandlersOf<'texts'> => ({
  'GET /texts': ({ asker }) => catalogue.list(asker),
  'POST /texts': ({ body, asker }) => heavy.json('catalogue', 'create', [body, asker], asker.id),
  'GET /texts/search': ({ query: { q, for: purpose, to }, asker }) =>
    search.search(q, asker, { purpose, limit: LIMIT[purpose], to }),
  'GET /texts/alike': ({ asker }) => heavy.json('alike', 'groups', [asker], asker.id),
  'GET /texts/neighbours': ({ query, asker }) => uses.neighbours(query.of, asker),
  'POST /texts/import': ({ body, asker }) => heavy.json('files', 'import', [body, asker], asker.id),
  'POST /texts/many': ({ body, asker }) => catalogue.many(body, asker),
  'GET /texts/{name}': ({ params: { name }, asker }) => catalogue.get(name, asker),
  'PUT /texts/{name}': ({ params: { name }, body, asker }) =>
    heavy.json('catalogue', 'save', [name, body, asker], asker.id),
  'DELETE /texts/{name}': ({ params: { name }, asker }) => catalogue.bin(name, true, asker),
  'POST /texts/{name}/restore': ({ params: { name }, asker }) => catalogue.bin(name, false, asker),
  'GET /texts/{name}/closure': ({ params: { name }, query, asker }) =>
    query.for === 'fill' ? catalogue.closureToFill(name, asker) : catalogue.closure(name, asker, query.for),
  'GET /texts/{name}/file': async ({ params: { name }, asker }) =>
    new FileAnswer({
      name: `${name}.md`,
      type: 'text/markdown; charset=utf-8',
      content: await catalogue.file(name, asker),
    }),
});
