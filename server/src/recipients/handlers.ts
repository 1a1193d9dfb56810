import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const recipientHandlers = ({
  recipients,
  tables,
  heavy,
}: Pick<Services, 'recipients' | 'tables' | 'heavy'>): HandlersOf<'recipients'> => ({
  'GET /recipients': ({ query: { q }, user }) => recipients.search(q, user),
  'GET /recipients/lists': ({ user }) => tables.list('recipients', user),
  'GET /recipients/record': ({ query: { address }, user }) => recipients.record(address, user),
  'POST /recipients/forget': ({ body: { address }, user }) =>
    heavy.json('recipients', 'forget', [address, user], user.id),
  'GET /recipients/do-not-write': () => recipients.notWritten(),
  'PUT /recipients/do-not-write': ({ body, user }) => recipients.refuse(body, user),
  'DELETE /recipients/do-not-write': ({ query: { address }, user }) => recipients.allow(address, user),
});
