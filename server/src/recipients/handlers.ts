import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const recipientHandlers = ({
  recipients,
  tables,
  heavy,
}: Pick<Services, 'recipients' | 'tables' | 'heavy'>): HandlersOf<'recipients'> => ({
  'GET /recipients': ({ query: { q }, asker }) => recipients.search(q, asker),
  'GET /recipients/lists': ({ asker }) => tables.list('recipients', asker),
  'GET /recipients/record': ({ query: { address }, asker }) => recipients.record(address, asker),
  'POST /recipients/forget': ({ body: { address }, asker }) =>
    heavy.json('recipients', 'forget', [address, asker], asker.id),
  'GET /recipients/do-not-write': () => recipients.notWritten(),
  'PUT /recipients/do-not-write': ({ body, asker }) => recipients.refuse(body, asker),
  'DELETE /recipients/do-not-write': ({ query: { address }, asker }) => recipients.allow(address, asker),
});
