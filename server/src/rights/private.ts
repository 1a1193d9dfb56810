/** Private folders: one for each person, which nobody else sees, administrators included. */
import { schema, type Writer } from '../db/database.js';

export const privateFolder = (person: string): string => `own-${person}`;

export async function addPrivateFolder(writer: Writer, person: string): Promise<void> {
  await writer
    .insert(schema.folders)
    .values({ id: privateFolder(person), parent: null, title: 'My own', owner: person })
    .onConflictDoNothing();
}
