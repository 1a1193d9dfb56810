/** Folders, and who may do what in them. */
import * as z from 'zod';
import { RIGHTS } from './constants.js';

const id = z.string().min(1).max(60);
const title = z
  .string()
  .trim()
  .min(1, 'a folder needs a name')
  .max(80)
  .regex(/^[^/\\]+$/, 'without slashes');

/** A right that somebody has in a folder. */
export const grantSchema = z.strictObject({
  holder: z.string().regex(/^(everyone|authors|(person|group):[\w-]{1,60})$/, 'is nobody'),
  right: z.enum(RIGHTS),
});
export type Grant = z.infer<typeof grantSchema>;

/** Makes a folder. */
export const makeFolderSchema = z.strictObject({ parent: id, title });
export type MakeFolder = z.infer<typeof makeFolderSchema>;

/** Changes a folder, or moves it; what is left out stays. */
export const changeFolderSchema = z.strictObject({
  title: title.optional(),
  parent: id.optional(),
  /** Where it stands among its neighbours, from 0. */
  position: z.int().min(0).max(100_000).optional(),
  inherits: z.boolean().optional(),
  secondPerson: z.boolean().optional(),
  grants: z.array(grantSchema).max(1000).optional(),
});
export type ChangeFolder = z.infer<typeof changeFolderSchema>;

/** A folder as the person sees it. */
export const folderSchema = z.strictObject({
  id: z.string(),
  parent: z.string().optional(),
  title: z.string(),
  /** What the user may do there. */
  right: z.enum(RIGHTS),
  /** Whether it is the user's private one, or below it. */
  own: z.boolean(),
  secondPerson: z.boolean(),
});
export type Folder = Readonly<z.infer<typeof folderSchema>>;
/** A folder as who manages it sees it. */
export const folderRightsSchema = z.strictObject({
  inherits: z.boolean(),
  secondPerson: z.boolean(),
  grants: z.array(grantSchema).readonly(),
  /** What holds here because of folders above. */
  inherited: z.array(grantSchema).readonly(),
});
export type FolderRights = Readonly<z.infer<typeof folderRightsSchema>>;
