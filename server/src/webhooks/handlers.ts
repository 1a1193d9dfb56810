import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const webhookHandlers = ({ webhooks }: Pick<Services, 'webhooks'>): HandlersOf<'webhooks'> => ({
  'GET /webhooks': () => webhooks.list(),
  'POST /webhooks': ({ body, user }) => webhooks.make(body, user),
  'DELETE /webhooks/{id}': ({ params: { id }, user }) => webhooks.remove(id, user),
  'POST /webhooks/{id}/try': ({ params: { id } }) => webhooks.try(id),
});
