/** What somebody may do where. Everything that gives out texts asks here. */
import type { Right } from '@vocabula/contract';
import { eq } from 'drizzle-orm';
import { Kept } from '../db/generation-cache.js';
import { schema, type Reader, type Writer } from '../db/database.js';
import { notFound, RequestProblem } from '../http/problem.js';
import type { User } from '../people/user.js';

/** The root of all folders but the private ones. */
export const ROOT = 'root';

const ORDER = ['none', 'fill', 'write', 'publish', 'manage'] as const;
export type Granted = 'none' | Right;
const rank = (right: Granted): number => ORDER.indexOf(right);
const WORDS: Readonly<Record<Right, string>> = {
  fill: 'see it',
  write: 'write in its folder',
  publish: 'publish in its folder',
  manage: 'manage its folder',
};

type FolderRow = typeof schema.folders.$inferSelect;

/** The rights of one person in every folder. */
export class Access {
  constructor(
    readonly folders: ReadonlyMap<string, FolderRow>,
    private readonly rights: ReadonlyMap<string, Granted>,
  ) {}

  right(folder: string): Granted {
    return this.rights.get(folder) ?? 'none';
  }

  may(right: Right, folder: string): boolean {
    return rank(this.right(folder)) >= rank(right);
  }

  /** Throws: a 404 as for what does not exist where it may not be seen, else a 403. */
  demand(right: Right, folder: string, what = 'text'): void {
    if (!this.may('fill', folder)) throw notFound(what);
    if (!this.may(right, folder))
      throw new RequestProblem(403, 'not-allowed', `You may see this, but not ${WORDS[right]}.`);
  }
}

/** Asked for in every request, mostly several times: made anew only when folders, grants or groups have changed. */
const kept = new Kept<Access>(['rights'], 1000);

/**
 * Rights are added up from the top folder down; the highest of what is granted to the person, their groups, authors and
 * everyone holds. A folder that does not inherit begins anew. A colleague fills, whatever is granted; in their own
 * folder everybody may do all.
 */
export const accessOf = (reader: Reader | Writer, user: Pick<User, 'id' | 'role'>): Promise<Access> =>
  kept.get(reader, `${user.role} ${user.id}`, () => madeAccess(reader, user));

async function madeAccess(reader: Reader | Writer, user: Pick<User, 'id' | 'role'>): Promise<Access> {
  const [folders, grants, groups] = [
    await reader.select().from(schema.folders),
    await reader.select().from(schema.grants),
    await reader.select({ group: schema.members.group }).from(schema.members).where(eq(schema.members.person, user.id)),
  ];
  const holders = new Set([
    'everyone',
    `person:${user.id}`,
    ...(user.role === 'colleague' ? [] : ['authors']),
    ...groups.map(({ group }) => `group:${group}`),
  ]);
  const granted = new Map<string, Granted>();
  for (const { folder, holder, right } of grants)
    if (holders.has(holder)) granted.set(folder, higher(granted.get(folder) ?? 'none', right));
  const byId = new Map(folders.map((folder) => [folder.id, folder]));
  const rights = new Map<string, Granted>();
  const of = (folder: FolderRow, below: number): Granted => {
    const known = rights.get(folder.id);
    if (known !== undefined) return known;
    const parent = folder.parent === null || below > byId.size ? undefined : byId.get(folder.parent);
    const inherited = parent && folder.inherits ? of(parent, below + 1) : 'none';
    const right = limited(higher(inherited, granted.get(folder.id) ?? 'none'), folder, user);
    rights.set(folder.id, right);
    return right;
  };
  for (const folder of folders) of(folder, 0);
  return new Access(byId, rights);
}

/** Folders below a private one carry its owner too. */
function limited(right: Granted, { owner }: FolderRow, user: Pick<User, 'id' | 'role'>): Granted {
  if (owner !== null) return owner === user.id ? 'manage' : 'none';
  if (user.role === 'administrator') return 'manage';
  return user.role === 'colleague' && rank(right) > rank('fill') ? 'fill' : right;
}

const higher = (a: Granted, b: Granted): Granted => (rank(a) >= rank(b) ? a : b);
