import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const folderHandlers = ({ folders }: Pick<Services, 'folders'>): HandlersOf<'folders'> => ({
  'GET /folders': ({ user }) => folders.list(user),
  'POST /folders': ({ body, user }) => folders.make(body, user),
  'GET /folders/{id}/rights': ({ params: { id }, user }) => folders.rights(id, user),
  'PATCH /folders/{id}': ({ params: { id }, body, user }) => folders.change(id, body, user),
  'DELETE /folders/{id}': ({ params: { id }, user }) => folders.remove(id, user),
});
