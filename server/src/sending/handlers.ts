import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const outgoingHandlers = ({ outbox, wake }: Pick<Services, 'outbox' | 'wake'>): HandlersOf<'outgoing'> => ({
  'GET /outgoing': ({ user }) => outbox.list(user),
  'GET /outgoing/service': ({ user }) => outbox.service(user),
  'GET /outgoing/{id}': ({ params: { id }, user }) => outbox.get(id, user),
  'PATCH /outgoing/{id}': async ({ params: { id }, body, user }) => {
    const changed = await outbox.change(id, body, user);
    wake();
    return changed;
  },
});
