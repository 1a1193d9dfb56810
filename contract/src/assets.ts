/** Files that texts show or attach, kept once whatever how many texts use them. */
import * as z from 'zod';

/** `exact` keeps the name as the path, for files of a library whose texts name them already. */
export const addAssetSchema = z.strictObject({
  name: z.string().trim().min(1).max(200),
  exact: z.literal('true').optional(),
});

export interface Asset {
  /** As texts name it: `assets/map.png`. */
  readonly path: string;
  /** A media type. */
  readonly type: string;
  /** Bytes. */
  readonly size: number;
}

/** The most that one file, and the attachments of one text together, may have. */
export const MAX_ASSET = 20_000_000;
/** The most an image may have that is shown in a message. */
export const MAX_IMAGE = 8_000_000;
