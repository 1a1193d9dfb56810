/** The person who asks. One for now; accounts come later. */
import * as z from 'zod';
import { nameSchema } from './texts.js';

const field = z.string().max(500);
export const profileSchema = z.strictObject({
  name: field,
  email: field,
  title: field,
  telephone: field,
  pronouns: field,
  booking_link: field,
  /** Own fields, by key. */
  own: z.record(
    z
      .string()
      .regex(/^[a-z][a-z0-9_]*$/, 'a field has small letters, digits and underscores')
      .max(40),
    field,
  ),
  signature: z.union([nameSchema, z.literal('')]),
  reply_signature: z.union([nameSchema, z.literal('')]),
});
export type Profile = z.infer<typeof profileSchema>;

export const EMPTY_PROFILE: Profile = {
  name: '',
  email: '',
  title: '',
  telephone: '',
  pronouns: '',
  booking_link: '',
  own: {},
  signature: '',
  reply_signature: '',
};

/** The profile as sender fields of a message. */
export function senderFields({
  own,
  signature: _signature,
  reply_signature: _reply,
  ...fields
}: Profile): Record<string, string> {
  return { ...own, ...fields };
}
