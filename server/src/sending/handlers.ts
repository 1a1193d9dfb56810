import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const outgoingHandlers = ({ outbox, wake }: Pick<Services, 'outbox' | 'wake'>): HandlersOf<'outgoing'> => ({
  'GET /outgoing': ({ asker }) => outbox.list(asker),
  'GET /outgoing/service': ({ asker }) => outbox.service(asker),
  'GET /outgoing/{id}': ({ params: { id }, asker }) => outbox.get(id, asker),
  'PATCH /outgoing/{id}': async ({ params: { id }, body, asker }) => {
    const changed = await outbox.change(id, body, asker);
    wake();
    return changed;
  },
});
