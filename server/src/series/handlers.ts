import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const seriesHandlers = ({ series }: Pick<Services, 'series'>): HandlersOf<'series'> => ({
  'GET /series': ({ user }) => series.list(user),
  'POST /series': ({ body, user }) => series.start(body, user),
  'GET /series/{id}': ({ params: { id }, user }) => series.get(id, user),
  'POST /series/{id}/stop': ({ params: { id }, user }) => series.stop(id, user),
  'GET /series/{id}/steps/{at}': ({ params: { id, at }, user }) => series.message(id, at, user),
  'PATCH /series/{id}/steps/{at}': ({ params: { id, at }, body, user }) => series.change(id, at, body, user),
});
