import { FileAnswer, type Call, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export function tableHandlers({ tables, heavy }: Pick<Services, 'tables' | 'heavy'>): HandlersOf<'tables'> {
  const saved = async (
    { params: { id }, user }: Pick<Call<{ readonly role: 'author' }>, 'user'> & { params: { id: string } },
    as: 'csv' | 'json',
    type: string,
  ): Promise<FileAnswer> => {
    const { title, content } = await heavy.call('tables', 'file', [id, as, user], user.id);
    const name = `${title.replace(/[^\p{L}\p{N} _-]/gu, '')}.${as}`;
    return new FileAnswer({ name, type: `${type}; charset=utf-8`, content });
  };
  return {
    'GET /tables': ({ query: { use }, user }) => tables.list(use, user),
    'POST /tables': ({ query: { use, title, accept, choices }, file, user }) =>
      heavy.json('tables', 'import', [use, title, file, { accept: accept === 'true', choices }, user], user.id),
    'POST /tables/recognise': ({ query: { choices, into }, file, user }) =>
      heavy.json('tables', 'recognise', [file, choices, into, user], user.id),
    'POST /tables/made': ({ body, user }) => heavy.json('tables', 'make', [body, user], user.id),
    'PUT /tables/own/{name}': ({ params: { name }, body: { table }, user }) => tables.own(name, table, user),
    'GET /tables/{id}': ({ params: { id }, user }) => heavy.json('tables', 'get', [id, user], user.id),
    'PATCH /tables/{id}': ({ params: { id }, body, user }) => heavy.json('tables', 'change', [id, body, user], user.id),
    'POST /tables/{id}/rows': ({ params: { id }, query, file, user }) =>
      heavy.json('tables', 'addFile', [id, file, query, user], user.id),
    'POST /tables/{id}/copy': ({ params: { id }, body, user }) =>
      heavy.json('tables', 'copy', [id, body, user], user.id),
    'GET /tables/{id}/csv': (call) => saved(call, 'csv', 'text/csv'),
    'GET /tables/{id}/json': (call) => saved(call, 'json', 'application/json'),
    'DELETE /tables/{id}': ({ params: { id }, user }) => tables.bin(id, true, user),
    'POST /tables/{id}/restore': ({ params: { id }, user }) => tables.bin(id, false, user),
  };
}
