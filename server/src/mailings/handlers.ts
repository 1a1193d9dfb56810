import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const mailingHandlers = ({
  mailings,
  heavy,
  wake,
}: Pick<Services, 'mailings' | 'heavy' | 'wake'>): HandlersOf<'mailings'> => ({
  'GET /mailings': ({ asker }) => mailings.list(asker),
  'POST /mailings': ({ body, asker }) => mailings.make(body, asker),
  'GET /mailings/{id}': ({ params: { id }, asker }) => mailings.get(id, asker),
  'GET /mailings/{id}/progress': ({ params: { id }, asker }) => mailings.progress(id, asker),
  'GET /mailings/{id}/rows': ({ params: { id }, asker }) => mailings.rows(id, asker),
  'PATCH /mailings/{id}': ({ params: { id }, body, asker }) =>
    heavy.json('mailings', 'change', [id, body, asker], asker.id),
  'POST /mailings/{id}/recipients': ({ params: { id }, body, asker }) =>
    heavy.json('mailings', 'add', [id, body, asker], asker.id),
  'PATCH /mailings/{id}/rows/{row}': ({ params: { id, row }, body, asker }) => mailings.changeRow(id, row, body, asker),
  'POST /mailings/{id}/drive': async ({ params: { id }, body, asker }) => {
    // The first look at all messages is long; stopping waits behind nothing.
    const driven = await (body.act === 'first'
      ? heavy.call('mailings', 'drive', [id, body, asker], asker.id)
      : mailings.drive(id, body, asker));
    wake();
    return driven;
  },
});
