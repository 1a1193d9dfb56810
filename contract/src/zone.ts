/** Time zones over the wire. */
import { isZone } from '@vocabula/core';
import * as z from 'zod';

/** A zone of the IANA database, such as `Europe/Dublin`, or `UTC`. One that nobody knows is answered with 422. */
export const zoneSchema = z
  .string()
  .max(80)
  .refine(isZone, { error: 'there is no such time zone', params: { status: 422, code: 'unknown-zone' } });
