/** The house: how messages look, facts, holidays. One document with a working copy. */
import { houseSchema } from '@vocabula/core/house-schema';
import type { House } from '@vocabula/core';
import * as z from 'zod';
import { houseAnswer } from './shared-schemas.js';

/** What parses is a house; the schema’s own types only lack what is read-only in it. */
const house = houseSchema as unknown as z.ZodType<House, House>;

/** Saving says which revision it was based on; 0 where there is none yet. */
export const saveHouseSchema = z.strictObject({ house, revision: z.int().min(0) });
export type SaveHouse = z.infer<typeof saveHouseSchema>;

/** The house as it is kept. */
export const storedHouseSchema = z.strictObject({
  house: houseAnswer,
  revision: z.number(),
  updatedAt: z.string().optional(),
  /** The number of the version that messages use. */
  version: z.number().optional(),
});
export type StoredHouse = Readonly<z.infer<typeof storedHouseSchema>>;
