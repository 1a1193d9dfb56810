/** Private folders: one for each person, which nobody else sees, administrators included. */
import type { Writer } from '../db/database.js';
import { addFolder } from './store.js';

export const privateFolder = (person: string): string => `own-${person}`;

export async function addPrivateFolder(writer: Writer, person: string): Promise<void> {
  await addFolder(writer, { id: privateFolder(person), parent: null, title: 'My own', owner: person });
}
