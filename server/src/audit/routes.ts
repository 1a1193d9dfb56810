import { auditQuerySchema } from '@vocabula/contract';
import { writeCsv } from '@vocabula/core/tables';
import { Router } from 'express';
import { parsed } from '../http/problem.js';
import { route } from '../http/route.js';
import type { AuditService } from './service.js';

export function auditRoutes(audit: AuditService): Router {
  const router = Router();
  router.get(
    '/',
    route(
      'administrator',
      async (request, response) => void response.json(await audit.list(parsed(auditQuerySchema, request.query))),
    ),
  );
  router.get(
    '/csv',
    route('administrator', async (request, response) => {
      const rows = await audit.all(parsed(auditQuerySchema, request.query));
      const names = ['at', 'whoName', 'act', 'what', 'target', 'words'] as const;
      const columns = names.map((key) => ({ key, name: key === 'whoName' ? 'who' : key }));
      const cells = rows.map((row) => Object.fromEntries(names.map((key) => [key, row[key]])));
      response.attachment('audit.csv').type('text/csv; charset=utf-8').send(writeCsv(columns, cells));
    }),
  );
  return router;
}
