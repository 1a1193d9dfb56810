/** What holds for the whole workspace. */
import { workspaceSchema, type Workspace } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { note } from '../audit/service.js';
import { schema, type Database, type Reader, type Writer } from '../db/database.js';
import type { User } from './user.js';

const { workspace } = schema;
const KEY = 'workspace';
const USUAL: Workspace = { counting: false };

export async function workspaceOf(reader: Reader | Writer): Promise<Workspace> {
  const kept = await workspaceValue(reader, KEY);
  return kept === undefined ? USUAL : workspaceSchema.parse(kept);
}

/** Anything else that is kept for all, by key. */
export async function workspaceValue(reader: Reader | Writer, key: string): Promise<unknown> {
  const [row] = await reader.select().from(workspace).where(eq(workspace.key, key));
  return row && row.value;
}
export async function keepWorkspaceValue(writer: Writer, key: string, value: unknown): Promise<void> {
  const row = { key, value };
  await writer.insert(workspace).values(row).onConflictDoUpdate({ target: workspace.key, set: row });
}

export function changeWorkspace(database: Database, changed: Workspace, user: User): Promise<Workspace> {
  return database.write(async (writer) => {
    await keepWorkspaceValue(writer, KEY, changed);
    const words = `counting of openings and links: ${changed.counting ? 'on' : 'off'}`;
    await note(writer, user, 'changed', 'workspace', '', words);
    return changed;
  });
}
