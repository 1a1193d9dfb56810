import { writeCsv } from '@vocabula/core/tables';
import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const auditHandlers = ({ audit }: Pick<Services, 'audit'>): HandlersOf<'audit'> => ({
  'GET /audit': ({ query }) => audit.list(query),
  'GET /audit/csv': async ({ query }) => {
    const rows = await audit.all(query);
    const names = ['at', 'whoName', 'act', 'what', 'target', 'words'] as const;
    const columns = names.map((key) => ({ key, name: key === 'whoName' ? 'who' : key }));
    const cells = rows.map((row) => Object.fromEntries(names.map((key) => [key, row[key]])));
    return new FileAnswer({ name: 'audit.csv', type: 'text/csv; charset=utf-8', content: writeCsv(columns, cells) });
  },
});
