/** The house: how messages look, facts, holidays. One document with a working copy. */
import { houseSchema as house } from '@vocabula/core/house-schema';
import type { House } from '@vocabula/core';
import * as z from 'zod';

/** Saving says which revision it was based on; 0 where there is none yet. */
export const saveHouseSchema = z.strictObject({
  house: house.transform((value) => value as House),
  revision: z.int().min(0),
});
export type SaveHouse = { house: House; revision: number };

export interface StoredHouse {
  readonly house: House;
  readonly revision: number;
  readonly updatedAt: string | undefined;
  /** The number of the version that messages use. */
  readonly version?: number | undefined;
}
