import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const folderHandlers = ({ folders }: Pick<Services, 'folders'>): HandlersOf<'folders'> => ({
  'GET /folders': ({ asker }) => folders.list(asker),
  'POST /folders': ({ body, asker }) => folders.make(body, asker),
  'GET /folders/{id}/rights': ({ params: { id }, asker }) => folders.rights(id, asker),
  'PATCH /folders/{id}': ({ params: { id }, body, asker }) => folders.change(id, body, asker),
  'DELETE /folders/{id}': ({ params: { id }, asker }) => folders.remove(id, asker),
});
