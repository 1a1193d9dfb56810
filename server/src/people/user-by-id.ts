/** Somebody in whose name something goes on while they are not here. */
import { eq } from 'drizzle-orm';
import { schema, type Reader } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { userOfRow } from './names.js';
import type { User } from './user.js';

/** Throws a 404 where there is nobody of that id. */
export async function userById(reader: Reader, id: string): Promise<User> {
  const [row] = await reader.select().from(schema.people).where(eq(schema.people.id, id));
  if (!row) throw notFound('person');
  return userOfRow(row);
}
