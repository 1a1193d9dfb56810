import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const mailingHandlers = ({
  mailings,
  heavy,
  wake,
}: Pick<Services, 'mailings' | 'heavy' | 'wake'>): HandlersOf<'mailings'> => ({
  'GET /mailings': ({ user }) => mailings.list(user),
  'POST /mailings': ({ body, user }) => mailings.make(body, user),
  'GET /mailings/{id}': ({ params: { id }, user }) => mailings.get(id, user),
  'GET /mailings/{id}/progress': ({ params: { id }, user }) => mailings.progress(id, user),
  'GET /mailings/{id}/rows': ({ params: { id }, user }) => mailings.rows(id, user),
  'PATCH /mailings/{id}': ({ params: { id }, body, user }) =>
    heavy.json('mailings', 'change', [id, body, user], user.id),
  'POST /mailings/{id}/recipients': ({ params: { id }, body, user }) =>
    heavy.json('mailings', 'add', [id, body, user], user.id),
  'PATCH /mailings/{id}/rows/{row}': ({ params: { id, row }, body, user }) => mailings.changeRow(id, row, body, user),
  'POST /mailings/{id}/drive': async ({ params: { id }, body, user }) => {
    // The first look at all messages is long; stopping waits behind nothing.
    const driven = await (body.act === 'first'
      ? heavy.call('mailings', 'drive', [id, body, user], user.id)
      : mailings.drive(id, body, user));
    wake();
    return driven;
  },
});
