import { writeCsv } from '@vocabula/core/tables';
import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';
import { CSV_COLUMNS, csvCells } from './ledger-table.js';

export const insightHandlers = ({ heavy }: Pick<Services, 'heavy'>): HandlersOf<'insight'> => ({
  'GET /insight/ledger': ({ query, user }) => heavy.json('insight', 'ledger', [query, user, new Date()], user.id),
  'GET /insight/ledger/csv': async ({ query, user }) => {
    const rows = await heavy.call('insight', 'ledger', [query, user, new Date()], user.id);
    const content = writeCsv(CSV_COLUMNS, rows.map(csvCells));
    return new FileAnswer({ name: 'looking-back.csv', type: 'text/csv; charset=utf-8', content });
  },
  'GET /insight/texts/{name}': ({ params, query, user }) =>
    heavy.json('insight', 'text', [params.name, query, user], user.id),
});
