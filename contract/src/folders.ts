/** Folders, and who may do what in them. */
import * as z from 'zod';

/** Each holds the ones before it: to see and fill, to write, to publish, to manage the folder itself. */
export const RIGHTS = ['fill', 'write', 'publish', 'manage'] as const;
export type Right = (typeof RIGHTS)[number];

const id = z.string().min(1).max(60);
const title = z
  .string()
  .trim()
  .min(1, 'a folder needs a name')
  .max(80)
  .regex(/^[^/\\]+$/, 'without slashes');

export const makeFolderSchema = z.strictObject({ parent: id, title });
export type MakeFolder = z.infer<typeof makeFolderSchema>;

export const changeFolderSchema = z.strictObject({
  title: title.optional(),
  parent: id.optional(),
  /** Where it stands among its neighbours, from 0. */
  position: z.int().min(0).max(100_000).optional(),
  inherits: z.boolean().optional(),
  secondPerson: z.boolean().optional(),
  grants: z
    .array(
      z.strictObject({
        holder: z.string().regex(/^(everyone|authors|(person|group):[\w-]{1,60})$/, 'is nobody'),
        right: z.enum(RIGHTS),
      }),
    )
    .max(1000)
    .optional(),
});
export type ChangeFolder = z.infer<typeof changeFolderSchema>;
export type Grant = NonNullable<ChangeFolder['grants']>[number];

export interface Folder {
  readonly id: string;
  readonly parent: string | undefined;
  readonly title: string;
  /** What the asker may do there. */
  readonly right: Right;
  /** Whether it is the asker's private one, or below it. */
  readonly own: boolean;
  readonly secondPerson: boolean;
}
/** A folder as who manages it sees it. */
export interface FolderRights {
  readonly inherits: boolean;
  readonly secondPerson: boolean;
  readonly grants: readonly Grant[];
  /** What holds here because of folders above. */
  readonly inherited: readonly Grant[];
}
