/**
 * Counting of openings and followed links: an image and addresses of our own in a message, only while the workspace has
 * turned it on. An address leads where its row says and nowhere else.
 */
import { randomBytes } from 'node:crypto';
import type { Message } from '@vocabula/core';
import { eq } from 'drizzle-orm';
import { Router, type Request } from 'express';
import * as z from 'zod';
import { schema, type Database } from '../db/database.js';
import { notFound, parsed } from '../http/problem.js';
import { addCounts, addCounted } from './store.js';

const { counted } = schema;
const LINK = /(<a\b[^>]*?\shref=")(https?:\/\/[^"]*)(")/g;
/** The smallest image there is: one transparent point (GIF89a). */
const POINT = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64');

/** The message as it goes out for counting. @param origin of this server; where it is not known nothing is counted */
export async function withCounting(
  database: Database,
  outgoing: string,
  message: Message,
  origin: string,
): Promise<Message> {
  if (origin === '') return message;
  const rows: (typeof counted.$inferInsert)[] = [];
  const token = (what: 'opened' | 'followed', url: string | null): string => {
    const made = randomBytes(18).toString('base64url');
    rows.push({ token: made, outgoing, what, url });
    return made;
  };
  const linked = message.html.replace(LINK, (_whole, before: string, url: string, after: string) => {
    const plain = url
      .replace(/&quot;/g, '"')
      .replace(/&#39;/g, "'")
      .replace(/&amp;/g, '&');
    return `${before}${origin}/counted/link/${token('followed', plain)}${after}`;
  });
  const image = `<img src="${origin}/counted/open/${token('opened', null)}" alt="" width="1" height="1">`;
  const html = linked.replace(/<\/body><\/html>$/, () => `${image}</body></html>`);
  await database.write((writer) => addCounted(writer, rows));
  return { ...message, html };
}

/** The addresses that messages hold. Anybody may fetch them: that is what they are for. */
export function countingRoutes(database: Database): Router {
  const router = Router();
  const count = async (token: string): Promise<typeof counted.$inferSelect | undefined> => {
    const [row] = await database.read.select().from(counted).where(eq(counted.token, token));
    if (!row) return undefined;
    const at = new Date().toISOString();
    await database.write((writer) => addCounts(writer, [{ outgoing: row.outgoing, what: row.what, at }]));
    return row;
  };
  const tokenOf = (request: Request): string => parsed(z.string().max(60), request.params.token);
  router.get('/open/:token', async (request, response) => {
    if (!(await count(tokenOf(request)))) throw notFound('image');
    response.set('cache-control', 'no-store').type('image/gif').send(POINT);
  });
  router.get('/link/:token', async (request, response) => {
    const row = await count(tokenOf(request));
    if (!row?.url) throw notFound('link');
    response.redirect(302, row.url);
  });
  return router;
}
