import { FileAnswer, type Call, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export function tableHandlers({ tables, heavy }: Pick<Services, 'tables' | 'heavy'>): HandlersOf<'tables'> {
  const saved = async (
    { params: { id }, asker }: Pick<Call<{ readonly role: 'author' }>, 'asker'> & { params: { id: string } },
    as: 'csv' | 'json',
    type: string,
  ): Promise<FileAnswer> => {
    const { title, content } = await heavy.call('tables', 'file', [id, as, asker], asker.id);
    const name = `${title.replace(/[^\p{L}\p{N} _-]/gu, '')}.${as}`;
    return new FileAnswer({ name, type: `${type}; charset=utf-8`, content });
  };
  return {
    'GET /tables': ({ query: { use }, asker }) => tables.list(use, asker),
    'POST /tables': ({ query: { use, title, accept, choices }, file, asker }) =>
      heavy.json('tables', 'import', [use, title, file, { accept: accept === 'true', choices }, asker], asker.id),
    'POST /tables/recognise': ({ query: { choices, into }, file, asker }) =>
      heavy.json('tables', 'recognise', [file, choices, into, asker], asker.id),
    'POST /tables/made': ({ body, asker }) => heavy.json('tables', 'make', [body, asker], asker.id),
    'PUT /tables/own/{name}': ({ params: { name }, body: { table }, asker }) => tables.own(name, table, asker),
    'GET /tables/{id}': ({ params: { id }, asker }) => heavy.json('tables', 'get', [id, asker], asker.id),
    'PATCH /tables/{id}': ({ params: { id }, body, asker }) =>
      heavy.json('tables', 'change', [id, body, asker], asker.id),
    'POST /tables/{id}/rows': ({ params: { id }, query, file, asker }) =>
      heavy.json('tables', 'addFile', [id, file, query, asker], asker.id),
    'POST /tables/{id}/copy': ({ params: { id }, body, asker }) =>
      heavy.json('tables', 'copy', [id, body, asker], asker.id),
    'GET /tables/{id}/csv': (call) => saved(call, 'csv', 'text/csv'),
    'GET /tables/{id}/json': (call) => saved(call, 'json', 'application/json'),
    'DELETE /tables/{id}': ({ params: { id }, asker }) => tables.bin(id, true, asker),
    'POST /tables/{id}/restore': ({ params: { id }, asker }) => tables.bin(id, false, asker),
  };
}
