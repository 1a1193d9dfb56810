/** Files that texts show or attach, kept once whatever how many texts use them. */
import * as z from 'zod';

/** `exact` keeps the name as the path, for files of a library whose texts name them already. */
export const addAssetSchema = z.strictObject({
  name: z.string().trim().min(1).max(200),
  exact: z.literal('true').optional(),
});

/** A file that texts show or attach. */
export const assetSchema = z.strictObject({
  /** As texts name it: `assets/map.png`. */
  path: z.string(),
  /** A media type. */
  type: z.string(),
  /** Bytes. */
  size: z.number(),
});
export type Asset = Readonly<z.infer<typeof assetSchema>>;
